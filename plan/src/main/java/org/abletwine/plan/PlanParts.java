package org.abletwine.plan;

import java.nio.file.Path;
import java.util.Locale;
import org.abletwine.formats.packed.Packing;

/**
 * Where the parts of one output lie: in a folder beside it while the run lasts, which then becomes
 * the output. Immutable.
 *
 * @param target the output
 * @param run what tells this run from others, letters and digits
 */
record PlanParts(Path target, String run) {
  private static final String END = ".parts";

  /** The name of a part, for as many as there may be. */
  private static final String NAME = "part-%09d";

  /** The number of the part behind all others. */
  static final int LAST = 999_999_999;

  /** The folder beside the output. */
  Path beside() {
    return target.resolveSibling("." + target.getFileName() + "." + run + END);
  }

  /** Where what was there before waits while the output is replaced. */
  Path before() {
    return target.resolveSibling("." + target.getFileName() + "." + run + ".before");
  }

  /**
   * A part, of a name that sorts in the order of the rows and ends as that of the output.
   *
   * @param number 0 for what comes before all rows
   */
  Path part(int number) {
    return beside().resolve(String.format(Locale.ROOT, NAME, number) + ending());
  }

  /** What the rows of a part have come to beside what was written. */
  Path handedOn(int number) {
    return beside().resolve(String.format(Locale.ROOT, "." + NAME, number));
  }

  /** What was found by asking a part of a reference that is divided among processes. */
  Path found(int round, int part) {
    return beside().resolve(String.format(Locale.ROOT, ".found-%d-%d", round, part));
  }

  private String ending() {
    String inner = Packing.inner(target);
    int dot = inner.lastIndexOf('.');
    String packed = String.valueOf(target.getFileName()).substring(inner.length());
    return (dot < 0 ? "" : inner.substring(dot)) + packed;
  }
}
