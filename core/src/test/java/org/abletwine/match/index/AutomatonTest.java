package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.abletwine.match.NearMiss;
import org.abletwine.table.text.Utf8;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Literals found in one pass, and near misses, against trying each in turn. */
class AutomatonTest {
  private static String word(Random random, int most) {
    StringBuilder word = new StringBuilder();
    int length = 1 + random.nextInt(most);
    for (int i = 0; i < length; i++) {
      word.append(List.of("a", "b", "c", "é", "\uD83C\uDF3E").get(random.nextInt(5)));
    }
    return word.toString();
  }

  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void everyLiteralIsFoundAndNoOther(boolean anywhere) {
    Random random = new Random(anywhere ? 1 : 2);
    for (int round = 0; round < 200; round++) {
      List<String> literals = new ArrayList<>();
      int count = 1 + random.nextInt(30);
      for (int i = 0; i < count; i++) {
        literals.add(word(random, 5));
      }
      LiteralAutomaton automaton = new LiteralAutomaton(literals, anywhere);
      String text = word(random, 40);
      byte[] padded = Utf8.bytes("##" + text + "##");
      TreeSet<Integer> found = new TreeSet<>();
      if (anywhere) {
        automaton.anywhere(padded, 2, padded.length - 2, found::add);
      } else {
        automaton.atStart(padded, 2, padded.length - 2, found::add);
      }
      TreeSet<Integer> expected = new TreeSet<>();
      for (int i = 0; i < literals.size(); i++) {
        if (anywhere ? text.contains(literals.get(i)) : text.startsWith(literals.get(i))) {
          expected.add(i);
        }
      }
      assertThat(found).as(literals + " in " + text).isEqualTo(expected);
    }
  }

  /** A single slip anywhere in a key is found among many. */
  @Tag("oracle")
  @Test
  void oneSlipIsFoundAmongManyKeys() {
    Random random = new Random(3);
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 20_000; i++) {
      keys.add(
          String.format("%06d%c", random.nextInt(1_000_000), (char) ('A' + random.nextInt(26))));
    }
    NearMisses misses = new NearMisses(keys);
    int found = 0;
    for (int i = 0; i < 300; i++) {
      String key = keys.get(random.nextInt(keys.size()));
      int at = random.nextInt(key.length());
      String slip = key.substring(0, at) + "#" + key.substring(at + 1);
      found += misses.of(slip, 3).stream().anyMatch(miss -> miss.key().equals(key)) ? 1 : 0;
    }
    assertThat(found).isGreaterThan(285);
  }

  @Test
  void amongFewKeysTheNearestAreThoseOfTryingEach() {
    Random random = new Random(4);
    JaroWinklerSimilarity similarity = new JaroWinklerSimilarity();
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 40; i++) {
      keys.add(word(random, 9) + i);
    }
    NearMisses misses = new NearMisses(keys);
    for (int i = 0; i < 100; i++) {
      String key = word(random, 9) + random.nextInt(40);
      List<NearMiss> near = misses.of(key, 3);
      assertThat(near).isSortedAccordingTo(Comparator.comparing(NearMiss::similarity).reversed());
      for (NearMiss miss : near) {
        assertThat(miss.similarity()).isEqualTo(similarity.apply(key, miss.key()));
      }
    }
  }
}
