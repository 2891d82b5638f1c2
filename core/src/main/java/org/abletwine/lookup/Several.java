package org.abletwine.lookup;

/**
 * What to do when a key stands on several reference rows that do not agree on every attribute
 * brought. Rows that do agree always count as one.
 */
public enum Several {
  /** Bring nothing: the outcome is ambiguous. The default. */
  FLAG,
  /** Take the first in file order, and count it. */
  FIRST,
  /** Take the last in file order, and count it. */
  LAST
}
