package org.abletwine.derive;

import java.nio.file.Path;
import java.util.List;
import org.abletwine.compute.Expression;
import org.abletwine.figures.KeepFigures;
import org.abletwine.step.Columns;
import org.abletwine.step.RunContext;
import org.abletwine.step.Step;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.Output;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/**
 * Keeps the rows for which a condition is true, not false nor unknown. Immutable.
 *
 * @param condition the condition
 * @param leftOut where to write the rows left out; null for nowhere
 * @param form the table whose form that file takes after
 * @param settings how expressions are evaluated
 */
public record Keep(
    String condition, @Nullable Path leftOut, Table form, Expression.Settings settings)
    implements Step {

  @Override
  public String title() {
    return "keep " + condition;
  }

  @Override
  public void check(Columns columns) {
    Expression.condition(condition, columns, "keep", settings);
  }

  @Override
  public StepRunner prepare(Columns columns, RunContext context) {
    Expression compiled = Expression.condition(condition, columns, "keep", settings);
    LeftOut out = leftOut == null || !context.writes() ? null : new LeftOut(leftOut, form, columns);
    return new Runner(this, compiled, out);
  }

  /** Writes the rows left out, value by value: they are few beside the rows kept. */
  private static final class LeftOut {
    private final TableSink sink;
    private final int[] columns;
    private final int[] own;

    LeftOut(Path file, Table form, Columns columns) {
      this.columns = columns.numbers();
      own = java.util.stream.IntStream.range(0, this.columns.length).toArray();
      sink = Tables.sink(file);
      try {
        sink.start(form, new Schema(List.copyOf(columns.names())));
      } catch (RuntimeException e) {
        sink.close();
        throw e;
      }
    }

    void write(Batch batch, int[] rows, int count) {
      Batch copy = new Batch(columns.length);
      copy.clear(1, '\0');
      CellVector[] cells = new CellVector[columns.length];
      for (int i = 0; i < cells.length; i++) {
        cells[i] = batch.column(columns[i]);
      }
      for (int i = 0; i < count; i++) {
        for (CellVector column : cells) {
          copy.addCell(column.get(rows[i]));
        }
        copy.endRow();
      }
      sink.write(copy, own);
    }
  }

  private static final class Runner implements StepRunner {
    private final Keep step;
    private final Expression condition;
    private final @Nullable LeftOut out;
    private long rows;
    private long leftOut;
    private long unknown;

    Runner(Keep step, Expression condition, @Nullable LeftOut out) {
      this.step = step;
      this.condition = condition;
      this.out = out;
    }

    @Override
    public boolean mayRunWithWriting() {
      return true;
    }

    @Override
    public void apply(Batch batch) {
      int count = batch.rows();
      condition.over(batch);
      int[] kept = new int[count];
      int[] others = new int[count];
      int keeping = 0;
      int leaving = 0;
      for (int row = 0; row < count; row++) {
        if (condition.isTrue(row)) {
          kept[keeping++] = row;
        } else {
          unknown += condition.isNull(row) ? 1 : 0;
          others[leaving++] = row;
        }
      }
      rows += count;
      leftOut += leaving;
      if (leaving > 0) {
        if (out != null) {
          out.write(batch, others, leaving);
        }
        batch.pick(kept, keeping);
      }
    }

    @Override
    public List<Output> outputs() {
      return out == null ? List.of() : List.of(out.sink);
    }

    @Override
    public void close() {
      if (out != null) {
        out.sink.close();
      }
    }

    @Override
    public KeepFigures figures() {
      return new KeepFigures(
          step.condition, rows, leftOut, unknown, step.leftOut == null ? "" : "" + step.leftOut);
    }
  }
}
