package org.abletwine.plan;

/** Makes the report of a run. Found with {@link java.util.ServiceLoader}; stateless. */
public interface ReportMaker {

  /**
   * Gets ready for {@link #page} while the run goes on; called on a thread of its own, at most once
   * for a run.
   */
  default void prepare() {}

  /**
   * Makes the report.
   *
   * @param material what it is made of
   * @return a page of HTML in UTF-8 that needs nothing else
   */
  byte[] page(ReportMaterial material);
}
