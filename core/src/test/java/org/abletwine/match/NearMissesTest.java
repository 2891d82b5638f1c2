package org.abletwine.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Fewest edits first, a swap counting as one; then the more similar. */
class NearMissesTest {
  @ParameterizedTest
  @CsvSource({
    "Iran, 'Ireland Iraq Italy', Iraq",
    "Thistel, 'Thistle Thistley Whistle', Thistle",
    "G1024, 'G1025 G2024 H9999', 'G1025 G2024'",
    "oats, 'wheat barley', ''"
  })
  void theNearestComeFirst(String key, String keys, String expected) {
    List<String> near =
        new NearMisses(List.of(keys.split(" ")))
            .of(key, 3).stream().map(NearMisses.NearMiss::key).toList();
    assertThat(String.join(" ", near)).isEqualTo(expected);
  }
}
