/** Able Twine's plan file: what it says, and the run it makes. */
module org.abletwine.plan {
  requires transitive org.abletwine.core;
  requires org.abletwine.formats;
  requires transitive com.fasterxml.jackson.databind;
  requires org.snakeyaml.engine;
  requires org.apache.commons.text;

  exports org.abletwine.plan;
  exports org.abletwine.plan.draft;
  exports org.abletwine.plan.drift;
  exports org.abletwine.plan.tell;

  uses org.abletwine.plan.FarFiles;
  uses org.abletwine.plan.ReportMaker;
}
