package org.abletwine.formats.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What an office suite makes of the files that are written here, and what is made here of its own;
 * skipped where its headless converter {@code soffice} is not installed.
 */
class OfficeSuiteTest {
  @TempDir private Path folder;

  @BeforeEach
  void converter() throws IOException, InterruptedException {
    assumeTrue(
        Arrays.stream(System.getenv("PATH").split(":"))
            .anyMatch(place -> Files.isExecutable(Path.of(place, "soffice"))),
        "no office suite (soffice) is installed");
  }

  private static OwnRows values() {
    List<List<@Nullable String>> rows = new ArrayList<>();
    rows.add(Arrays.asList("00123", "12.25", "2026-08-01", "2026-08-01T14:30:00", "true"));
    rows.add(
        Arrays.asList(
            "<&> \"q\" é \uD83C\uDF3E", "-3", "9999-12-31", "1900-03-01T00:00:01", "false"));
    rows.add(Arrays.asList(" spaced  out ", "0.1", "1900-03-01", null, null));
    rows.add(Arrays.asList("two\nlines", "123456789012345", null, "2026-12-31T23:59:59", "true"));
    rows.add(Arrays.asList("=1+1", null, "2000-02-29", null, null));
    for (int i = 0; i < 500; i++) {
      rows.add(
          Arrays.asList(
              "0" + i, i + ".5", "2026-08-0" + (1 + i % 9), null, i % 2 == 0 ? "true" : "false"));
    }
    OwnRows own = new OwnRows(List.of("code", "num", "day", "time", "truth"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    own.types().put("time", ColumnType.of(ColumnType.Kind.DATE_TIME));
    own.types().put("truth", ColumnType.of(ColumnType.Kind.BOOLEAN));
    return own;
  }

  private Path converted(Path file, String ending) throws IOException, InterruptedException {
    Path out = Files.createDirectories(folder.resolve("converted"));
    Process process =
        new ProcessBuilder(
                "soffice",
                "-env:UserInstallation=" + folder.resolve("profile").toUri(),
                "--headless",
                "--convert-to",
                ending,
                "--outdir",
                out.toString(),
                file.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile())
            .start();
    assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
    Path result = out.resolve("t." + ending);
    assertThat(result).as(Files.readString(folder.resolve("log"))).exists();
    return result;
  }

  /** Written here, opened and saved there as the same or the other kind, read here. */
  @ParameterizedTest
  @CsvSource({"xlsx,xlsx", "xlsx,ods", "ods,ods", "ods,xlsx"})
  void whatIsWrittenOpensThereAndComesBackTheSame(String ours, String theirs)
      throws IOException, InterruptedException {
    Path file = folder.resolve("t." + ours);
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(values()).build().writeTo(sink);
    }
    assertThat(OwnRows.of(Tables.file(converted(file, theirs)))).isEqualTo(values().cells());
  }

  /** Made there of text, with what the suite takes for numbers and days, and read here. */
  @ParameterizedTest
  @CsvSource({"xlsx", "ods"})
  void whatIsMadeThereIsRead(String ending) throws IOException, InterruptedException {
    Path text =
        Files.writeString(
            folder.resolve("t.csv"),
            "code,num,day,formula\n00123,12.50,2026-08-01,=1/4\nx,0.1,2026-12-31,=1/0\n");
    Table table = Tables.file(converted(text, ending), TableOptions.NONE);
    List<List<@Nullable String>> rows = OwnRows.of(table);
    assertThat(table.schema().names()).containsExactly("code", "num", "day", "formula");
    assertThat(rows.get(0).subList(1, 3)).containsExactly("12.5", "2026-08-01");
    assertThat(rows.get(1).subList(0, 3)).containsExactly("x", "0.1", "2026-12-31");
    assertThat(rows.get(0).get(0)).as("the suite has dropped its zeros").isIn("123", "00123");
    assertThat(rows.get(0).get(3)).isIn("0.25", "=1/4");
    assertThat(rows.get(1).get(3)).isIn(null, "=1/0");
  }
}
