package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** The search for the last cut not above a value, against a search through all cuts. */
class SegmentsTest {
  /** How cuts lie on the line. */
  enum Spread {
    EVEN,
    RANDOM,
    CROWDED,
    ONE_FAR_AWAY,
    ALL_OF_THE_LINE;

    long cut(Random random, int i) {
      return switch (this) {
        case EVEN -> 20L * i;
        case RANDOM -> random.nextInt() * 2L;
        case CROWDED -> (long) Math.pow(1.02, i) * (i % 2 == 0 ? 1 : -1);
        case ONE_FAR_AWAY -> i == 0 ? Domain.FARTHEST : i;
        case ALL_OF_THE_LINE -> random.nextLong() >> 1;
      };
    }
  }

  @ParameterizedTest
  @EnumSource
  void findsTheLastCutNotAboveAValueInEveryPartition(Spread spread) {
    Random random = new Random(11);
    int[] sizes = {1, 2, 3, 9, 10, 11, 100, 2000, 1, 9};
    int[] first = new int[sizes.length + 1];
    long[] starts = new long[5000];
    int used = 0;
    for (int partition = 0; partition < sizes.length; partition++) {
      first[partition] = used;
      TreeSet<Long> cuts = new TreeSet<>();
      for (int i = 0; cuts.size() < sizes[partition] - 1 && i < 3 * sizes[partition]; i++) {
        cuts.add(spread.cut(random, i));
      }
      starts[used++] = Long.MIN_VALUE;
      for (long cut : cuts) {
        starts[used++] = cut;
      }
    }
    first[sizes.length] = used;
    Segments segments = new Segments(first, Arrays.copyOf(starts, used));

    int rows = 20_000;
    int[] partitions = new int[rows];
    long[] coordinates = new long[rows];
    for (int row = 0; row < rows; row++) {
      partitions[row] = random.nextInt(sizes.length);
      long near = starts[random.nextInt(used)];
      coordinates[row] =
          switch (row % 4) {
            case 0 -> near;
            case 1 -> near == Long.MIN_VALUE ? near : near - 1;
            case 2 -> near + 1;
            default -> random.nextLong() >> random.nextInt(63);
          };
    }
    int[] found = new int[rows];
    segments.find(partitions, coordinates, rows, found);
    for (int row = 0; row < rows; row++) {
      int expected = first[partitions[row]];
      for (int cut = expected; cut < first[partitions[row] + 1]; cut++) {
        expected = starts[cut] <= coordinates[row] ? cut : expected;
      }
      assertThat(found[row])
          .as("partition %d, value %d", partitions[row], coordinates[row])
          .isEqualTo(expected);
      if (row % 100 == 0) {
        assertThat(segments.find(partitions[row], coordinates[row])).isEqualTo(expected);
      }
    }
  }

  /** Even cuts beyond a few are found at once; among few, by halving. */
  @ParameterizedTest
  @CsvSource({"2, 1", "8, 3", "9, 1", "1000, 1", "100000, 1"})
  void bucketsSpareTheSearch(int cuts, int steps) {
    long[] starts = new long[cuts];
    for (int cut = 0; cut < cuts; cut++) {
      starts[cut] = cut == 0 ? Long.MIN_VALUE : 64L * cut;
    }
    Segments segments = new Segments(new int[] {0, cuts}, starts);
    for (int cut = 1; cut < cuts; cut++) {
      for (int off = 0; off < 64; off += 21) {
        long before = Segments.STEPS.sum();
        assertThat(segments.find(0, 64L * cut + off)).isEqualTo(cut);
        assertThat(Segments.STEPS.sum() - before).isLessThanOrEqualTo(steps);
      }
    }
  }

  @Test
  void withoutPartitionsNothingIsLookedAt() {
    int[] found = {7};
    new Segments(new int[1], new long[0]).find(new int[] {-1}, new long[] {3}, 1, found);
    assertThat(found).containsExactly(7);
  }

  @Test
  void knowsWhichSegmentIsTheLast() {
    Segments segments =
        new Segments(new int[] {0, 2, 3}, new long[] {Long.MIN_VALUE, 4, Long.MIN_VALUE});
    assertThat(segments.isLast(0, 0)).isFalse();
    assertThat(segments.isLast(0, 1)).isTrue();
    assertThat(segments.isLast(1, 2)).isTrue();
    assertThat(segments.count()).isEqualTo(3);
    assertThat(segments.partitions()).isEqualTo(2);
  }
}
