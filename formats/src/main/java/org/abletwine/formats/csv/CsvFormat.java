package org.abletwine.formats.csv;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.formats.packed.Packing;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/** Delimited text files: comma, semicolon, tab or pipe between cells. */
public final class CsvFormat implements TableFormat {
  /** Endings of files that are written as text; files without an ending are too. */
  private static final List<String> WRITTEN = List.of(".csv", ".tsv", ".tab", ".txt");

  private static final List<String> OTHERS =
      List.of(".xlsx", ".xls", ".ods", ".parquet", ".json", ".jsonl", ".yaml", ".yml", ".pdf");

  /** Called by the service loader. */
  public CsvFormat() {}

  @Override
  public boolean handles(Path path) {
    String name = Packing.inner(path).toLowerCase(Locale.ROOT);
    return OTHERS.stream().noneMatch(name::endsWith);
  }

  @Override
  public boolean writes(Path path) {
    String name = Packing.inner(path).toLowerCase(Locale.ROOT);
    return name.indexOf('.') < 0 || WRITTEN.stream().anyMatch(name::endsWith);
  }

  @Override
  public boolean inParts(Path path) {
    return Packing.of(path) != Packing.ZIP; // of which there can be only one in a file
  }

  @Override
  public Table table(Path path, TableOptions options) {
    return new CsvTable(ByteSource.of(path), options);
  }

  @Override
  public void check(Path path, OutputOptions options) {
    if (options.sheet() != null) {
      throw new SettingException(path + ": text has no sheets; name a workbook such as .xlsx");
    }
    String encoding = options.encoding();
    if (encoding != null) {
      Encodings.named(encoding);
    }
    String decimal = options.decimal();
    if (decimal != null) {
      try {
        NumberForm.of(decimal, false);
      } catch (IllegalArgumentException e) {
        throw new SettingException(
            path + ": decimal: \"" + decimal + "\" is no example of a number: " + e.getMessage());
      }
    }
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    return new CsvSink(path, options);
  }
}
