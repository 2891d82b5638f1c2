package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.abletwine.match.NearMiss;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Fewest edits first, a swap counting as one; then the more similar. */
class NearMissesTest {
  private static final JaroWinklerSimilarity SIMILARITY = new JaroWinklerSimilarity();

  private static String near(String key, String keys, int most) {
    return String.join(
        " ",
        new NearMisses(List.of(keys.split(" ")))
            .of(key, most).stream().map(NearMiss::key).toList());
  }

  @ParameterizedTest
  @CsvSource({
    "Iran, 'Ireland Iraq Italy', Iraq",
    "Thistel, 'Thistle Thistley Whistle', Thistle",
    "G1024, 'G1025 G2024 H9999', 'G1025 G2024'",
    "oats, 'wheat barley', ''",
    "ab, 'ba', 'ba'",
    "xab, 'xba', 'xba'",
    "abx, 'bax', 'bax'",
    "abcd, 'badc', ''",
    "aab, 'abb', 'abb'",
    "ab, 'bax', ''",
    "abc, 'abc', 'abc'",
    "a, 'b', 'b'",
    "G1024, 'G1024c G1024a G1024b', 'G1024a G1024b G1024c'"
  })
  void theNearestComeFirst(String key, String keys, String expected) {
    assertThat(near(key, keys, 3)).isEqualTo(expected);
  }

  @Test
  void noMoreThanWanted() {
    assertThat(near("G1024", "G1025 G1026 G1027 G1028", 2)).isEqualTo("G1025 G1026");
    assertThat(near("G1024", "G1025 G1026 G1027 G1028", 9)).hasSize(23);
    assertThat(new NearMisses(List.of("a", "b"))).hasToString("NearMisses[2 keys]");
    assertThat(new NearMisses(List.of()).of("a", 3)).isEmpty();
    assertThat(new NearMisses(List.of("Thistle")).of("Thistel", 1).get(0).similarity())
        .isEqualTo(SIMILARITY.apply("Thistel", "Thistle"));
  }

  /** A key with one slip anywhere finds its own among thousands. */
  @Test
  void oneSlipIsFoundWhereverItIs() {
    Random random = new Random(4);
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 3_000; i++) {
      keys.add("WV-" + (100_000 + random.nextInt(900_000)) + "-" + random.nextInt(90));
    }
    NearMisses misses = new NearMisses(keys);
    for (int i = 0; i < 300; i++) {
      String key = keys.get(random.nextInt(keys.size()));
      int at = i % 2 == 0 ? random.nextInt(3) : key.length() - 1;
      String slip = key.substring(0, at) + "#" + key.substring(at + 1);
      assertThat(misses.of(slip, 20)).extracting(NearMiss::key).contains(key);
    }
  }

  @Test
  void theMostSimilarAreThoseThatComparingAllGives() {
    Random random = new Random(9);
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 120; i++) {
      keys.add(word(random));
    }
    List<String> distinct = keys.stream().distinct().toList();
    NearMisses misses = new NearMisses(distinct);
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
          .extracting(NearMiss::key)
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
