package org.abletwine.correct;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowFilter;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.figures.StepFigures;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** The lines of a correction table, checked, and how often each was used. */
final class CorrectionList {
  private static final int SHOWN = 50;

  /** One line: the row it stands on (1-based), and its values as written. */
  record Line(long row, String written, String meant) {}

  private final String table;
  private final List<Line> lines = new ArrayList<>();
  private final Map<String, Integer> byWritten = new HashMap<>();
  private final List<NormaliseStep> normalise;
  private final List<String> problems = new ArrayList<>();

  private final boolean hidden;

  private CorrectionList(Correction correction, boolean hidden) {
    this.hidden = hidden;
    table = correction.table().name();
    normalise = correction.part() ? List.of() : correction.normalise();
  }

  /**
   * Reads the lines.
   *
   * @param hidden whether messages and figures must not show values
   */
  static CorrectionList read(Correction correction, boolean hidden) {
    CorrectionList list = new CorrectionList(correction, hidden);
    int written = correction.table().schema().require(correction.written(), list.table);
    int meant = correction.table().schema().require(correction.meant(), list.table);
    Expression counts =
        correction.where() == null
            ? null
            : RowFilter.parse(correction.where(), correction.table()).start();
    correction.table().readAgain(); // a check reads the lines, and then the run does
    try (BatchReader reader = new BatchReader(correction.table())) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        CellVector wrong = batch.column(written);
        CellVector right = batch.column(meant);
        if (counts != null) {
          counts.over(batch);
        }
        for (int row = 0; row < batch.rows(); row++) {
          if (counts == null || counts.isTrue(row)) {
            list.add(batch.rowNumber(row), wrong.get(row), right.get(row));
          }
        }
      }
    }
    list.throwProblems();
    return list;
  }

  /** Throws when lines are not what they should be: a line of text for each. */
  private void throwProblems() {
    if (!problems.isEmpty()) {
      int more = problems.size() - SHOWN;
      throw new DataException(
          String.join("\n", problems.subList(0, Math.min(SHOWN, problems.size())))
              + (more > 0 ? "\nand " + more + " more" : ""));
    }
  }

  private void add(long row, @Nullable String written, @Nullable String meant) {
    if (written == null || written.isEmpty() || meant == null) {
      problems.add(
          table
              + " row "
              + row
              + ": a correction needs both the written and the meant value;"
              + " complete the line, or leave it out with a condition");
      return;
    }
    Integer before = byWritten.putIfAbsent(normalised(written), lines.size());
    if (before == null) {
      lines.add(new Line(row, written, meant));
      return;
    }
    Line known = lines.get(before);
    if (!known.meant().equals(meant)) {
      problems.add(
          table
              + " rows "
              + known.row()
              + " and "
              + row
              + " contradict each other: \""
              + shown(written)
              + "\" means \""
              + shown(known.meant())
              + "\" on one and \""
              + shown(meant)
              + "\" on the other;"
              + " keep one of them");
    }
  }

  /** What messages and figures show of a value. */
  @Nullable String shown(String value) {
    return Veil.over(hidden, value);
  }

  private String normalised(String value) {
    String compared = value;
    for (NormaliseStep step : normalise) {
      compared = step.apply(compared);
    }
    return compared;
  }

  List<Line> lines() {
    return lines;
  }

  /**
   * For each line what a value finally becomes, chains followed.
   *
   * @throws DataException when lines lead round in a circle
   */
  String[] ends() {
    String[] ends = new String[lines.size()];
    for (int line = 0; line < ends.length; line++) {
      Set<Integer> passed = new HashSet<>();
      int at = line;
      for (Integer next = at;
          next != null;
          next = byWritten.get(normalised(lines.get(at).meant()))) {
        at = next;
        if (!passed.add(at)) {
          if (normalised(lines.get(at).meant()).equals(normalised(lines.get(at).written()))) {
            break; // a value that means itself: nothing to follow
          }
          problems.add(
              table
                  + " row "
                  + lines.get(line).row()
                  + ": \""
                  + shown(lines.get(line).written())
                  + "\" leads round in a circle; decide which value is the right one");
          break;
        }
      }
      ends[line] = lines.get(at).meant();
    }
    throwProblems();
    return ends;
  }

  StepFigures.Corrected figures(String column, Corrector all) {
    long[] uses = all.uses;
    List<Share> shares = new ArrayList<>();
    List<String> unused = new ArrayList<>();
    long unusedCount = 0;
    for (int line = 0; line < uses.length; line++) {
      String name = shown(lines.get(line).written()) + " -> " + shown(lines.get(line).meant());
      if (uses[line] > 0 && shares.size() < SHOWN) {
        shares.add(new Share(name, uses[line]));
      } else if (uses[line] == 0) {
        unusedCount++;
        if (unused.size() < SHOWN) {
          unused.add(name);
        }
      }
    }
    return new StepFigures.Corrected(
        column, table, all.rows, all.changed, uses.length, unusedCount, shares, unused);
  }
}
