package org.abletwine.demo;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.abletwine.formats.database.Database;
import org.abletwine.table.ColumnType;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.RowCopy;
import org.jspecify.annotations.Nullable;

/**
 * The same tables as people hold them: masters in a workbook, a zipped file of tickets a month,
 * prices in a database, and retests as an object a line.
 */
final class OtherKinds {
  private static final String FIRST_OF_AUGUST = "2026-08-01";
  private static final LocalDateTime SOME_TIME = LocalDateTime.of(2026, 9, 1, 0, 0);
  private static final int RETESTED = 37;

  private OtherKinds() {}

  static void write(Path folder, Planted planted) throws IOException {
    List<String> tickets = Files.readAllLines(folder.resolve("tickets.csv"));
    month(folder, "2026-07", tickets, false);
    month(folder, "2026-08", tickets, true);
    retests(folder.resolve("retests.jsonl"), tickets, planted);
    masters(folder);
    prices(folder);
  }

  private static void month(Path folder, String month, List<String> tickets, boolean august)
      throws IOException {
    try (OutputStream file =
            Files.newOutputStream(folder.resolve("tickets-" + month + ".csv.zip"));
        ZipOutputStream zip = new ZipOutputStream(file)) {
      ZipEntry entry = new ZipEntry("tickets-" + month + ".csv");
      entry.setTimeLocal(SOME_TIME);
      zip.putNextEntry(entry);
      StringBuilder text = new StringBuilder(tickets.get(0)).append('\n');
      for (String ticket : tickets.subList(1, tickets.size())) {
        if (day(ticket).compareTo(FIRST_OF_AUGUST) >= 0 == august) {
          text.append(ticket).append('\n');
        }
      }
      zip.write(text.toString().getBytes(StandardCharsets.UTF_8));
      zip.closeEntry();
    }
  }

  private static String day(String ticket) {
    return ticket.split(",", 3)[1];
  }

  /** Every so many tickets was tested again; some say so by the number, without its zeros. */
  private static void retests(Path file, List<String> tickets, Planted planted) throws IOException {
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      for (int i = RETESTED; i < tickets.size(); i += RETESTED) {
        String number = tickets.get(i).split(",", 2)[0];
        boolean bare = i % (5 * RETESTED) == 0;
        if (bare) {
          planted.add("retests whose ticket is a number that has lost its zeros");
        }
        String ticket = bare ? Long.toString(Long.parseLong(number)) : '"' + number + '"';
        String by = i % (3 * RETESTED) == 0 ? "" : ", \"by\": {\"name\": \"lab " + i % 4 + "\"}";
        out.write("{\"ticket_no\": " + ticket + ", \"retest_pct\": " + (110 + i % 50) / 10.0 + by);
        out.write("}\n");
      }
    }
  }

  private static void masters(Path folder) {
    Path file = folder.resolve("masters.xlsx");
    Table growers = typed(folder.resolve("growers.csv"), "updated_on", ColumnType.Kind.DATE);
    try (TableSink first = sheet(file, "Growers", null);
        TableSink second = sheet(file, "Districts", first);
        TableSink third = sheet(file, "Sites", first)) {
      RowCopy.copy(growers, row -> true, first);
      RowCopy.copy(Tables.file(folder.resolve("districts.csv")), row -> true, second);
      RowCopy.copy(Tables.file(folder.resolve("sites.csv")), row -> true, third);
    }
  }

  private static TableSink sheet(Path file, String name, @Nullable TableSink beside) {
    return Tables.destination(file, OutputOptions.NONE.withSheet(name)).open(beside);
  }

  private static Table typed(Path file, String column, ColumnType.Kind kind) {
    return Tables.file(
        file, TableOptions.builder().types(Map.of(column, ColumnType.of(kind))).build());
  }

  private static void prices(Path folder) {
    Path file = folder.resolve("prices.db");
    TableOptions types =
        TableOptions.builder()
            .types(
                Map.of(
                    "effective_from", ColumnType.of(ColumnType.Kind.DATE),
                    "price_per_tonne", ColumnType.of(ColumnType.Kind.NUMBER)))
            .build();
    try (TableSink sink =
        Database.at("jdbc:sqlite:" + file).into("prices", Database.Mode.REPLACE).open(null)) {
      RowCopy.copy(Tables.file(folder.resolve("prices.csv"), types), row -> true, sink);
    }
  }
}
