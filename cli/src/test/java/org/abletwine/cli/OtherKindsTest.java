package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Workbooks, databases, objects and zipped months through the command line, on the demo data. */
class OtherKindsTest {
  @TempDir private Path demo;

  @BeforeEach
  void layOut() throws IOException {
    OneDemo.into(demo);
  }

  private String file(String name) {
    return demo.resolve(name).toString();
  }

  private static Cli.Gave ran(int status, String... args) {
    Cli.Gave gave = Cli.run(args);
    assertThat(gave.status()).as(gave.err()).isEqualTo(status);
    return gave;
  }

  @Test
  void aMonthIsReadFromEveryKindAndWrittenAsOneWorkbook() {
    Cli.Gave july = ran(0, "run", file("month-end.plan.yaml"), "--figures", "all");
    assertThat(july.out())
        .startsWith("Intake of 2026-07")
        .contains("rows in 1,207")
        .contains("22 as written + 6 drop-leading-zeros")
        .contains("intake-2026-07.xlsx sheet by district  (totals by district_name, 25 groups)");
    Cli.Gave august = ran(0, "run", file("month-end.plan.yaml"), "--set", "month=2026-08");
    assertThat(august.out()).startsWith("Intake of 2026-08").contains("1,793 rows in and out");
    Cli.Gave profile = ran(0, "profile", file("out/intake-2026-08.xlsx"), "--sheet", "tickets");
    assertThat(profile.out())
        .contains("1,793 rows, 21 columns")
        .contains("ticket_no        code")
        .contains("types: { delivered_on: date, gross_kg: integer");
    assertThat(ran(2, "profile", file("out/intake-2026-08.xlsx")).err())
        .contains("has several sheets; state one with sheet: NAME, of tickets (1,794 rows, 21")
        .contains("by commodity (10 rows, 3 columns)");
  }

  @Test
  void aParquetFileIsTransactionsAndReferenceAlike() throws IOException {
    ran(
        0,
        "enrich",
        file("tickets.csv"),
        "--from",
        file("sites.csv"),
        "--key",
        "site_code",
        "--bring",
        "site_name",
        "--out",
        file("t.parquet"));
    assertThat(ran(0, "profile", file("t.parquet")).out())
        .contains("3,000 rows, 13 columns")
        .contains("could be a key: ticket_no");
    ran(
        0,
        "enrich",
        file("t.parquet"),
        "--from",
        file("t.parquet"),
        "--key",
        "ticket_no",
        "--bring",
        "remark as again",
        "--out",
        file("back.csv"));
    List<String> came = Files.readAllLines(demo.resolve("tickets.csv"));
    List<String> left = Files.readAllLines(demo.resolve("back.csv"));
    assertThat(left).hasSameSizeAs(came);
    assertThat(left.get(9)).startsWith(came.get(9));
    assertThat(
            ran(
                    2,
                    "enrich",
                    file("t.parquet"),
                    "--from",
                    file("t.parquet"),
                    "--key",
                    "nosuch",
                    "--bring",
                    "remark")
                .err())
        .contains("has no column \"nosuch\"");
  }

  @Test
  void aParameterThatThereIsNotIsTold() {
    assertThat(ran(2, "run", file("month-end.plan.yaml"), "--set", "mont=1").err())
        .contains("--set: the plan has no parameter \"mont\"; did you mean \"month\"?");
    assertThat(ran(1, "check", file("month-end.plan.yaml"), "--set", "month=2026-13").err())
        .contains("there is no file");
  }

  @Test
  void everyCommandTakesSheetsAndTables() {
    assertThat(
            ran(0, "duplicates", file("masters.xlsx"), "--sheet", "Growers", "--key", "grower_no")
                .out())
        .contains("432 rows, 420 keys");
    assertThat(
            ran(
                    0,
                    "overlap",
                    file("tickets-2026-07.csv.zip"),
                    file("masters.xlsx"),
                    "--sheet",
                    "Growers",
                    "--key",
                    "grower_code=grower_no")
                .out())
        .contains("matched as written")
        .contains("1,072");
    assertThat(
            ran(0, "find", file("prices.db"), "--table", "prices", "commodity=wheat", "grade=M1")
                .out())
        .contains("4 rows");
    Cli.Gave enriched =
        ran(
            0,
            "enrich",
            file("masters.xlsx"),
            "--sheet",
            "Growers",
            "--from",
            file("masters.xlsx"),
            "--their-sheet",
            "Districts",
            "--key",
            "district_code",
            "--bring",
            "district_name",
            "--out",
            file("out/g.ods"));
    assertThat(enriched.out()).contains("432 rows in and out").contains("sheet table");
    assertThat(ran(2, "profile", file("tickets.csv"), "--sheet", "x").err())
        .contains("is no workbook");
    assertThat(ran(2, "profile", file("prices.db"), "--table", "price").err())
        .contains("did you mean \"prices\"?");
  }

  @Test
  void whatSpoilsATypeIsSaidWithItsRow() throws IOException {
    StringBuilder days = new StringBuilder("day\n");
    for (int i = 0; i < 30; i++) {
      days.append("2026-08-").append(10 + i % 20).append('\n');
    }
    Path file = Files.writeString(demo.resolve("d.csv"), days + "undefined\n");
    assertThat(ran(0, "profile", file.toString()).out())
        .contains("date but for 1 cell, such as undefined in row 31")
        .doesNotContain("types:");
    assertThat(ran(0, "profile", file.toString(), "--json").out())
        .contains("\"example\" : \"undefined\"");
  }

  /** A driver that is in no library of ours: it reads the demo's prices under another name. */
  @Test
  void anotherDriverIsNamedWithItsLibrary() throws IOException {
    String source =
        """
        public class Echo implements java.sql.Driver {
          public java.sql.Connection connect(String url, java.util.Properties p) throws java.sql.SQLException {
            return acceptsURL(url) ? new org.sqlite.JDBC().connect("jdbc:sqlite:" + url.substring(10), new java.util.Properties()) : null;
          }
          public boolean acceptsURL(String url) { return url.startsWith("jdbc:echo:"); }
          public java.sql.DriverPropertyInfo[] getPropertyInfo(String u, java.util.Properties p) { return new java.sql.DriverPropertyInfo[0]; }
          public int getMajorVersion() { return 1; }
          public int getMinorVersion() { return 0; }
          public boolean jdbcCompliant() { return false; }
          public java.util.logging.Logger getParentLogger() { return null; }
        }
        """;
    Path java = Files.writeString(demo.resolve("Echo.java"), source);
    int compiled =
        ToolProvider.getSystemJavaCompiler()
            .run(null, null, null, "-cp", System.getProperty("java.class.path"), java.toString());
    assertThat(compiled).isZero();
    Path library = demo.resolve("echo.jar");
    try (OutputStream out = Files.newOutputStream(library);
        ZipOutputStream jar = new ZipOutputStream(out)) {
      jar.putNextEntry(new ZipEntry("Echo.class"));
      jar.write(Files.readAllBytes(demo.resolve("Echo.class")));
      jar.putNextEntry(new ZipEntry("META-INF/services/java.sql.Driver"));
      jar.write("Echo\n".getBytes(StandardCharsets.UTF_8));
    }
    String url = "jdbc:echo:" + file("prices.db");
    assertThat(ran(2, "profile", url, "--table", "prices").err())
        .contains("no driver is at hand for jdbc:echo:");
    assertThat(
            ran(0, "profile", url, "--table", "prices", "--driver-path", library.toString()).out())
        .contains("prices  64 rows, 4 columns");
    assertThat(List.of(ran(2, "profile", url, "--driver-path", file("none.jar")).err()))
        .anyMatch(err -> err.contains("there is no file"));
  }
}
