package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The median and the greatest of distances, held against sorting them. */
class DistanceCountsTest {
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 100, 70_000, 200_000})
  @Tag("oracle")
  void agreeWithSortingThemForAnyNumberOfWorkers(int rows) {
    for (long most : new long[] {1, 40, 5_000, 1L << 20, 1L << 61}) {
      Random random = new Random(rows + most);
      long[] all = random.longs(rows, 0, most).toArray();
      DistanceCounts[] parts = {new DistanceCounts(), new DistanceCounts(), new DistanceCounts()};
      DistanceCounts one = new DistanceCounts();
      for (int i = 0; i < rows; i++) {
        one.add(all[i]);
        parts[random.nextInt(3)].add(all[i]);
      }
      parts[0].merge(parts[1]);
      parts[2].merge(parts[0]);
      Arrays.sort(all);
      long median = all[(rows - 1) / 2];
      long stretch = Math.max(1, 2 * all[rows - 1] / DistanceCounts.MOST);
      boolean exact = Arrays.stream(all).distinct().count() <= DistanceCounts.MOST;
      assertThat(one.greatest()).isEqualTo(all[rows - 1]).isEqualTo(parts[2].greatest());
      assertThat(one.rows()).isEqualTo(rows).isEqualTo(parts[2].rows());
      assertThat(one.median()).isEqualTo(parts[2].median());
      assertThat(median - one.median()).isBetween(0L, exact ? 0 : stretch);
    }
  }

  @Test
  void nothingIsCountedAtFirst() {
    assertThat(new DistanceCounts().median()).isZero();
    assertThat(new DistanceCounts().rows()).isZero();
  }
}
