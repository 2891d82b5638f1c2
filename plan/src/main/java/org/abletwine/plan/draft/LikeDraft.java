package org.abletwine.plan.draft;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.draft.FoundKey.Pair;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.TableOptions;

/**
 * A plan that makes a table which somebody made by hand, and the cells in which the two differ.
 * Immutable.
 *
 * @param text the plan
 * @param figures what a run of it counted
 * @param columns how many columns of the table there are
 * @param traced how many of them were traced
 * @param untraced those that were not
 * @param cells cells compared
 * @param missing transactions that are not in the table
 * @param slips the cells that differ, in the order of rows
 */
public record LikeDraft(
    String text,
    RunRecord figures,
    int columns,
    int traced,
    List<String> untraced,
    long cells,
    long missing,
    List<Slip> slips) {

  /** Copies the lists. */
  public LikeDraft {
    untraced = List.copyOf(untraced);
    slips = List.copyOf(slips);
  }

  /**
   * Drafts the plan that makes a table. All tables are held in memory, each different value once.
   *
   * @param transactions the transactions
   * @param references the references, each a file
   * @param like the table made by hand from these
   * @param plan where the plan will be saved
   * @param options how to read the tables
   * @param progress told about the tables that are counted
   * @throws DataException when a table cannot be read, or it cannot be told which row is which
   */
  public static LikeDraft of(
      Path transactions,
      List<Path> references,
      Path like,
      Path plan,
      TableOptions options,
      Progress progress) {
    Draft.Found found = Draft.find(transactions, references, plan, options);
    SampleTable rows = SampleTable.of(found.transactions().open(), Integer.MAX_VALUE);
    SampleTable made = SampleTable.of(Source.of(like, options).formed().open(), Integer.MAX_VALUE);
    int[] rowOf = Alignment.of(rows, made);
    Map<String, SampleTable> whole = new LinkedHashMap<>();
    for (DraftedStep step : found.steps()) {
      Source file = found.files().get(step.reference());
      if (file != null) {
        whole.put(step.reference(), SampleTable.of(file.open(), Integer.MAX_VALUE));
      }
    }
    Trial trial = new Trial(found, rows, made, rowOf, whole, progress);
    Attempt best = trial.of(found.steps());
    for (List<DraftedStep> other : trial.others(found.steps())) {
      Attempt attempt = trial.of(other);
      if (attempt.slips() < best.slips()) {
        best = attempt;
      }
    }
    if (best.steps().isEmpty() && best.ending().lines().isEmpty()) {
      throw new DataException(
          "no column of "
              + like
              + " comes from the references, nor from an arithmetic of columns; were these the"
              + " tables it was made from?");
    }
    DraftText text = found.text(best.steps(), best.ending());
    RunRecord figures = PlanFile.of(plan, text.plain()).count(progress);
    List<String> untraced =
        best.traced().stream()
            .filter(one -> one.kind() == TracedColumn.Kind.UNKNOWN)
            .map(TracedColumn::made)
            .toList();
    int known = best.traced().size() - untraced.size();
    long missing = Arrays.stream(rowOf).filter(row -> row < 0).count();
    return new LikeDraft(
        text.told(figures, ""),
        figures,
        best.traced().size(),
        known,
        untraced,
        (rowOf.length - missing) * known,
        missing,
        best.found());
  }

  /** A plan that was tried, and the cells in which it and the table differ. */
  private record Attempt(
      List<DraftedStep> steps, List<TracedColumn> traced, Ending ending, List<Slip> found) {
    long slips() {
      return found.stream().filter(slip -> !slip.follows()).count();
    }
  }

  /** Tries plans against the table. */
  private record Trial(
      Draft.Found found,
      SampleTable rows,
      SampleTable made,
      int[] rowOf,
      Map<String, SampleTable> whole,
      Progress progress) {

    Attempt of(List<DraftedStep> steps) {
      SampleTable all = ran(found, steps, Ending.NONE, progress);
      List<TracedColumn> traced = new Tracer(all, rows.columns().size(), made, rowOf).trace();
      List<DraftedStep> needed = needed(steps, traced);
      Ending ending = Ending.of(rows, made, needed, traced);
      boolean nothing = needed.isEmpty() && ending.lines().isEmpty();
      SampleTable out = nothing ? all : ran(found, needed, ending.beforeLeaving(), progress);
      SampleColumn key =
          rows.columns().stream()
              .filter(column -> column.distinct() == rows.count())
              .findFirst()
              .orElse(null);
      List<Slip> slips = new Slips(out, made, rowOf, traced, needed, whole, key).find();
      return new Attempt(needed, traced, ending, slips);
    }

    /**
     * The same steps, each with something less that whoever made the table may not have done: a
     * second reference, a list of corrections; and without all of that.
     */
    List<List<DraftedStep>> others(List<DraftedStep> steps) {
      List<List<DraftedStep>> others = new ArrayList<>();
      List<DraftedStep> least = new ArrayList<>();
      for (int at = 0; at < steps.size(); at++) {
        DraftedStep step = steps.get(at);
        boolean correction = step.key().kind() == FoundKey.Kind.CORRECTION;
        if (correction || step.otherwise() != null) {
          List<DraftedStep> less = new ArrayList<>(steps);
          less.remove(at);
          if (!correction) {
            less.add(at, step.otherwise(null));
            least.add(step.otherwise(null));
          }
          others.add(less);
        } else {
          least.add(step);
        }
      }
      if (others.size() > 1) {
        others.add(least);
      }
      return others;
    }
  }

  /** What a plan makes of the transactions. */
  private static SampleTable ran(
      Draft.Found found, List<DraftedStep> steps, Ending ending, Progress progress) {
    String text = found.text(steps, ending).plain();
    SampleSink sink = new SampleSink("the plan");
    RunRecord run = PlanFile.of(found.plan(), text).count(progress, sink);
    sink.table().hide(run.privateColumns());
    return sink.table();
  }

  /** The steps whose columns are wanted, and those that these go by; each with what is wanted. */
  private static List<DraftedStep> needed(List<DraftedStep> steps, List<TracedColumn> traced) {
    Set<String> wanted = new HashSet<>();
    for (TracedColumn one : traced) {
      wanted.add(one.from());
      if (one.formula() != null) {
        wanted.addAll(one.formula().inputs());
      }
    }
    List<DraftedStep> needed = new ArrayList<>();
    for (int at = steps.size() - 1; at >= 0; at--) { // a step goes by columns of those before it
      DraftedStep step = steps.get(at);
      if (step.key().kind() == FoundKey.Kind.CORRECTION) {
        if (wanted.contains(step.key().ours())) {
          needed.add(0, step);
        }
        continue;
      }
      Map<String, String> bring = new LinkedHashMap<>(step.bring());
      bring.values().retainAll(wanted);
      if (!bring.isEmpty()) {
        for (Pair pair : step.key().equal()) {
          wanted.add(pair.ours());
        }
        if (step.key().ours() != null) {
          wanted.add(step.key().ours());
        }
        needed.add(0, step.bringing(bring));
      }
    }
    return needed;
  }

  /**
   * What follows the lookups of such a plan: fills, computed columns, and which columns leave.
   *
   * @param lines steps, as a plan writes them
   * @param drop columns left out
   * @param rename columns called otherwise
   * @param order the columns in their order
   */
  record Ending(
      List<String> lines, List<String> drop, Map<String, String> rename, List<String> order) {
    static final Ending NONE = new Ending(List.of(), List.of(), Map.of(), List.of());

    static Ending of(
        SampleTable rows, SampleTable made, List<DraftedStep> steps, List<TracedColumn> traced) {
      List<String> lines = new ArrayList<>();
      Set<String> there = new LinkedHashSet<>();
      rows.columns().forEach(column -> there.add(column.name()));
      steps.forEach(step -> there.addAll(step.bring().values()));
      Map<String, String> rename = new LinkedHashMap<>();
      Map<String, String> finalName = new LinkedHashMap<>();
      for (TracedColumn one : traced) {
        String planned = Slips.planned(one);
        if (one.fill() != null && there.add(planned)) {
          lines.add("- coalesce: " + DraftText.quoted(planned));
          lines.add("  from: [" + DraftText.quoted(one.from()) + "]");
          lines.add("  fill: " + DraftText.quoted(one.fill()));
        }
        if (one.formula() != null) {
          there.add(planned);
          lines.add(
              "- compute: { "
                  + DraftText.quoted(planned)
                  + ": "
                  + DraftText.quoted(one.formula().sql())
                  + " }");
        }
        if (one.kind() != TracedColumn.Kind.UNKNOWN) {
          finalName.put(one.made(), planned);
        }
      }
      List<String> drop = new ArrayList<>(there);
      drop.removeAll(finalName.values());
      List<String> order = new ArrayList<>();
      List<String> leaving = new ArrayList<>();
      for (SampleColumn column : made.columns()) {
        String planned = finalName.get(column.name());
        if (planned != null && !order.contains(planned)) {
          order.add(planned);
          leaving.add(column.name());
          if (!planned.equals(column.name())) {
            rename.put(planned, column.name());
          }
        }
      }
      return new Ending(lines, drop, rename, leaving);
    }

    /** The same steps, and all columns still there by the draft's own names. */
    Ending beforeLeaving() {
      return new Ending(lines, List.of(), Map.of(), List.of());
    }
  }
}
