package org.abletwine.derive;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * Takes the first of several columns that is not null, as ISO SQL's {@code COALESCE} does; empty
 * text is not null. Immutable.
 *
 * @param column the column to add
 * @param from the columns to take from, in order
 * @param fill what to put where all are null; null to leave null
 * @param source a column to add that names the column taken; null for none
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Coalesce(
    String column, List<String> from, @Nullable String fill, @Nullable String source)
    implements RunStep {

  /** Copies the list. */
  public Coalesce {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(from, "from");
    from = List.copyOf(from);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    int[] numbers = against(columns);
    return Prepared.of(() -> new Runner(this, numbers), Runner::figures);
  }

  @Override
  public String title() {
    return "coalesce " + column;
  }

  @Override
  public void check(Columns columns) {
    against(columns);
  }

  private int[] against(Columns columns) {
    String step = "coalesce " + column;
    if (from.isEmpty()) {
      throw new SettingException(step + ": no columns to take from; state from: [A, B]");
    }
    int[] numbers = from.stream().mapToInt(f -> columns.require(f, step + ", from")).toArray();
    columns.add(column, step, "choose another name for the result");
    columns.hide(column, from.stream().anyMatch(columns::isPrivate));
    if (source != null) {
      columns.add(source, step, "choose another name for source");
    }
    return numbers;
  }

  private static final class Runner implements StepWorker {
    private final Coalesce step;
    private final int[] columns;
    private final long[] taken;
    private long rows;
    private long filled;

    Runner(Coalesce step, int[] columns) {
      this.step = step;
      this.columns = columns;
      this.taken = new long[columns.length];
    }

    @Override
    public void apply(Batch batch) {
      int count = batch.rows();
      CellVector[] sources = new CellVector[columns.length];
      for (int i = 0; i < columns.length; i++) {
        sources[i] = batch.column(columns[i]);
      }
      CellVector target = batch.addColumn();
      CellVector names = step.source == null ? null : batch.addColumn();
      for (int row = 0; row < count; row++) {
        int at = 0;
        while (at < sources.length && sources[at].isNull(row)) {
          at++;
        }
        if (at < sources.length) {
          target.append(sources[at], row);
          taken[at]++;
        } else {
          target.append(step.fill);
          filled += step.fill == null ? 0 : 1;
        }
        if (names != null) {
          names.append(at < sources.length ? step.from.get(at) : step.fill == null ? null : "fill");
        }
      }
      rows += count;
    }

    @Override
    public void merge(StepWorker worker) {
      Runner other = (Runner) worker;
      rows += other.rows;
      filled += other.filled;
      for (int i = 0; i < taken.length; i++) {
        taken[i] += other.taken[i];
      }
    }

    @Override
    public void carry(Carrier carrier) {
      rows = carrier.number(rows);
      filled = carrier.number(filled);
      carrier.numbers(taken);
    }

    StepFigures.Coalesced figures() {
      List<Share> shares = new ArrayList<>();
      long nulls = rows - filled;
      for (int i = 0; i < step.from.size(); i++) {
        shares.add(new Share(step.from.get(i), taken[i]));
        nulls -= taken[i];
      }
      return new StepFigures.Coalesced(step.column, rows, shares, filled, nulls);
    }
  }
}
