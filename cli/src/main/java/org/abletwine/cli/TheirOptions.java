package org.abletwine.cli;

import java.nio.file.Path;
import org.abletwine.table.TableOptions;
import picocli.CommandLine.Option;

/** How to read the second of two tables, the reference, where that is otherwise than the first. */
final class TheirOptions {
  @Option(
      names = {"--their-sheet", "--their-table"},
      paramLabel = "NAME",
      description = "The sheet or table of the reference, where it is another.")
  private String sheet;

  /** How to read the reference: the name of its file is no column of it. */
  TableOptions of(ReadingOptions reading, Path reference) {
    TableOptions same = reading.of(reference).but().source(null).build();
    return sheet == null ? same : same.but().sheet(new TableOptions.Sheet(sheet, 0, null)).build();
  }
}
