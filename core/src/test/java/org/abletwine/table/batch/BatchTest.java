package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.abletwine.table.text.Utf8;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class BatchTest {
  private final Batch batch = new Batch(2);

  @BeforeEach
  void fill() {
    batch.clear(11, ',');
    for (int row = 0; row < 4; row++) {
      batch.addCell("a" + row);
      batch.addCell(row == 2 ? null : "b" + row);
      batch.endRow(0);
    }
  }

  private String column(int column) {
    StringBuilder cells = new StringBuilder();
    for (int row = 0; row < batch.rows(); row++) {
      cells.append(batch.column(column).get(row)).append(' ');
    }
    return cells.toString().strip();
  }

  @Test
  void neighbouringCellsAreOneSliceOfTheBuffer() {
    String raw = Utf8.text(batch.text(), batch.rawStart(1, 0), batch.rawEnd(1, 1));
    assertThat(raw).isEqualTo("a1,b1");
  }

  @Test
  void pickedRowsKeepTheirNumbersAndTheirAddedColumns() {
    CellVector added = batch.addColumn();
    for (int row = 0; row < 4; row++) {
      added.append("x" + row);
    }
    batch.pick(new int[] {3, 1, 1}, 3);
    assertThat(column(0)).isEqualTo("a3 a1 a1");
    assertThat(column(2)).isEqualTo("x3 x1 x1");
    assertThat(batch.rowNumber(0)).isEqualTo(14);
    batch.pick(new int[] {2}, 1);
    assertThat(column(0)).isEqualTo("a1");
    assertThat(column(2)).isEqualTo("x1");
    assertThat(batch.rowNumber(0)).isEqualTo(12);
  }

  @Test
  void aRowThatIsTooShortIsRefused() {
    batch.addCell("half");
    assertThatThrownBy(() -> batch.endRow())
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("row 15 has 1 cells where the table has 2 columns");
  }

  @Test
  void cellsThatCameAndStayedSayWhichColumnTheyAre() {
    CellVector added = batch.addColumn();
    for (int row = 0; row < 4; row++) {
      if (row == 2) {
        added.append("new");
      } else {
        added.appendAsCame(batch, 1, row);
      }
    }
    assertThat(column(2)).isEqualTo("b0 b1 new b3".replace("b2", "null"));
    batch.pick(new int[] {2, 1, 1}, 3);
    assertThat(batch.column(2).cameFrom(0)).isEqualTo(-1);
    assertThat(batch.column(2).cameFrom(1)).isEqualTo(1);
    assertThat(batch.column(2).cameFrom(2)).isEqualTo(1);
    CellVector again = batch.addColumn();
    for (int row = 0; row < 3; row++) {
      again.appendAsCame(batch, 2, row);
    }
    assertThat(again.cameFrom(0)).as("not as it came").isEqualTo(-1);
    assertThat(again.cameFrom(1)).as("through two steps").isEqualTo(1);
  }

  @Test
  void anAbandonedRowLeavesNoTrace() {
    batch.addCell("half");
    batch.abandonRow();
    batch.addCell("a4");
    batch.addCell("b4");
    batch.endRow(0);
    assertThat(column(0)).isEqualTo("a0 a1 a2 a3 a4");
    assertThat(batch.rows()).isEqualTo(5);
  }

  @Test
  void cellsThatNeedNoQuotesSaySoUntilTheyAreReplaced() {
    CellVector cells = batch.addColumn();
    cells.append(Utf8.bytes("ok"), 0, 2, true);
    cells.appendNull();
    cells.append("fill");
    cells.append(cells, 0);
    batch.pick(new int[] {3, 2, 0}, 3);
    assertThat(column(2)).isEqualTo("ok fill ok");
    assertThat(cells.needsNoQuotes(0)).isTrue();
    assertThat(cells.needsNoQuotes(1)).isFalse();
    cells.replace(0, "a,b");
    assertThat(cells.needsNoQuotes(0)).isFalse();
    assertThat(batch.column(0).needsNoQuotes(0)).as("nobody looked").isFalse();
  }

  @Test
  void manyLongCellsDoNotOverflow() {
    Batch large = new Batch(1);
    int rows = 0;
    while (!large.full()) {
      large.addCell("y".repeat(100_000));
      large.endRow(0);
      rows++;
    }
    assertThat(rows).as("full by bytes, not rows").isLessThan(Batch.ROWS);
    assertThat(large.column(0).get(rows - 1)).hasSize(100_000);
  }
}
