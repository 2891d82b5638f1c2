package org.abletwine.cli;

/** How much of a run's figures is printed. */
enum Detail {
  /** What a person must know. */
  MAIN,
  /** Every figure. */
  ALL,
  /** Only what fails. */
  QUIET
}
