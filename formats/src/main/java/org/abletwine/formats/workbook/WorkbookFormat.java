package org.abletwine.formats.workbook;

import java.nio.file.Path;
import java.util.Locale;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.formats.packed.Library;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/** Workbooks: {@code .xlsx}, with macros or without, and {@code .ods}. */
public final class WorkbookFormat implements TableFormat {
  /** Called by the service loader. */
  public WorkbookFormat() {}

  @Override
  public boolean handles(Path path) {
    String name = path.toString().toLowerCase(Locale.ROOT);
    return name.endsWith(".xlsx") || name.endsWith(".xlsm") || name.endsWith(".ods");
  }

  @Override
  public boolean hasSheets(Path path) {
    return true;
  }

  @Override
  public Table table(Path path, TableOptions options) {
    Library.XML.require(path);
    return new SheetTable(ByteSource.of(path), options);
  }

  @Override
  public void check(Path path, OutputOptions options) {
    if (options.ofText()) {
      throw new SettingException(
          path + ": a workbook has no delimiter, encoding or line end to state");
    }
    String sheet = options.sheet();
    if (sheet != null) {
      BookFile.requireName(sheet);
    }
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    Library.COMPRESS.require(path);
    return new SheetSink(path, options.sheet(), beside instanceof SheetSink other ? other : null);
  }
}
