package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The most similar of many keys, against comparing with each. */
class SimilarityBoundTest {
  private static final JaroWinklerSimilarity SIMILARITY = new JaroWinklerSimilarity();
  private static final String[] NAMES = {
    "Merrow", "Bank", "Calder", "Osier", "Lark", "field", "Thistle", "Meadow", "Farm", "Hollow",
    "é", "ж", "-", " "
  };

  private static String name(Random random) {
    StringBuilder name = new StringBuilder();
    for (int i = 1 + random.nextInt(4); i > 0; i--) {
      name.append(NAMES[random.nextInt(NAMES.length)]);
    }
    return name.toString();
  }

  private static String slipped(Random random, String name) {
    int at = random.nextInt(name.length());
    return switch (random.nextInt(3)) {
      case 0 -> name.substring(0, at) + name.substring(at + 1);
      case 1 -> name.substring(0, at) + "x" + name.substring(at);
      default -> name.substring(0, at) + "q" + name.substring(at + 1);
    };
  }

  @Tag("oracle")
  @Tag("oracle")
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void theMostSimilarIsFoundAmongAllKeys(long seed) {
    Random random = new Random(seed);
    Set<String> different = new LinkedHashSet<>();
    while (different.size() < 4_000) {
      different.add(name(random) + random.nextInt(40));
    }
    List<String> keys = new ArrayList<>(different);
    SimilarKeys near = new SimilarKeys(keys);
    for (int i = 0; i < 60; i++) {
      String text = slipped(random, keys.get(random.nextInt(keys.size())));
      double atLeast = 0.7 + random.nextInt(30) / 100.0;
      double best = 0;
      for (String key : keys) {
        best = Math.max(best, SIMILARITY.apply(text, key));
      }
      List<String> expected = new ArrayList<>();
      for (String key : keys) {
        if (best >= atLeast && SIMILARITY.apply(text, key) == best) {
          expected.add(key);
        }
      }
      assertThat(near.mostSimilar(text, atLeast))
          .as("%s at least %s", text, atLeast)
          .extracting(SimilarKeys.Similar::key)
          .containsExactlyInAnyOrderElementsOf(expected);
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {11, 12, 13})
  void noSimilarityIsAboveItsBound(long seed) {
    Random random = new Random(seed);
    String[] keys = new String[300];
    for (int i = 0; i < keys.length; i++) {
      keys[i] = name(random);
    }
    SimilarityBound bound = new SimilarityBound(keys);
    int below = 0;
    for (int i = 0; i < 300; i++) {
      String text = random.nextBoolean() ? name(random) : slipped(random, keys[i]);
      for (int key = 0; key < keys.length; key++) {
        double most = bound.most(key, text.length(), SimilarityBound.counts(text));
        assertThat(SIMILARITY.apply(text, keys[key])).isLessThanOrEqualTo(most);
        below += most < 0.9 ? 1 : 0;
      }
    }
    assertThat(below).as("most are told apart by it").isGreaterThan(300 * 300 / 2);
  }

  @Test
  void commonCountsAreTheLesserOfEachClass() {
    Random random = new Random(5);
    for (int i = 0; i < 2_000; i++) {
      long one = 0;
      long other = 0;
      int expected = 0;
      for (int c = 0; c < 16; c++) {
        int a = random.nextInt(15);
        int b = random.nextInt(15);
        one |= (long) a << 4 * c;
        other |= (long) b << 4 * c;
        expected += Math.min(a, b);
      }
      assertThat(SimilarityBound.common(one, other)).isEqualTo(expected);
    }
  }

  @Test
  void longTextsAreAlwaysCompared() {
    String same = "a".repeat(40);
    SimilarKeys near = new SimilarKeys(List.of(same, "b".repeat(40), ""));
    assertThat(near.mostSimilar("a".repeat(39), 0.9))
        .extracting(SimilarKeys.Similar::key)
        .containsExactly(same);
    assertThat(near.mostSimilar("zzz", 0.9)).isEmpty();
  }
}
