package org.abletwine.table;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * For tests of what is asked of formats: files of one row of names, all cells parted by spaces.
 * Those called book have sheets.
 */
public final class NotesFormat implements TableFormat {
  @Override
  public boolean handles(Path path) {
    return path.toString().endsWith(".notes");
  }

  @Override
  public boolean writes(Path path) {
    return path.toString().endsWith("new.notes");
  }

  @Override
  public boolean hasSheets(Path path) {
    return path.toString().contains("book");
  }

  @Override
  public boolean inParts(Path path) {
    return path.toString().contains("parts");
  }

  @Override
  public Table table(Path path, TableOptions options) {
    try {
      List<List<String>> lines =
          Files.readAllLines(path).stream().map(line -> Arrays.asList(line.split(" "))).toList();
      String sheet = options.sheet() == null ? "" : " sheet " + options.sheet().sheet();
      return Tables.of(path.getFileName() + sheet, lines.get(0), lines.subList(1, lines.size()));
    } catch (IOException e) {
      throw new DataException(path + ": " + e.getMessage(), e);
    }
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    return new org.abletwine.ListSink();
  }
}
