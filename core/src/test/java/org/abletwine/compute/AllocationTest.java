package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Arithmetic on decimals that fit a long allocates nothing for a row. */
class AllocationTest {
  private static final int BATCHES = 200;

  @Tag("oracle")
  @ParameterizedTest
  @ValueSource(
      strings = {
        "gross - tare",
        "(gross - tare) / 1000 * price",
        "round((gross - tare) * (100 - moisture) / 100, 1)",
        "case when gross > 20000 then gross * 0.01 else 25 end",
        "coalesce(price, 0) + moisture"
      })
  void nothingIsAllocatedForARow(String text) {
    Columns columns =
        new Columns("t", new Schema(java.util.List.of("gross", "tare", "price", "moisture")));
    Expression expression = Expression.of(text, columns, "compute x", Evaluation.STRICT);
    Batch batch = new Batch(4);
    batch.clear(1, ',');
    for (int row = 0; !batch.full(); row++) {
      batch.addCell(Integer.toString(10_000 + row * 7));
      batch.addCell(Integer.toString(4_000 + row));
      batch.addCell(row % 9 == 0 ? null : "231." + row % 10);
      batch.addCell("1" + row % 6 + ".5");
      batch.endRow(0);
    }
    CellVector target = new CellVector();
    evaluate(expression, batch, target, 20);
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    long before = threads.getCurrentThreadAllocatedBytes();
    evaluate(expression, batch, target, BATCHES);
    long bytes = threads.getCurrentThreadAllocatedBytes() - before;
    // CASE and COALESCE note for each batch which rows are still open: a byte a row and branch.
    assertThat((double) bytes / BATCHES / batch.rows()).isLessThan(6);
  }

  private static void evaluate(Expression expression, Batch batch, CellVector target, int times) {
    for (int i = 0; i < times; i++) {
      expression.over(batch);
      target.clear();
      expression.appendTo(target, batch.rows());
    }
  }
}
