package org.abletwine.benchmarks;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is promised of near misses, on lists with the truth known. */
class NearSharesTest {
  /** Seven in a hundred names share nothing with the one meant, and some fit several as well. */
  @ParameterizedTest
  @ValueSource(longs = {11, 12})
  void theOneMeantIsAmongTheFirstAndClearOnesAreRight(long seed) {
    NearShares shares = NearShares.of(seed, 5_000, 5_000);
    assertThat(shares.first()).isGreaterThan(84);
    assertThat(shares.three()).isGreaterThan(87.5);
    assertThat(shares.clear()).isGreaterThan(70);
    assertThat(shares.clearRight()).isGreaterThan(98);
  }

  @Test
  void moreAreFoundThanByTheMethodOfATextbook() {
    NearShares shares = NearShares.of(11, 1_500, 1_500);
    NearShares textbook = NearShares.plain(11, 1_500, 1_500);
    assertThat(shares.first()).isGreaterThan(textbook.first() + 2);
    assertThat(shares.three()).isGreaterThan(textbook.three());
  }
}
