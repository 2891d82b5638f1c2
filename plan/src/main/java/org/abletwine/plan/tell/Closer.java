package org.abletwine.plan.tell;

import org.abletwine.figures.LookupFigures;
import org.abletwine.lookup.Outcome;

/** Tells what a person types, or opens, to look closer at the rows of an outcome. */
public interface Closer {

  /** {@return the command that looks at one row, N, where there is one; empty where not} */
  default String one() {
    return "";
  }

  /**
   * Where to look: a row for that command, a file, or a command of its own.
   *
   * @return its text; empty for nowhere
   */
  Look look(LookupFigures lookup, Outcome outcome);

  /**
   * A place to look.
   *
   * @param text a row, a file or a command
   * @param command whether it is a command, to be copied whole
   */
  record Look(String text, boolean command) {
    /** Nowhere. */
    public static final Look NONE = new Look("", false);
  }
}
