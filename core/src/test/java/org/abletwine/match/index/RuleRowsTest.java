package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** The rows a rule is built from: what was added is what is there, however many. */
class RuleRowsTest {
  private static final int MANY = 300;

  private static CellVector[] cells(@Nullable String low, @Nullable String high) {
    Batch batch = OneRow.of(low, high);
    return new CellVector[] {batch.column(0), batch.column(1)};
  }

  private static @Nullable String low(int i) {
    return i % 10 == 3 ? null : "low number " + i;
  }

  private static @Nullable String high(int i) {
    return i % 7 == 2 ? null : i == 50 ? "long".repeat(3_000) : "" + i;
  }

  /** Row {@code i}: partition {@code i % 5}, place {@code 10 * i}, number {@code 2 * i}. */
  private static RuleRows many() {
    RuleRows rows = new RuleRows(2);
    for (int i = 0; i < MANY; i++) {
      rows.add(cells(low(i), high(i)), 0, i % 5, 10 * i, 2 * i);
    }
    return rows;
  }

  private static void is(RuleRows rows, int row, int i, int partition) {
    assertThat(rows.value(row, 0)).isEqualTo(low(i));
    assertThat(rows.value(row, 1)).isEqualTo(high(i));
    assertThat(rows.isNull(row, 0)).isEqualTo(low(i) == null);
    assertThat(rows.isNull(row, 1)).isEqualTo(high(i) == null);
    assertThat(rows.partition(row)).isEqualTo(partition);
    assertThat(rows.place(row)).isEqualTo(10 * i);
    assertThat(rows.number(row)).isEqualTo(2 * i);
    if (high(i) != null) {
      long plain = i == 50 ? Numbers.NOT_PLAIN : (long) i << 5;
      assertThat(rows.plain(row, 1)).isEqualTo(plain);
    }
  }

  @Test
  void rowsAreAsTheyWereAdded() {
    RuleRows rows = many();
    assertThat(rows.rows()).isEqualTo(MANY);
    assertThat(rows.width()).isEqualTo(2);
    assertThat(rows.partitionCount()).isEqualTo(5);
    assertThat(rows).hasToString("RuleRows[300]");
    for (int i = 0; i < MANY; i++) {
      is(rows, i, i, i % 5);
      assertThat(rows.numberAt(10 * i)).isEqualTo(2 * i);
    }
    assertThat(new RuleRows(1).partitionCount()).isZero();
  }

  @Test
  void rowsLeftOutLeaveTheOthersAsTheyWere() {
    RuleRows rows = many();
    BitSet out = new BitSet();
    List<Integer> left = new ArrayList<>();
    for (int i = 0; i < MANY; i++) {
      if (i % 3 == 0 || i > 280) {
        out.set(2 * i);
      } else {
        left.add(i);
      }
    }
    rows.remove(out);
    assertThat(rows.rows()).isEqualTo(left.size());
    for (int row = 0; row < left.size(); row++) {
      is(rows, row, left.get(row), left.get(row) % 5);
    }
  }

  @Test
  void rowsCanBeAddedOnceMoreInAPartitionOfTheirOwn() {
    RuleRows from = many();
    RuleRows rows = new RuleRows(2);
    for (int i = MANY - 1; i >= 0; i -= 2) {
      rows.add(from, 2 * i, 7);
    }
    for (int row = 0; row < rows.rows(); row++) {
      is(rows, row, MANY - 1 - 2 * row, 7);
    }
    assertThat(rows.partitionCount()).isEqualTo(8);
  }

  @Test
  void numbersAreNotedAsTheyAreAdded() {
    RuleRows rows = new RuleRows(1);
    assertThat(rows.plainNumbers()).as("of nothing").isFalse();
    rows.add(cells(null, null), 0, 0, 0, 0);
    rows.add(cells("", null), 0, 0, 1, 1);
    assertThat(rows.plainNumbers()).as("of nulls").isFalse();
    assertThat(rows.isNull(1, 0)).as("empty text is no value").isTrue();
    rows.add(cells("-12.125", null), 0, 0, 2, 2);
    rows.add(cells("7.5", null), 0, 0, 3, 3);
    assertThat(rows.plainNumbers()).isTrue();
    assertThat(rows.mostPlaces()).isEqualTo(3);
    assertThat(rows.mostWhole()).as("with sign and point").isEqualTo(4);
    rows.add(cells("1e3", null), 0, 0, 4, 4);
    assertThat(rows.plainNumbers()).isFalse();
    assertThat(rows.mostPlaces()).isEqualTo(3);
  }
}
