package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** What one step of a run counted. */
public sealed interface StepFigures
    permits LookupFigures,
        StepFigures.Coalesced,
        StepFigures.Columns,
        StepFigures.Computed,
        StepFigures.Corrected,
        StepFigures.Formatted,
        StepFigures.Guarded,
        StepFigures.Kept,
        StepFigures.RolledUp,
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

  /**
   * Totals by group.
   *
   * @param name the rollup, such as its file
   * @param by the columns that make the groups
   * @param totals what is totalled, as named in the output
   * @param groups the groups wanted, in the order stated, else that of their values, nulls last;
   *     each row holds the values of {@code by}, then the totals; null stands for itself
   * @param allGroups how many groups there are, those not wanted included
   * @param order what the groups are ordered by; empty for their values
   * @param grandTotal the totals over all rows, or none when not asked for
   * @param sums for each column that is summed, its sum over all groups
   * @param file where they were written; empty for nowhere
   * @param errors cells passed over because they are not what their total needs
   * @param errorExample the first of them in words; empty when there is none
   * @param onDisk bytes that were put on disk, since not all groups fit in memory
   */
  record RolledUp(
      String name,
      List<String> by,
      List<String> totals,
      List<List<@Nullable String>> groups,
      long allGroups,
      List<String> order,
      List<@Nullable String> grandTotal,
      Map<String, BigDecimal> sums,
      String file,
      long errors,
      String errorExample,
      long onDisk)
      implements StepFigures {

    /** Copies the lists, but for the groups: there may be very many, and nobody changes them. */
    public RolledUp {
      by = List.copyOf(by);
      totals = List.copyOf(totals);
      sums = Map.copyOf(sums);
      order = List.copyOf(order);
      groups = Collections.unmodifiableList(groups);
      grandTotal = Collections.unmodifiableList(new ArrayList<>(grandTotal));
    }

    /**
     * The groups to show of very many: the first, where an order was stated, else those with the
     * greatest numbers in a total, greatest first and those alike in their order.
     *
     * @param total which of the totals, 0-based
     * @param most how many
     * @param numbersOnly whether groups whose total is no number are passed over; else they are
     *     last
     * @return at most so many groups
     */
    public List<List<@Nullable String>> foremost(int total, int most, boolean numbersOnly) {
      Comparator<Ranked> order =
          Comparator.comparing(Ranked::number, Comparator.nullsFirst(Comparator.naturalOrder()));
      PriorityQueue<Ranked> best =
          new PriorityQueue<>(order.thenComparing(Comparator.comparing(Ranked::line).reversed()));
      boolean ordered = !order().isEmpty();
      for (int line = 0; line < groups.size() && !(ordered && best.size() == most); line++) {
        List<@Nullable String> group = groups.get(line);
        String text = group.size() > by.size() + total ? group.get(by.size() + total) : null;
        BigDecimal number = text == null ? null : DecimalText.read(text);
        if (number == null && numbersOnly) {
          continue;
        }
        best.add(new Ranked(ordered ? BigDecimal.valueOf(-line) : number, line, group));
        if (best.size() > most) {
          best.remove();
        }
      }
      List<List<@Nullable String>> foremost = new ArrayList<>();
      while (!best.isEmpty()) {
        foremost.add(0, best.remove().group());
      }
      return foremost;
    }

    /** A group by what it is ranked by. */
    private record Ranked(@Nullable BigDecimal number, int line, List<@Nullable String> group) {}

    @Override
    public RolledUp inMemory() {
      return new RolledUp(
          name,
          by,
          totals,
          groups,
          allGroups,
          order,
          grandTotal,
          sums,
          file,
          errors,
          errorExample,
          0);
    }
  }
}
