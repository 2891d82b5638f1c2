package org.abletwine.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.TableProfile;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A file a month, read as one table. */
class ManyFilesTest {
  private static final List<String> NAMES = List.of("no", "code", "remark");

  @TempDir private Path folder;

  private static TableOptions options(boolean pad, @Nullable String source) {
    return TableOptions.builder().pad(pad).source(source).build();
  }

  private static List<List<@Nullable String>> rows(Random random, int from, int to) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int row = from; row < to; row++) {
      String remark =
          switch (random.nextInt(6)) {
            case 0 -> null;
            case 1 -> "";
            case 2 -> "a,b;c";
            case 3 -> "say \"x\"\nso";
            case 4 -> "é";
            default -> "plain";
          };
      rows.add(Arrays.asList("" + row, "K" + random.nextInt(40), remark));
    }
    return rows;
  }

  /** Writes rows with their columns in some order, in some form. */
  private Path written(Random random, String name, List<List<@Nullable String>> rows)
      throws IOException {
    List<String> names = new ArrayList<>(NAMES);
    if (random.nextInt(3) == 0) {
      Collections.shuffle(names, random);
    }
    List<List<@Nullable String>> ordered = new ArrayList<>();
    for (List<@Nullable String> row : rows) {
      List<@Nullable String> cells = new ArrayList<>();
      names.forEach(column -> cells.add(row.get(NAMES.indexOf(column))));
      ordered.add(cells);
    }
    String ending = List.of(".csv", ".csv", ".csv.gz", ".jsonl").get(random.nextInt(4));
    Path file = folder.resolve(name + ending);
    Table own = new OwnRows(names, ordered);
    if (random.nextInt(4) == 0) { // with another delimiter: after the example of a file that has it
      Path example = Files.writeString(folder.resolve("example.txt"), "a;b\n1;2\n");
      own = like(own, Tables.file(example).traits());
    }
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(own).build().writeTo(sink);
    }
    return file;
  }

  private static Table like(Table own, Map<String, String> traits) {
    return new Table() {
      @Override
      public String name() {
        return own.name();
      }

      @Override
      public org.abletwine.table.Schema schema() {
        return own.schema();
      }

      @Override
      public org.abletwine.table.Rows rows() {
        return own.rows();
      }

      @Override
      public Map<String, String> traits() {
        return traits;
      }
    };
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void theyAreTheOneThatWasDivided(long seed) throws IOException {
    Random random = new Random(seed);
    int total = 9_000;
    List<List<@Nullable String>> all = rows(random, 1, total + 1);
    List<Path> files = new ArrayList<>();
    List<String> sources = new ArrayList<>();
    int at = 0;
    for (int part = 0; at < total; part++) {
      int to = part == 6 ? total : Math.min(total, at + random.nextInt(4_000));
      Path file = written(random, "part" + part, all.subList(at, to));
      if (file.toString().endsWith(".jsonl") && at == to) {
        continue; // no object says which columns there are
      }
      files.add(file);
      for (; at < to; at++) {
        sources.add(file.getFileName().toString());
      }
    }
    Table whole = new OwnRows(NAMES, all);
    Table parts = Tables.files(files, TableOptions.NONE);
    List<List<@Nullable String>> read = OwnRows.of(parts);
    List<Integer> order = NAMES.stream().map(name -> parts.schema().indexOf(name)).toList();
    assertThat(read.stream().map(row -> order.stream().map(row::get).toList()).toList())
        .isEqualTo(all);

    Table named = Tables.files(files, options(false, "file"));
    int from = named.schema().indexOf("file");
    assertThat(OwnRows.of(named).stream().map(row -> row.get(from)).toList()).isEqualTo(sources);

    int key = parts.schema().indexOf("code");
    DuplicateAudit.Report one = DuplicateAudit.of(whole, new int[] {1}, List.of()).report(100);
    DuplicateAudit.Report many = DuplicateAudit.of(parts, new int[] {key}, List.of()).report(100);
    assertThat(many.rows()).isEqualTo(one.rows());
    assertThat(many.examples())
        .extracting(e -> e.rows())
        .isEqualTo(one.examples().stream().map(e -> e.rows()).toList());
    assertThat(TableProfile.of(parts).rows()).isEqualTo(total);

    long row = 1 + random.nextInt(total);
    var traced =
        Enrichment.of(parts)
            .lookup(Lookup.in(whole).key("no").bring("remark as r"))
            .build()
            .trace(row);
    assertThat(traced).isNotNull();
    assertThat(traced.number()).isEqualTo(row);
    assertThat(traced.read().get("no")).isEqualTo("" + row);

    String first = "";
    for (int workers = 1; workers <= 3; workers++) {
      Path out = folder.resolve("out" + workers + ".csv");
      try (TableSink sink = Tables.sink(out)) {
        Enrichment.of(parts)
            .lookup(Lookup.in(parts).key("no").bring("remark as again"))
            .workers(workers)
            .build()
            .writeTo(sink);
      }
      String text = Files.readString(out);
      assertThat(text).isEqualTo(first.isEmpty() ? text : first);
      first = text;
      List<List<@Nullable String>> back = OwnRows.of(Tables.file(out));
      int remark = parts.schema().indexOf("remark");
      assertThat(back).allSatisfy(r -> assertThat(r.get(3)).isEqualTo(r.get(remark)));
      assertThat(back).hasSize(total);
    }
  }

  private Path file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text);
  }

  @Test
  void aNameWithAStarStandsForAllItFits() throws IOException {
    file("t-02.csv", "a,b\n3,4\n");
    file("t-01.csv", "a,b\n1,2\n");
    file("other.csv", "x\n9\n");
    Table table = Tables.file(folder.resolve("t-*.csv"));
    assertThat(table.name()).isEqualTo("t-*.csv");
    assertThat(OwnRows.of(table)).containsExactly(List.of("1", "2"), List.of("3", "4"));
    assertThat(OwnRows.of(Tables.file(folder.resolve("t-0?.csv"), options(false, "month"))))
        .containsExactly(List.of("1", "2", "t-01.csv"), List.of("3", "4", "t-02.csv"));
    assertThatThrownBy(() -> Tables.file(folder.resolve("u-*.csv")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("fits no file");
    assertThatThrownBy(() -> Tables.files(List.of(), TableOptions.NONE))
        .isInstanceOf(SettingException.class);
    file("[y]-1.csv", "a,b\n7,8\n");
    assertThat(OwnRows.of(Tables.file(folder.resolve("[y]-?.csv"))))
        .as("brackets are no signs")
        .containsExactly(List.of("7", "8"));
    Path starred = file("*.csv", "a,b\n5,6\n");
    assertThat(OwnRows.of(Tables.file(starred))).as("its very name").hasSize(1);
  }

  @Test
  void columnsThatAreMissingAreToldOrNull() throws IOException {
    List<Path> files =
        List.of(file("1.csv", "a,b\n1,2\n"), file("2.csv", "b\n3\n"), file("3.csv", "c,a\n5,4\n"));
    assertThatThrownBy(() -> Tables.files(files, TableOptions.NONE).schema())
        .isInstanceOf(DataException.class)
        .hasMessage(
            "2.csv has no column \"a\", which 1.csv has; give all files the same columns, or read"
                + " what is missing as null with ragged: pad");
    List<Path> more = List.of(file("1.csv", "a\n1\n"), file("2.csv", "a,z\n3,4\n"));
    assertThatThrownBy(() -> Tables.files(more, TableOptions.NONE).schema())
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith("2.csv has a column \"z\", which 1.csv has not");
    file("1.csv", "a,b\n1,2\n");
    file("2.csv", "b\n3\n");
    Table padded = Tables.files(files, options(true, "from"));
    assertThat(padded.schema().names()).containsExactly("a", "b", "c", "from");
    assertThat(OwnRows.of(padded))
        .containsExactly(
            Arrays.asList("1", "2", null, "1.csv"),
            Arrays.asList(null, "3", null, "2.csv"),
            Arrays.asList("4", null, "5", "3.csv"));
    assertThatThrownBy(() -> Tables.files(files, options(true, "b")).schema())
        .isInstanceOf(DataException.class)
        .hasMessageContaining("there is a column \"b\" already");
  }

  @Test
  void errorsNameTheFileAndItsLine() throws IOException {
    file("t-1.csv", "a,b\n1,2\n");
    file("t-2.csv", "a,b\n3,4\n5\n");
    Table table = Tables.file(folder.resolve("t-*.csv"));
    assertThatThrownBy(() -> OwnRows.of(table))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("t-2.csv line 3");
  }
}
