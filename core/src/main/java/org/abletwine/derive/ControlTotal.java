package org.abletwine.derive;

import org.abletwine.compute.Total;
import org.abletwine.figures.TotalFigures;
import org.abletwine.step.Columns;
import org.abletwine.step.RunContext;
import org.abletwine.step.Step;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;

/**
 * Totals a column exactly at one point of a run, and counts its nulls; changes nothing. Immutable.
 *
 * @param column the column
 * @param when where in the run, for the figures
 */
public record ControlTotal(String column, String when) implements Step {

  @Override
  public String title() {
    return "total " + column;
  }

  @Override
  public void check(Columns columns) {
    columns.require(column, "expect");
  }

  @Override
  public StepRunner prepare(Columns columns, RunContext context) {
    int number = columns.require(column, "expect");
    Total total = new Total(columns.type(column));
    return new StepRunner() {
      @Override
      public boolean mayRunWithWriting() {
        return true;
      }

      @Override
      public void apply(Batch batch) {
        CellVector cells = batch.column(number);
        for (int row = 0; row < batch.rows(); row++) {
          total.add(cells, row);
        }
      }

      @Override
      public TotalFigures figures() {
        return new TotalFigures(
            column, when, total.value(), total.nulls(), total.notNumbers(), total.rows());
      }
    };
  }
}
