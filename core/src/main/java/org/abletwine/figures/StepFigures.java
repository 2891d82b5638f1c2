package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.figures.LookupFigures.Share;

/** What one step of a run counted. */
public sealed interface StepFigures
    permits LookupFigures,
        RollupFigures,
        StepFigures.Coalesced,
        StepFigures.Columns,
        StepFigures.Computed,
        StepFigures.Corrected,
        StepFigures.Formatted,
        StepFigures.Guarded,
        StepFigures.Kept,
        StepFigures.Control,
        StepFigures.Judged {

  /** {@return the step's name} */
  String name();

  /** {@return the same figures as if all had fitted in memory} */
  default StepFigures inMemory() {
    return this;
  }

  /**
   * What taking the first of several columns counted: {@code taken + filled + nulls == rows}.
   *
   * @param column the column added
   * @param rows rows that reached the step
   * @param taken for each column, rows that took their value from it
   * @param filled rows that got the stated value
   * @param nulls rows left null
   */
  record Coalesced(String column, long rows, List<Share> taken, long filled, long nulls)
      implements StepFigures {

    /** Copies the list. */
    public Coalesced {
      taken = List.copyOf(taken);
    }

    @Override
    public String name() {
      return column;
    }
  }

  /**
   * A step that only changed which columns there are, in which order or by which name.
   *
   * @param name the step
   * @param columns the columns concerned
   */
  record Columns(String name, List<String> columns) implements StepFigures {

    /** Copies the list. */
    public Columns {
      columns = List.copyOf(columns);
    }
  }

  /**
   * What computing one column counted.
   *
   * @param column the column
   * @param expression how it is computed
   * @param rows rows that reached the step
   * @param nulls rows in which it came out null
   * @param reasons why: the first input that was null, and why that was; they add up to the nulls
   * @param errors rows that could not be computed and got null, among the nulls
   * @param errorExample the first of them, in words; empty when there is none
   */
  record Computed(
      String column,
      String expression,
      long rows,
      long nulls,
      List<Share> reasons,
      long errors,
      String errorExample)
      implements StepFigures {

    /** Copies the list. */
    public Computed {
      reasons = List.copyOf(reasons);
    }

    @Override
    public String name() {
      return column;
    }
  }

  /**
   * What one correction counted. Each row whose value was replaced adds one to {@code changed};
   * each line of the table that took part in a row adds one to that line.
   *
   * @param column the column corrected
   * @param table the correction table
   * @param rows rows that reached the step
   * @param changed rows whose value was replaced
   * @param lines lines of the table that counted
   * @param unused lines that no row needed
   * @param uses the lines used and for how many rows, at most 50
   * @param unusedExamples lines never used, at most 50
   */
  record Corrected(
      String column,
      String table,
      long rows,
      long changed,
      long lines,
      long unused,
      List<Share> uses,
      List<String> unusedExamples)
      implements StepFigures {

    /** Copies the lists. */
    public Corrected {
      uses = List.copyOf(uses);
      unusedExamples = List.copyOf(unusedExamples);
    }

    @Override
    public String name() {
      return "correct " + column;
    }
  }

  /**
   * What writing a column in a stated form counted.
   *
   * @param name the column
   * @param form the form, such as a date pattern
   * @param rows rows that reached the step
   * @param errors rows whose value could not be written so and became null
   * @param errorExample the first of them, in words; empty when there is none
   */
  record Formatted(String name, String form, long rows, long errors, String errorExample)
      implements StepFigures {}

  /**
   * What guarding a spreadsheet from formulas counted.
   *
   * @param cells cells that an apostrophe was put before
   * @param example the first of them, in words; empty when there is none
   */
  record Guarded(long cells, String example) implements StepFigures {
    @Override
    public String name() {
      return "formulas";
    }
  }

  /**
   * What a row filter counted.
   *
   * @param condition the condition
   * @param rows rows that reached the step
   * @param leftOut rows left out
   * @param unknown those of them for which the condition was unknown, because something was null
   * @param file where they were written; empty for nowhere
   */
  record Kept(String condition, long rows, long leftOut, long unknown, String file)
      implements StepFigures {
    @Override
    public String name() {
      return condition;
    }
  }

  /**
   * The exact total of a column at one point of a run.
   *
   * @param column the column
   * @param when where in the run, such as {@code before}
   * @param total the total of its numbers
   * @param nulls rows in which it is null
   * @param notNumbers rows in which it is no number, and so left out of the total
   * @param rows rows
   */
  record Control(
      String column, String when, BigDecimal total, long nulls, long notNumbers, long rows)
      implements StepFigures {
    /** Where the column is first there. */
    public static final String BEFORE = "before";

    /** At the end. */
    public static final String AFTER = "after";

    @Override
    public String name() {
      return column;
    }
  }

  /**
   * A condition over the whole output.
   *
   * @param name the condition as written
   * @param figure what its totals came to
   * @param holds whether it is true
   */
  record Judged(String name, String figure, boolean holds) implements StepFigures {}
}
