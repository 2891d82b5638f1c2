package org.abletwine.compute;

/** Kinds of values an expression can have. */
enum Kind {
  /** An exact decimal. */
  NUMBER("a number"),
  /** Text. */
  TEXT("text"),
  /** A day. */
  DATE("a date"),
  /** True, false or unknown. */
  TRUTH("a condition"),
  /** A column of no stated type, or null: what it is used for decides. */
  ANY("a value");

  private final String noun;

  Kind(String noun) {
    this.noun = noun;
  }

  String noun() {
    return noun;
  }
}
