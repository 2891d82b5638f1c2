package org.abletwine.parquet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.formats.database.Database;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** One table of values goes through every pair of formats, and comes back the same. */
class EveryPairTest {
  private static final List<String> ENDINGS =
      List.of(
          ".csv",
          ".csv.gz",
          ".json",
          ".jsonl",
          ".json.zip",
          ".jsonl.zst",
          ".xlsx",
          ".ods",
          ".parquet");

  /** Codes with zeros, long decimals, far dates, spaces of every kind, breaks, quotes, emoji. */
  private static final List<@Nullable String> VALUES =
      Arrays.asList(
          "00123",
          "12345678901234567890.0123456789",
          "0.1",
          "-0.10",
          "1e9",
          "1899-12-31",
          "9999-12-31",
          "a\u00A0b",
          " x ",
          "two\nlines",
          "two\r\nlines",
          "say \"x\"",
          "'",
          "a,b;c|d\te",
          "\uD83C\uDF3E",
          "é\u0301",
          "\\back\\",
          "\u0001\u001F\u007F",
          "true",
          "false",
          "null",
          "",
          null,
          "{\"a\": [1]}");

  @TempDir private Path folder;

  static Stream<String> endings() {
    return ENDINGS.stream();
  }

  /** What a format makes of a value: the pages on tables say the same. */
  private static @Nullable String held(String ending, int column, @Nullable String value) {
    boolean workbook = ending.equals(".xlsx") || ending.equals(".ods");
    boolean number = column == 3 && value != null && value.matches("-?\\d+\\.\\d*0");
    return workbook && number ? value.replaceFirst("0+$", "") : value;
  }

  private static List<List<@Nullable String>> held(String ending, OwnRows values) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (List<@Nullable String> row : values.cells()) {
      List<@Nullable String> cells = new ArrayList<>();
      for (int column = 0; column < row.size(); column++) {
        cells.add(held(ending, column, row.get(column)));
      }
      rows.add(cells);
    }
    return rows;
  }

  /** Without what an .ods file cannot hold, which is an error. */
  private static OwnRows withoutControls(OwnRows values) {
    for (List<@Nullable String> row : values.cells()) {
      row.replaceAll(cell -> cell == null ? null : cell.replaceAll("[\u0001\u001F]", "^"));
    }
    return values;
  }

  private static OwnRows values() {
    Random random = new Random(1);
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int row = 0; row < 2_300; row++) {
      List<@Nullable String> cells = new ArrayList<>();
      cells.add("" + row);
      for (int column = 0; column < 4; column++) {
        cells.add(
            row < VALUES.size() ? VALUES.get(row) : VALUES.get(random.nextInt(VALUES.size())));
      }
      rows.add(cells);
    }
    OwnRows own = new OwnRows(List.of("id", "plain", "sp ace", "num", "tr\"uth"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("tr\"uth", ColumnType.of(ColumnType.Kind.BOOLEAN));
    return own;
  }

  private Table written(Table from, String name, int workers) {
    Path file = folder.resolve(name);
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(from).workers(workers).build().writeTo(sink);
    }
    return Tables.file(file);
  }

  @ParameterizedTest
  @MethodSource("endings")
  void whatGoesInComesOut(String one) {
    for (String other : ENDINGS) {
      boolean ods = one.equals(".ods") || other.equals(".ods");
      OwnRows values = ods ? withoutControls(values()) : values();
      List<List<@Nullable String>> expected = held(one, values);
      for (int workers = 1; workers <= 3; workers += 2) {
        Table first = written(values, "a" + workers + one, workers);
        assertThat(OwnRows.of(first)).isEqualTo(expected);
        Table second = written(first, "b" + workers + other, workers);
        assertThat(second.schema().names()).isEqualTo(values.names());
        assertThat(OwnRows.of(second)).as(one + " to " + other).isEqualTo(expected);
      }
    }
  }

  /** A database in between: every value as a text, there and back. */
  @ParameterizedTest
  @MethodSource("endings")
  void aDatabaseHoldsThemToo(String ending) {
    boolean ods = ending.equals(".ods");
    OwnRows typed = ods ? withoutControls(values()) : values();
    OwnRows values = new OwnRows(typed.names(), typed.cells());
    Database database = Database.at("jdbc:sqlite:" + folder.resolve("d.db"));
    for (int workers = 1; workers <= 3; workers += 2) {
      Table file = written(values, "c" + workers + ending, workers);
      try (TableSink sink = database.into("t", Database.Mode.REPLACE).open(null)) {
        Enrichment.of(file).workers(workers).build().writeTo(sink);
      }
      Table held = database.query("select * from t order by rowid", List.of());
      assertThat(held.schema().names()).isEqualTo(values.names());
      assertThat(OwnRows.of(held)).isEqualTo(values.cells());
      Table back = written(held, "d" + workers + ending, workers);
      assertThat(OwnRows.of(back)).as(ending).isEqualTo(values.cells());
    }
  }
}
