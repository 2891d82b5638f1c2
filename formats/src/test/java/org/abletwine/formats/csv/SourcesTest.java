package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.TableProfile;
import org.abletwine.derive.Rollup;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Where tables come from: files large and odd, pipes, and tables of one's own. */
@Timeout(60)
class SourcesTest {
  @TempDir private Path folder;

  private Path file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text);
  }

  /** A named pipe that somebody writes a text into. */
  private Path pipe(String name, String text) throws Exception {
    Path pipe = folder.resolve(name);
    assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor()).isZero();
    Path held = file(name + ".held", text);
    new ProcessBuilder("sh", "-c", "cat '" + held + "' > '" + pipe + "'").start();
    return pipe;
  }

  private static String rows(int count, int keys) {
    return IntStream.range(0, count)
        .mapToObj(row -> row + ",k" + row % keys + ",\"a \"\"" + row % 3 + "\"\n")
        .collect(Collectors.joining("", "id,k,t\n", ""));
  }

  @Test
  void aPipeIsReadOnceFromItsFirstByte() throws Exception {
    Path out = folder.resolve("out.csv");
    Lookup lookup =
        Lookup.in(Tables.file(pipe("growers", "k,v\nk1,one\nk2,two\n"))).key("k").bring("v");
    RunRecord record =
        Enrichment.of(Tables.file(pipe("tickets", rows(20_000, 4))))
            .lookup(lookup)
            .build()
            .writeTo(Tables.sink(out));
    assertThat(record.rowsOut()).isEqualTo(20_000);
    assertThat(record.lookups().get(0).matched()).isEqualTo(10_000);
    assertThat(Files.readAllLines(out)).hasSize(20_001).startsWith("id,k,t,v");
  }

  @Test
  void whatIsReadTwiceOfAPipeIsKeptMeanwhile() throws Exception {
    TableProfile profile = TableProfile.of(Tables.file(pipe("profiled", rows(3_000, 50))));
    assertThat(profile.rows()).isEqualTo(3_000);
    Table table = Tables.file(pipe("doubled", rows(9_000, 8_000)));
    DuplicateAudit audit = DuplicateAudit.of(table, new int[] {1}, List.of(Normalise.trim()));
    assertThat(audit.report(1).duplicateKeys()).isEqualTo(1_000);
    Table reference = Tables.file(pipe("twice", "k,v,w\nk1,1,2\n"));
    RunRecord record =
        Enrichment.of(Tables.file(file("t.csv", rows(100, 4))))
            .lookup(Lookup.in(reference).named("one").key("k").bring("v"))
            .lookup(Lookup.in(reference).named("two").key("t", "k").bring("w"))
            .build()
            .writeTo(Tables.sink(folder.resolve("o.csv")));
    assertThat(record.lookups().get(0).matched()).isEqualTo(25);
  }

  /** Cells that differ only within doubled quotes make groups of their own, under their names. */
  @Test
  void groupsAreToldApartByWhatTheirCellsHold() throws IOException {
    Table table = Tables.file(file("t.csv", "g,n\n\"a\"\"b1\",1\n\"a\"\"b2\",2\n\"a\"\"b1\",4\n"));
    RunRecord record =
        Enrichment.of(table)
            .step(new Rollup(List.of("g"), List.of("n"), false, null, table, Evaluation.STRICT))
            .build()
            .writeTo(Tables.sink(folder.resolve("o.csv")));
    assertThat(record.of(StepFigures.RolledUp.class).get(0).groups())
        .containsExactly(List.of("a\"b1", "5"), List.of("a\"b2", "2"));
  }

  @Test
  void aHeaderMayBeLongerThanWhatIsLookedAtFirst() throws IOException {
    for (int columns : new int[] {3_277, 40_000}) {
      String header =
          IntStream.range(0, columns).mapToObj(c -> "column_" + c).collect(Collectors.joining(";"));
      Table table = Tables.file(file("wide.csv", header + "\n" + ";".repeat(columns - 1) + "\n"));
      assertThat(table.schema().size()).isEqualTo(columns);
      assertThat(table.schema().names()).endsWith("column_" + (columns - 1));
    }
    Table quoted = Tables.file(file("q.csv", "\"a\n" + "x".repeat(50_000) + "\",b\n1,2\n"));
    assertThat(quoted.schema().size()).isEqualTo(2);
  }

  /** Three rows of 5,000 columns take room for three rows, not for two thousand. */
  @Test
  void aBatchGrowsWithWhatItHolds() throws IOException {
    String row = "1" + ",2".repeat(4_999) + "\n";
    String header =
        IntStream.range(0, 5_000).mapToObj(c -> "c" + c).collect(Collectors.joining(",", "", "\n"));
    Runtime.getRuntime().gc();
    long before = used();
    Table table = Tables.file(file("w.csv", header + row.repeat(3)));
    try (BatchReader reader = new BatchReader(table);
        BatchReader another = new BatchReader(table)) {
      Batch batch = Objects.requireNonNull(reader.next());
      assertThat(another.next()).isNotNull();
      assertThat(batch.rows()).isEqualTo(3);
      assertThat(batch.column(4_999).get(2)).isEqualTo("2");
    }
    assertThat(used() - before).isLessThan(40_000_000);
  }

  private static long used() {
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  @Test
  void aCellBeyondAllMeasureIsSaidToBeThat() throws IOException {
    Path path = file("long.csv", "a,b\n1,\"");
    String piece = "x".repeat(1 << 20);
    for (int i = 0; i < 17; i++) {
      Files.writeString(path, piece, StandardOpenOption.APPEND);
    }
    Files.writeString(path, "\"\n2,y\n", StandardOpenOption.APPEND);
    Table table = Tables.file(path);
    assertThatThrownBy(
            () -> {
              try (BatchReader reader = new BatchReader(table)) {
                for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
                  batch.rows();
                }
              }
            })
        .isInstanceOf(DataException.class)
        .hasMessageContaining("line 2, column \"b\": a cell of more than 16777216 bytes");
  }

  @Test
  void aFileWrittenToWhileItIsReadIsNoticed() throws IOException {
    Path path = file("t.csv", rows(50_000, 3));
    for (String change : List.of("shorter", "longer")) {
      file("t.csv", rows(50_000, 3));
      try (BatchReader reader = new BatchReader(Tables.file(path))) {
        assertThat(reader.next()).isNotNull();
        if (change.equals("longer")) {
          Files.writeString(path, "x,y,z\n", StandardOpenOption.APPEND);
        } else {
          Files.write(path, java.util.Arrays.copyOf(Files.readAllBytes(path), 700_000));
        }
        assertThatThrownBy(
                () -> {
                  while (reader.next() != null) {
                    // to the end
                  }
                })
            .as(change)
            .isInstanceOf(DataException.class)
            .hasMessageContaining("was written to while it was read");
      }
    }
    file("t.csv", rows(50_000, 3));
    Path old = folder.resolve("moved");
    try (BatchReader reader = new BatchReader(Tables.file(path))) {
      Files.move(path, old);
      file("t.csv", "id,k,t\n1,2,3\n");
      long read = 0;
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        read += batch.rows();
      }
      assertThat(read).as("one that was moved into its place does not matter").isGreaterThan(9_000);
    }
  }

  /** A table written after the example of its documentation, with cells of every kind. */
  @Test
  void aTableOfOnesOwnIsWrittenAsOneThatWasRead() throws IOException {
    List<List<String>> cells =
        List.of(
            List.of("1", "a,b", "say \"x\""),
            List.of("2", "", "two\nlines"),
            List.of("3", "é", "z"));
    Table own =
        new Table() {
          @Override
          public String name() {
            return "own";
          }

          @Override
          public Schema schema() {
            return new Schema(List.of("id", "t", "u"));
          }

          @Override
          public Rows rows() {
            Iterator<List<String>> rows = cells.iterator();
            return new Rows() {
              @Override
              public @Nullable List<@Nullable String> next() {
                return rows.hasNext() ? new ArrayList<@Nullable String>(rows.next()) : null;
              }

              @Override
              public void close() {}
            };
          }
        };
    Path out = folder.resolve("own.csv");
    Enrichment.of(own).build().writeTo(Tables.sink(out));
    assertThat(out)
        .hasContent("id,t,u\n1,\"a,b\",\"say \"\"x\"\"\"\n2,\"\",\"two\nlines\"\n3,é,z\n");
  }
}
