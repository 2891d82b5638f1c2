package org.abletwine.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

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
