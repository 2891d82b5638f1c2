package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.plan.draft.LikeDraft;
import org.abletwine.plan.draft.Slip;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/** The cells in which a table made by hand differs from what the plan makes. */
final class DifferenceLines {
  private static final int MOST = 40;

  private DifferenceLines() {}

  static List<String> of(LikeDraft draft, Path like, boolean colour) {
    List<String> lines = new ArrayList<>();
    long follows = draft.slips().stream().filter(Slip::follows).count();
    long slips = draft.slips().size() - follows;
    lines.addAll(
        Screen.line(
            Ink.BOLD.on(String.valueOf(like.getFileName()), colour)
                + ": "
                + draft.traced()
                + " of "
                + draft.columns()
                + " columns traced"
                + (draft.untraced().isEmpty()
                    ? ""
                    : " (not " + String.join(", ", draft.untraced()) + ")")
                + "; of "
                + Words.count(draft.cells())
                + " cells "
                + (slips == 0
                    ? "none differs"
                    : Words.count(slips) + (slips == 1 ? " differs" : " differ"))
                + (follows == 0 ? "" : ", and " + Words.count(follows) + " more follow from these")
                + (draft.missing() == 0
                    ? ""
                    : "; " + Words.count(draft.missing()) + " transactions are not in it")));
    TextTable table = new TextTable("rlllll");
    for (String heading :
        List.of("row", "key", "column", "by hand", "by the plan", "likely reason")) {
      table.cell(heading, Ink.DIM);
    }
    table.end();
    for (Slip slip : draft.slips().subList(0, Math.min(MOST, draft.slips().size()))) {
      table
          .cell(Words.count(slip.row()))
          .cell(slip.key(), Ink.DIM)
          .cell(slip.column(), Ink.BOLD)
          .cell(slip.byHand() == null ? "null" : slip.byHand())
          .cell(slip.byPlan() == null ? "null" : slip.byPlan())
          .cell(slip.reason(), slip.follows() ? Ink.DIM : Ink.WARN)
          .end();
    }
    if (!draft.slips().isEmpty()) {
      lines.addAll(table.render(colour));
    }
    if (draft.slips().size() > MOST) {
      lines.add("  and " + Words.count(draft.slips().size() - MOST) + " more: --differences FILE");
    }
    return lines;
  }

  /**
   * Writes all of them.
   *
   * @param like the table made by hand, whose way of writing is kept
   */
  static void write(LikeDraft draft, Table like, Path file) {
    try (TableSink sink = Tables.sink(file)) {
      sink.start(
          like,
          new Schema(List.of("row", "key", "column", "by_hand", "by_plan", "reason", "follows")));
      for (Slip slip : draft.slips()) {
        sink.write(
            Arrays.asList(
                Long.toString(slip.row()),
                slip.key(),
                slip.column(),
                slip.byHand(),
                slip.byPlan(),
                slip.reason(),
                slip.follows() ? "yes" : "no"));
      }
      sink.commit();
    }
  }
}
