package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.junit.jupiter.api.Test;

/** The most similar keys by Jaro-Winkler. */
class SimilarKeysTest {
  private static final JaroWinklerSimilarity SIMILARITY = new JaroWinklerSimilarity();

  @Test
  void theMostSimilarAreThoseThatComparingAllGives() {
    Random random = new Random(9);
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 120; i++) {
      keys.add(word(random));
    }
    List<String> distinct = keys.stream().distinct().toList();
    SimilarKeys misses = new SimilarKeys(distinct);
    for (int i = 0; i < 400; i++) {
      String key = word(random);
      double atLeast = i % 3 == 0 ? 0.6 : i % 3 == 1 ? 0.85 : 1;
      double best = distinct.stream().mapToDouble(k -> SIMILARITY.apply(key, k)).max().orElse(0);
      List<String> wanted =
          distinct.stream()
              .filter(k -> best >= atLeast && SIMILARITY.apply(key, k) == best)
              .sorted(Comparator.naturalOrder())
              .toList();
      assertThat(misses.mostSimilar(key, atLeast))
          .as(key)
          .extracting(SimilarKeys.Similar::key)
          .containsExactlyElementsOf(wanted);
    }
  }

  private static String word(Random random) {
    StringBuilder word = new StringBuilder();
    for (int i = 2 + random.nextInt(6); i > 0; i--) {
      word.append((char) ('a' + random.nextInt(4)));
    }
    return word.toString();
  }
}
