package org.abletwine.formats.json;

import java.nio.file.Path;
import java.util.Locale;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.formats.packed.Library;
import org.abletwine.formats.packed.Packing;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/** JSON files ({@code .json}) and files of an object a line ({@code .jsonl}), packed or not. */
public final class JsonFormat implements TableFormat {
  /** Called by the service loader. */
  public JsonFormat() {}

  @Override
  public boolean handles(Path path) {
    return lines(path) || inner(path).endsWith(".json");
  }

  private static boolean lines(Path path) {
    return inner(path).endsWith(".jsonl");
  }

  private static String inner(Path path) {
    return Packing.inner(path).toLowerCase(Locale.ROOT);
  }

  @Override
  public boolean inParts(Path path) {
    return Packing.of(path) != Packing.ZIP; // of which there can be only one in a file
  }

  @Override
  public Table table(Path path, TableOptions options) {
    Library.JSON.require(path);
    return new JsonTable(ByteSource.of(path), options);
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    Library.JSON.require(path);
    return new JsonSink(path, lines(path));
  }
}
