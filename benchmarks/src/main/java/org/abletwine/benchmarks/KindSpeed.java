package org.abletwine.benchmarks;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.abletwine.formats.database.Database;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.ReadableWorkbook;

/**
 * Reads the same rows of twelve columns by the tool and by the plain loop of a library or driver,
 * in turn, and prints rows a second and their ratio.
 */
public final class KindSpeed {
  private static final int COLUMNS = 12;
  private static final int SHARED = 5_000;

  private KindSpeed() {}

  /** A way of reading everything; returns how many characters or bytes there were. */
  private interface Reading {
    long read() throws IOException, SQLException;
  }

  /**
   * @param args rows, rounds, folder
   * @throws Exception when anything goes wrong
   */
  public static void main(String[] args) throws Exception {
    int rows = Integer.parseInt(args[0]);
    int rounds = Integer.parseInt(args[1]);
    Path folder = Files.createDirectories(Path.of(args[2]));
    Path book = folder.resolve("kinds-" + rows + ".xlsx");
    if (!Files.exists(book)) {
      write(book, rows);
    }
    compare("workbook", rows, rounds, () -> library(book), () -> tool(Tables.file(book)));
    String sqlite = "jdbc:sqlite:" + folder.resolve("kinds-" + rows + ".db");
    try (Connection connection = DriverManager.getConnection(sqlite)) {
      fill(connection, rows, "integer", "real");
    }
    compare(
        "SQLite",
        rows,
        rounds,
        () -> loop(DriverManager.getConnection(sqlite)),
        () -> tool(Database.at(sqlite).table("kinds")));
    Path data = Files.createTempDirectory("kinds");
    try (EmbeddedPostgres server = EmbeddedPostgres.builder().setDataDirectory(data).start()) {
      String url = "jdbc:postgresql://localhost:" + server.getPort() + "/postgres";
      try (Connection connection = server.getPostgresDatabase().getConnection()) {
        fill(connection, rows, "bigint", "numeric");
      }
      Files.writeString(data.resolve("user"), "postgres");
      Database database =
          Database.at(url)
              .as(org.abletwine.formats.database.Secret.file(data.resolve("user")), null);
      compare(
          "PostgreSQL",
          rows,
          rounds,
          () -> loop(server.getPostgresDatabase().getConnection()),
          () -> tool(database.table("kinds")));
    }
  }

  private static void write(Path file, int rows) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "kinds", "1.0")) {
      Worksheet sheet = book.newWorksheet("Tickets");
      for (int column = 0; column < COLUMNS; column++) {
        sheet.value(0, column, "c" + column);
      }
      for (int row = 1; row <= rows; row++) {
        for (int column = 0; column < COLUMNS; column++) {
          switch (column % 3) {
            case 0 -> sheet.value(row, column, (row * 31L + column) / 100.0);
            case 1 -> sheet.value(row, column, "text " + row % SHARED);
            default -> sheet.value(row, column, row);
          }
        }
        if (row % 1_000 == 0) {
          sheet.flush();
        }
      }
    }
  }

  private static void fill(Connection connection, int rows, String whole, String decimal)
      throws SQLException {
    connection.setAutoCommit(false);
    List<String> columns = new ArrayList<>();
    for (int column = 0; column < COLUMNS; column++) {
      columns.add("c" + column + " " + List.of(decimal, "text", whole).get(column % 3));
    }
    try (Statement statement = connection.createStatement()) {
      statement.execute("drop table if exists kinds");
      statement.execute("create table kinds(" + String.join(", ", columns) + ")");
    }
    String marks = String.join(", ", Collections.nCopies(COLUMNS, "?"));
    try (PreparedStatement insert =
        connection.prepareStatement("insert into kinds values(" + marks + ")")) {
      for (int row = 1; row <= rows; row++) {
        for (int column = 0; column < COLUMNS; column++) {
          switch (column % 3) {
            case 0 -> insert.setDouble(column + 1, (row * 31L + column) / 100.0);
            case 1 -> insert.setString(column + 1, "text " + row % SHARED);
            default -> insert.setLong(column + 1, row);
          }
        }
        insert.addBatch();
        if (row % 10_000 == 0) {
          insert.executeBatch();
        }
      }
      insert.executeBatch();
    }
    connection.commit();
  }

  private static long library(Path file) throws IOException {
    long[] characters = new long[1];
    try (ReadableWorkbook book = new ReadableWorkbook(file.toFile());
        var rows = book.getFirstSheet().openStream()) {
      rows.forEach(
          row -> {
            for (Cell cell : row) {
              characters[0] += cell == null ? 0 : cell.getText().length();
            }
          });
    }
    return characters[0];
  }

  private static long loop(Connection connected) throws SQLException {
    long characters = 0;
    try (Connection connection = connected) {
      connection.setAutoCommit(false);
      try (Statement statement = connection.createStatement()) {
        statement.setFetchSize(2_000);
        try (ResultSet rows = statement.executeQuery("select * from kinds")) {
          while (rows.next()) {
            for (int column = 1; column <= COLUMNS; column++) {
              characters += rows.getString(column).length();
            }
          }
        }
      }
    }
    return characters;
  }

  private static long tool(Table table) {
    long bytes = 0;
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          for (int column = 0; column < COLUMNS; column++) {
            bytes += batch.baseEnd(row, column) - batch.baseStart(row, column);
          }
        }
      }
    }
    return bytes;
  }

  private static void compare(String kind, int rows, int rounds, Reading plain, Reading tool)
      throws IOException, SQLException {
    List<Double> ours = new ArrayList<>();
    List<Double> theirs = new ArrayList<>();
    for (int round = 0; round <= rounds; round++) {
      double library = seconds(plain);
      double own = seconds(tool);
      if (round > 0) { // the first warms both
        theirs.add(library);
        ours.add(own);
      }
    }
    double one = median(theirs);
    double other = median(ours);
    System.out.printf(
        Locale.ROOT,
        "%-10s  plain loop %,10.0f rows/s   tool %,10.0f rows/s   tool to plain %.2f%n",
        kind,
        rows / one,
        rows / other,
        one / other);
  }

  private static double seconds(Reading reading) throws IOException, SQLException {
    long begun = System.nanoTime();
    if (reading.read() == 0) {
      throw new IllegalStateException("nothing was read");
    }
    return (System.nanoTime() - begun) / 1e9;
  }

  private static double median(List<Double> times) {
    List<Double> sorted = new ArrayList<>(times);
    Collections.sort(sorted);
    return sorted.get(sorted.size() / 2);
  }
}
