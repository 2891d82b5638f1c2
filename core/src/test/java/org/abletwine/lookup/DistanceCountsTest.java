package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.util.Arrays;
import java.util.Random;
import org.abletwine.table.carry.Carrier;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The median and the greatest of distances, held against sorting them. */
class DistanceCountsTest {
  private static void agreesWithSorting(int rows, long most) {
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
    for (DistanceCounts counts : new DistanceCounts[] {one, parts[2], carried(parts[2])}) {
      assertThat(counts.greatest()).isEqualTo(all[rows - 1]);
      assertThat(counts.rows()).isEqualTo(rows);
      assertThat(counts.median()).isEqualTo(one.median());
    }
    assertThat(median - one.median()).isBetween(0L, exact ? 0 : stretch);
  }

  private static DistanceCounts carried(DistanceCounts counts) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    counts.carry(Carrier.to(new DataOutputStream(bytes)));
    DistanceCounts there = new DistanceCounts();
    there.carry(Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes.toByteArray()))));
    return there;
  }

  @ParameterizedTest
  @CsvSource({"1, 1", "2, 40", "3, 5000", "300, 300", "2000, 900", "70000, 2305843009213693952"})
  void agreeWithSortingThem(int rows, long most) {
    agreesWithSorting(rows, most);
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 100, 70_000, 200_000})
  @Tag("oracle")
  void agreeWithSortingThemForAnyNumberOfWorkers(int rows) {
    for (long most : new long[] {1, 40, 5_000, 1L << 20, 1L << 61}) {
      agreesWithSorting(rows, most);
    }
  }

  @Test
  void neighboursAreCountedTogetherOnlyBeyondSoManyDistances() {
    DistanceCounts all = new DistanceCounts();
    for (long distance = 0; distance < DistanceCounts.MOST; distance++) {
      all.add(distance);
    }
    assertThat(all.median()).isEqualTo(32_767);
    all.add(32_767);
    assertThat(all.median()).as("still exact").isEqualTo(32_767);
    DistanceCounts one = new DistanceCounts();
    one.add(DistanceCounts.MOST);
    one.merge(all);
    assertThat(one.median()).as("two by two").isEqualTo(32_766);
    all.merge(one);
    assertThat(all.median()).isEqualTo(32_766);
  }

  /** Of odd distances alone two neighbours are never the same, four are. */
  @Test
  void oneStretchOfTwoMayNotDo() {
    DistanceCounts all = new DistanceCounts();
    for (long distance = 0; distance <= DistanceCounts.MOST; distance++) {
      all.add(distance * 2 + 1);
    }
    assertThat(all.median()).isEqualTo(65_536);
    assertThat(all.greatest()).isEqualTo(131_073);
  }

  @Test
  void theLowerOfTwoInTheMiddle() {
    DistanceCounts counts = new DistanceCounts();
    for (long distance : new long[] {9, 0, 7, 7, 3, 9}) {
      counts.add(distance);
    }
    assertThat(counts.median()).isEqualTo(7);
    counts.add(0);
    counts.add(0);
    assertThat(counts.median()).isEqualTo(3);
    assertThat(counts.greatest()).isEqualTo(9);
  }

  @Test
  void nothingIsCountedAtFirst() {
    assertThat(new DistanceCounts().median()).isZero();
    assertThat(new DistanceCounts().rows()).isZero();
  }
}
