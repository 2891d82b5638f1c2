/**
 * Able Twine's core: tables, keys, lookups, everything computed from them, and the account of it.
 * What is exported to everybody is the front door; the engine is for the modules of this product
 * alone.
 */
@SuppressWarnings("module") // the modules it is open to are built after it
module org.abletwine.core {
  requires transitive org.jspecify;
  requires re2j;
  requires net.sf.jsqlparser;
  requires static com.google.errorprone.annotations; // what locks guard, for the compiler alone

  exports org.abletwine.table;
  exports org.abletwine.key;
  exports org.abletwine.match;
  exports org.abletwine.step;
  exports org.abletwine.lookup;
  exports org.abletwine.correct;
  exports org.abletwine.derive;
  exports org.abletwine.enrich;
  exports org.abletwine.figures;
  exports org.abletwine.audit;
  exports org.abletwine.table.text to
      org.abletwine.formats,
      org.abletwine.parquet,
      org.abletwine.plan,
      org.abletwine.report,
      org.abletwine.cli;
  exports org.abletwine.table.batch to
      org.abletwine.formats,
      org.abletwine.parquet,
      org.abletwine.plan,
      org.abletwine.cli;
  exports org.abletwine.table.carry to
      org.abletwine.plan;
  exports org.abletwine.table.spill to
      org.abletwine.plan,
      org.abletwine.cli;
  exports org.abletwine.table.output to
      org.abletwine.formats,
      org.abletwine.parquet,
      org.abletwine.plan,
      org.abletwine.cli;
  exports org.abletwine.step.run to
      org.abletwine.plan,
      org.abletwine.cli;
  exports org.abletwine.derive.total to
      org.abletwine.plan;
  exports org.abletwine.compute to
      org.abletwine.plan;
  exports org.abletwine.match.index to
      org.abletwine.plan;
  exports org.abletwine.match.near to
      org.abletwine.plan,
      org.abletwine.benchmarks;

  uses org.abletwine.table.TableFormat;
  uses org.abletwine.figures.RecordForm;
  uses org.abletwine.key.NormaliseStep;
  uses org.abletwine.match.OwnRule;
}
