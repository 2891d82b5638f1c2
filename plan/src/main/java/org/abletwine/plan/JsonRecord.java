package org.abletwine.plan;

import org.abletwine.figures.RecordForm;
import org.abletwine.figures.RunRecord;

/** Writes the account of a run as JSON, for those who have no plan. Stateless. */
public final class JsonRecord implements RecordForm {

  /** For the service loader. */
  public JsonRecord() {
    // nothing to set up
  }

  @Override
  public String json(RunRecord record) {
    return RunJson.text(record);
  }
}
