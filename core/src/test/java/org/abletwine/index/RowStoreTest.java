package org.abletwine.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RowStoreTest {
  private final RowStore store = new RowStore(3);
  private final EncodedKeys keys = new EncodedKeys();
  private final KeyEncoder encoder = new KeyEncoder(new int[] {0}, List.of(List.of()));

  private void add(@Nullable String... cells) {
    Batch batch = OneRow.of(cells);
    encoder.encode(batch, keys);
    store.add(new CellVector[] {batch.column(0), batch.column(1), batch.column(2)}, 0, keys);
  }

  @Test
  void givesBackWhatWasPutIn() {
    String huge = "ж".repeat(3_000_000);
    @Nullable String[][] rows = {
      {"a", null, ""}, {"é", "ж", "mixed ж a"}, {null, huge, "x"}, {"y".repeat(200), "b,c", "end"}
    };
    for (@Nullable String[] row : rows) {
      add(row);
    }
    for (int row = 0; row < rows.length; row++) {
      for (int cell = 0; cell < 3; cell++) {
        assertThat(store.get(row, cell)).isEqualTo(rows[row][cell]);
      }
    }
    assertThat(store.nulls(0, 0, 3)).isEqualTo(1);
    assertThat(store.nulls(3, 0, 3)).isZero();
  }

  /** Of every length around a word, whatever byte is another one, and whatever stands beside it. */
  @ParameterizedTest
  @ValueSource(booleans = {false, true})
  void aKeyIsItsOwnAndNoOther(boolean withCells) {
    RowStore held = new RowStore(withCells ? 1 : 0);
    for (int length = 1; length <= 70; length++) {
      String key = "abcdefghij".repeat(7).substring(0, length);
      Batch batch = OneRow.of(key);
      encoder.encode(batch, keys);
      held.add(withCells ? new CellVector[] {batch.column(0)} : new CellVector[0], 0, keys);
    }
    for (int length = 1; length <= 70; length++) {
      int place = held.place(length - 1);
      byte[] around = ("x" + "abcdefghij".repeat(10)).getBytes(StandardCharsets.UTF_8);
      for (int other = 1; other <= 70; other++) {
        assertThat(held.hasKey(place, around, 1, other)).isEqualTo(other == length);
      }
      for (int at = 1; at <= length; at++) {
        around[at]++;
        assertThat(held.hasKey(place, around, 1, length)).as(length + ", byte " + at).isFalse();
        around[at]--;
      }
      Arrays.fill(around, length + 1, around.length, (byte) '?');
      assertThat(held.hasKey(place, around, 1, length)).isTrue();
    }
  }

  @Test
  void agreementLooksAtTheFirstCellsOnly() {
    add("a", "b", "c");
    add("a", "b", "d");
    add("a", null, "d");
    assertThat(store.agree(0, 1, 2)).isTrue();
    assertThat(store.agree(0, 1, 3)).isFalse();
    assertThat(store.agree(1, 2, 2)).as("null is not a value").isFalse();
    assertThat(store.agree(1, 2, 1)).isTrue();
  }
}
