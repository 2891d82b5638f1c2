package org.abletwine.derive.total;

import java.math.BigDecimal;
import org.abletwine.compute.Total;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;

/**
 * Totals a column exactly at one point of a run, and counts its nulls; changes nothing. Immutable.
 *
 * @param column the column
 * @param when where in the run, for the figures
 * @param nullsOnly whether only its nulls are wanted: of a private column the total, which may be
 *     one row's value, is 0 then
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record ControlTotal(String column, String when, boolean nullsOnly) implements RunStep {

  /** A total of which all is wanted. */
  public ControlTotal(String column, String when) {
    this(column, when, false);
  }

  @Override
  public String title() {
    return "total " + column;
  }

  @Override
  public void check(Columns columns) {
    number(columns);
  }

  private int number(Columns columns) {
    if (!nullsOnly) {
      columns.requireShown(column, "controls, totals");
    }
    return columns.require(column, "controls");
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    int number = number(columns);
    ColumnType type = columns.type(column);
    boolean hidden = columns.isPrivate(column);
    return Prepared.of(
        () -> new Runner(number, new Total(type)), all -> figures(all.total, hidden));
  }

  private StepFigures.Control figures(Total total, boolean hidden) {
    return new StepFigures.Control(
        column,
        when,
        hidden ? BigDecimal.ZERO : total.value(),
        total.nulls(),
        hidden ? 0 : total.notNumbers(),
        total.rows());
  }

  private record Runner(int number, Total total) implements StepWorker {
    @Override
    public void apply(Batch batch) {
      CellVector cells = batch.column(number);
      for (int row = 0; row < batch.rows(); row++) {
        total.add(cells, row);
      }
    }

    @Override
    public void merge(StepWorker other) {
      total.merge(((Runner) other).total);
    }

    @Override
    public void carry(Carrier carrier) {
      total.carry(carrier);
    }
  }
}
