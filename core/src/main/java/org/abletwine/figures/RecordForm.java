package org.abletwine.figures;

/** Writes the account of a run down for a program; found by {@link java.util.ServiceLoader}. */
public interface RecordForm {

  /**
   * Writes it as JSON.
   *
   * @param record the account
   * @return one object; counts are rows, durations seconds
   */
  String json(RunRecord record);
}
