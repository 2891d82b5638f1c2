package org.abletwine.plan.tell;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;

/** What beside the outcomes of lookups a person should look at, in sentences. */
public final class OtherNotes {
  private OtherNotes() {}

  /** {@return what is to be said of a run} */
  public static List<String> of(RunRecord run) {
    List<String> notes = new ArrayList<>();
    boolean added = run.lookups().stream().anyMatch(lookup -> lookup.fits().added() > 0);
    for (String above : run.aboveControlTotals()) {
      notes.add(
          above
              + (added
                  ? ": a lookup made several rows of one; is its key right?"
                  : ": rows were left out or the column was changed in between"));
    }
    for (StepFigures.RolledUp rollup : run.of(StepFigures.RolledUp.class)) {
      if (rollup.onDisk() > 0) {
        notes.add(
            "totals by "
                + String.join(", ", rollup.by())
                + ": not all groups fitted in memory: sorted with "
                + Words.bytes(rollup.onDisk())
                + " on disk");
      }
      if (rollup.errors() > 0) {
        notes.add(
            "totals by "
                + String.join(", ", rollup.by())
                + ": "
                + Words.count(rollup.errors())
                + (rollup.errors() == 1 ? " value was" : " values were")
                + " passed over, such as "
                + rollup.errorExample());
      }
    }
    for (StepFigures.Formatted format : run.of(StepFigures.Formatted.class)) {
      if (format.errors() > 0) {
        notes.add(
            format.name()
                + ": "
                + Words.rows(format.errors())
                + " became null for want of a value to format, such as "
                + format.errorExample());
      }
    }
    for (StepFigures.Guarded guard : run.of(StepFigures.Guarded.class)) {
      if (guard.cells() > 0) {
        notes.add(
            "formulas: an apostrophe was put before "
                + Words.count(guard.cells())
                + (guard.cells() == 1 ? " cell" : " cells")
                + ", such as "
                + guard.example());
      }
    }
    notes.addAll(run.remarks());
    return notes;
  }
}
