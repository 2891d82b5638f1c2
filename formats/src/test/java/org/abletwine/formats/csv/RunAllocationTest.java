package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * What a row costs in memory that is not used again: nothing, however many there are. A guard that
 * needs no clock: an object made for each row or cell shows here.
 */
class RunAllocationTest {
  private static final int FEW = 40_000;
  private static final int MANY = 240_000;

  @TempDir private Path folder;

  private Path tickets(int rows) throws IOException {
    StringBuilder text = new StringBuilder("ticket_no,grower_code,variety,gross_kg\n");
    for (int row = 0; row < rows; row++) {
      text.append(row)
          .append(row % 3 == 0 ? ", G" : ",g")
          .append(row % 1_500)
          .append(",Old Tolley,");
      text.append(10_000 + row % 977).append('\n');
    }
    return Files.writeString(folder.resolve(rows + ".csv"), text);
  }

  private long allocated(Path tickets, Path growers) {
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    Lookup lookup =
        Lookup.in(Tables.file(growers))
            .key("grower_code", "grower_no")
            .normalise(Normalise.trim(), Normalise.ignoreCase())
            .bring("name");
    long before = threads.getCurrentThreadAllocatedBytes();
    try (TableSink sink = Tables.sink(folder.resolve("out.csv"))) {
      Enrichment.of(Tables.file(tickets)).lookup(lookup).workers(1).build().writeTo(sink);
    }
    return threads.getCurrentThreadAllocatedBytes() - before;
  }

  @Test
  void aRowMakesNoGarbage() throws IOException {
    StringBuilder text = new StringBuilder("grower_no,name\n");
    for (int row = 0; row < 1_000; row++) {
      text.append('G').append(row).append(",Merrow Bank Farm ").append(row).append('\n');
    }
    Path growers = Files.writeString(folder.resolve("growers.csv"), text);
    Path few = tickets(FEW);
    Path many = tickets(MANY);
    allocated(few, growers);
    long ofFew = allocated(few, growers);
    long ofMany = allocated(many, growers);
    assertThat((double) (ofMany - ofFew) / (MANY - FEW)).as("bytes a row").isLessThan(1);
  }
}
