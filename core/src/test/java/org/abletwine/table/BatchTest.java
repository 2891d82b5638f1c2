package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;

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
    String raw =
        new String(
            batch.baseText(), batch.rawStart(1, 0), batch.rawEnd(1, 1) - batch.rawStart(1, 0));
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
  void overwritingChangesOneCellAndMarksItsRow() {
    batch.pick(new int[] {1, 2, 3}, 3);
    batch.overwrite(1, 1, "new, longer than before");
    assertThat(column(1)).isEqualTo("b1 new, longer than before b3");
    assertThat(batch.rowMark(2) & Batch.ALTERED).isNotZero();
    assertThat(batch.rowMark(1) & Batch.ALTERED).isZero();
    assertThat(batch.baseMark(2, 1) & Batch.NULL).as("no longer null").isZero();
  }

  @Test
  void anAddedColumnCanBeOverwrittenToo() {
    CellVector added = batch.addColumn();
    added.clearNarrow();
    for (int row = 0; row < 4; row++) {
      added.append("x" + row);
    }
    batch.overwrite(2, 2, "ж");
    assertThat(column(2)).isEqualTo("x0 x1 ж x3");
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
  void narrowCellsTurnIntoTextWhenSomeoneLooks() {
    CellVector cells = batch.addColumn();
    cells.clearNarrow();
    cells.appendNarrow(new byte[] {'o', 'k', (byte) 0xF6}, 0, 3, true);
    cells.appendNull();
    cells.append("fill");
    cells.appendWide(new byte[] {4, 0x36}, 0, 2);
    assertThat(column(2)).isEqualTo("okö null fill ж");
    assertThat(cells.narrow()).isFalse();
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
    assertThat(rows).as("full by characters, not rows").isLessThan(Batch.ROWS);
    assertThat(large.column(0).get(rows - 1)).hasSize(100_000);
  }
}
