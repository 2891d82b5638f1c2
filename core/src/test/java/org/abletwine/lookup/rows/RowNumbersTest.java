package org.abletwine.lookup.rows;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.abletwine.table.DataException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The numbers that stored rows have in their file. */
class RowNumbersTest {
  private static final int CHUNK = 1 << 14;

  @Test
  void rowsThatFollowEachOtherTakeNothing() {
    RowNumbers numbers = new RowNumbers();
    for (int row = 1; row <= 100; row++) {
      numbers.add(row);
    }
    assertThat(numbers.bytes()).isZero();
    assertThat(numbers.of(0)).isEqualTo(1);
    assertThat(numbers.of(99)).isEqualTo(100);
  }

  /** From the first that does not follow on, numbers are kept, those before it too. */
  @ParameterizedTest
  @ValueSource(ints = {0, 1, 2, CHUNK - 1, CHUNK, CHUNK + 1, 5 * CHUNK})
  void numbersWithGapsAreKept(int before) {
    RowNumbers numbers = new RowNumbers();
    for (int row = 1; row <= before; row++) {
      numbers.add(row);
    }
    int after = 3 * CHUNK;
    for (int row = 0; row < after; row++) {
      numbers.add(before + 7L + row * 2);
    }
    for (int row = 0; row < before; row++) {
      assertThat(numbers.of(row)).isEqualTo(row + 1);
    }
    for (int row = 0; row < after; row++) {
      assertThat(numbers.of(before + row)).isEqualTo(before + 7 + row * 2);
    }
    int chunks = (before + after + CHUNK - 1) / CHUNK;
    assertThat(numbers.bytes()).isEqualTo(4L * chunks * CHUNK);
  }

  @Test
  void ofManyRowsTheFirstFiveAreListed() {
    RowNumbers numbers = new RowNumbers();
    for (int row = 0; row < 10; row++) {
      numbers.add(row * 10 + 10);
    }
    assertThat(numbers.list(new int[] {0})).isEqualTo("10");
    assertThat(numbers.list(new int[] {2, 0})).isEqualTo("30, 10");
    assertThat(numbers.list(new int[] {0, 1, 2, 3, 4})).isEqualTo("10, 20, 30, 40, 50");
    assertThat(numbers.list(new int[] {0, 1, 2, 3, 4, 5, 9}))
        .isEqualTo("10, 20, 30, 40, 50 and 2 more");
  }

  @Test
  void rowsBeyondWhatCanBeRememberedAreRefused() {
    RowNumbers numbers = new RowNumbers();
    numbers.add(Integer.MAX_VALUE);
    assertThat(numbers.of(0)).isEqualTo(Integer.MAX_VALUE);
    assertThatThrownBy(() -> numbers.add(Integer.MAX_VALUE + 1L))
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith("a table of more than 2147483647 rows");
  }
}
