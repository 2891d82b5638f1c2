package org.abletwine.cli;

import java.nio.file.Path;
import org.abletwine.table.TableOptions;

/** How to read the second of two tables, the reference, where that is otherwise than the first. */
final class TheirOptions {
  private final Given<String> sheet;

  TheirOptions(Usage usage) {
    sheet =
        usage
            .option(
                "--their-sheet",
                "NAME",
                "The sheet or table of the reference, where it is another.")
            .orCalled("--their-table");
  }

  /** How to read the reference: the name of its file is no column of it. */
  TableOptions of(ReadingOptions reading, Path reference) {
    TableOptions same = reading.of(reference).but().source(null).build();
    return sheet.orNull() == null
        ? same
        : same.but().sheet(new TableOptions.Sheet(sheet.orNull(), 0, null)).build();
  }
}
