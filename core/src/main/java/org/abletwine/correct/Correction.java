package org.abletwine.correct;

import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * A step that replaces listed values of one column. Immutable; safe to share between threads.
 *
 * <p>Whole values: a cell equal to a line's {@code written} value, once both are normalised,
 * becomes its {@code meant} value. Chains are followed: with a to b and b to c listed, a becomes c;
 * a circle is refused. Part values: every line, in the order of the table, replaces its {@code
 * written} text wherever it stands inside the cell, each on what the lines before it left. Lines
 * that give one written value two different meanings are refused either way. Null cells stay null.
 *
 * @param column the column to correct
 * @param table the corrections
 * @param written its column of wrong values
 * @param meant its column of right values
 * @param part whether to replace inside the value
 * @param where a SQL condition over the columns of the table: which lines count; null for all
 * @param normalise steps for comparing whole values
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Correction(
    String column,
    Table table,
    String written,
    String meant,
    boolean part,
    @Nullable String where,
    List<NormaliseStep> normalise)
    implements RunStep {

  /** Copies the list. */
  public Correction {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(written, "written");
    Objects.requireNonNull(meant, "meant");
    Objects.requireNonNull(normalise, "normalise");
    normalise = List.copyOf(normalise);
  }

  /**
   * A correction of whole values, compared after {@code trim}.
   *
   * @param column the column to correct
   * @param table the corrections, with columns {@code written} and {@code meant}
   * @return the correction
   */
  public static Correction of(String column, Table table) {
    return new Correction(
        column, table, "written", "meant", false, null, List.of(Normalise.trim()));
  }

  @Override
  public List<Table> references() {
    return List.of(table);
  }

  @Override
  public String title() {
    return "correct " + column;
  }

  /** Reads the lines too: they are few, and contradictions among them are mistakes of the plan. */
  @Override
  public void check(Columns columns) {
    names(columns);
    try {
      CorrectionList lines = CorrectionList.read(this, columns.isPrivate(column));
      if (!part) {
        lines.ends();
      }
    } catch (DataException e) {
      throw new SettingException(String.valueOf(e.getMessage()));
    }
  }

  /** Checks the names; the corrected column is a new one in place of the old. */
  private int names(Columns columns) {
    int number = columns.require(column, "correct");
    for (String name : new String[] {written, meant}) {
      if (table.schema().indexOf(name) < 0) {
        throw new SettingException(
            "correct "
                + column
                + ": "
                + table.name()
                + " has no column \""
                + name
                + "\"; "
                + NearestName.hint(name, table.schema().names()));
      }
    }
    for (String name : new String[] {written, meant}) {
      columns.hide(column, table.isPrivate(name) || columns.keepsPrivate(name));
    }
    columns.replace(column);
    return number;
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    int number = names(columns);
    CorrectionList lines = CorrectionList.read(this, columns.isPrivate(column));
    Supplier<Corrector> make =
        part
            ? () -> new PartCorrector(this, number, lines)
            : WholeCorrector.maker(this, number, lines);
    return Prepared.of(make, all -> lines.figures(column, all)).ofRows();
  }
}
