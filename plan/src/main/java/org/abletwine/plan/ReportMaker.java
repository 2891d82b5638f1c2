package org.abletwine.plan;

import org.abletwine.figures.RunRecord;

/** Makes the report of one run. Found with {@link java.util.ServiceLoader}. */
public interface ReportMaker {

  /**
   * Gets ready for {@link #page} while the run goes on; called on a thread of its own, at most once
   * for a run.
   */
  default void prepare() {}

  /**
   * Begins, beside what is still made of the run, with what its figures are enough for; called at
   * most once, by the thread that asks for the page, before it does.
   *
   * @param figures what the run came to
   */
  default void begin(RunRecord figures) {}

  /**
   * Makes the report.
   *
   * @param material what it is made of
   * @return a page of HTML in UTF-8 that needs nothing else
   */
  byte[] page(ReportMaterial material);
}
