package org.abletwine.parquet;

import java.nio.file.Path;
import java.util.Locale;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/** Parquet files by their ending. */
public final class ParquetFormat implements TableFormat {
  /** Called by the service loader. */
  public ParquetFormat() {}

  @Override
  public boolean handles(Path path) {
    return path.toString().toLowerCase(Locale.ROOT).endsWith(".parquet");
  }

  @Override
  public Table table(Path path, TableOptions options) {
    return new ParquetTable(path, options);
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    if (beside != null) {
      throw new SettingException(path + ": a Parquet file holds one table; name another file");
    }
    return new ParquetSink(path);
  }
}
