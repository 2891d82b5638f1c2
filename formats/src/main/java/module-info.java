/** Able Twine's file formats, found by the core. */
@SuppressWarnings("module") // the module it is open to is built after it
module org.abletwine.formats {
  requires transitive org.abletwine.core;
  requires de.siegmar.fastcsv;
  requires static org.apache.commons.compress;
  requires static com.fasterxml.jackson.core;
  requires transitive java.sql;
  requires static com.fasterxml.aalto;
  requires static com.github.luben.zstd_jni;

  exports org.abletwine.formats.database;
  exports org.abletwine.formats.packed to
      org.abletwine.parquet,
      org.abletwine.plan;

  provides org.abletwine.table.TableFormat with
      org.abletwine.formats.csv.CsvFormat,
      org.abletwine.formats.json.JsonFormat,
      org.abletwine.formats.workbook.WorkbookFormat,
      org.abletwine.formats.database.DatabaseFormat;

  uses java.sql.Driver;
}
