package org.abletwine.derive;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Veil;

/**
 * Puts an apostrophe before cells that a spreadsheet would take for formulas: those that begin with
 * {@code = + - @}, a tab or a carriage return, and are no numbers. For the last of the steps.
 * Immutable.
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record GuardFormulas() implements RunStep {
  private static final String SIGNS = "=+-@\t\r";

  @Override
  public String title() {
    return "guard formulas";
  }

  @Override
  public void check(Columns columns) {
    columns.names().forEach(columns::replace);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    List<Integer> guarded = new ArrayList<>();
    BitSet hidden = new BitSet();
    for (String name : columns.names()) {
      int number = columns.require(name, title());
      guarded.add(number);
      hidden.set(number, columns.isPrivate(number));
    }
    columns.names().forEach(columns::replace);
    return Prepared.of(() -> new Runner(guarded, hidden), Runner::figures);
  }

  private static boolean formula(String text) {
    return !text.isEmpty() && SIGNS.indexOf(text.charAt(0)) >= 0 && DecimalText.read(text) == null;
  }

  private static final class Runner implements StepWorker {
    private final List<Integer> columns;
    private final BitSet hidden;
    private RowErrors guarded = RowErrors.NONE;

    Runner(List<Integer> columns, BitSet hidden) {
      this.columns = columns;
      this.hidden = hidden;
    }

    @Override
    public void apply(Batch batch) {
      for (int column : columns) {
        CellVector from = batch.column(column);
        CellVector target = batch.addColumn();
        for (int row = 0; row < batch.rows(); row++) {
          String text = from.get(row);
          if (text != null && formula(text)) {
            target.append("'" + text);
            long number = batch.rowNumber(row);
            boolean first = number < guarded.row();
            guarded =
                new RowErrors(
                    guarded.count() + 1,
                    first ? number : guarded.row(),
                    first
                        ? "row " + number + ": " + Veil.over(hidden.get(column), text)
                        : guarded.example());
          } else {
            target.appendAsCame(batch, column, row);
          }
        }
      }
    }

    @Override
    public void merge(StepWorker other) {
      guarded = guarded.and(((Runner) other).guarded);
    }

    @Override
    public void carry(Carrier carrier) {
      guarded = guarded.carried(carrier);
    }

    StepFigures.Guarded figures() {
      return new StepFigures.Guarded(guarded.count(), guarded.example());
    }
  }
}
