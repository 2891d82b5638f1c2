package org.abletwine.lookup;

/** What came of one lookup for one row. */
public enum Outcome {
  /** One reference row, or several that agree on everything brought. */
  MATCHED("matched"),
  /** The key is not in the reference. */
  UNMATCHED("unmatched"),
  /** Several reference rows, and they disagree. */
  AMBIGUOUS("ambiguous"),
  /** A key part is null, or nothing is left of it once normalised. */
  BLANK_KEY("blank-key"),
  /** The lookup is for some rows only, and this is none of them. */
  NOT_ASKED("not-asked");

  private final String label;

  Outcome(String label) {
    this.label = label;
  }

  /** {@return the outcome as plans and files write it} */
  public String label() {
    return label;
  }
}
