/** Able Twine's plan file: what it says, and the run it makes. */
@SuppressWarnings("module") // the modules it is open to are built after it
module org.abletwine.plan {
  requires transitive org.abletwine.core;
  requires org.abletwine.formats;
  requires transitive com.fasterxml.jackson.databind;
  requires org.snakeyaml.engine;
  requires org.apache.commons.text;
  requires org.apache.commons.compress; // these three: what tables of plans need
  requires com.github.luben.zstd_jni;
  requires com.fasterxml.aalto;

  exports org.abletwine.plan;
  exports org.abletwine.plan.draft to
      org.abletwine.cli;
  exports org.abletwine.plan.drift;
  exports org.abletwine.plan.tell;

  uses org.abletwine.plan.FarFiles;
  uses org.abletwine.plan.ReportMaker;

  provides org.abletwine.figures.RecordForm with
      org.abletwine.plan.JsonRecord;
}
