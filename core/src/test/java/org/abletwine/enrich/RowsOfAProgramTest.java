package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Row;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Rows that a program holds go in, and come out as rows, records and values. */
class RowsOfAProgramTest {
  private enum Grade {
    FIRST_CUT,
    SECOND
  }

  private record Ticket(
      String no, @Nullable String grower, BigDecimal netKg, LocalDate day, Grade grade) {}

  private record Priced(
      String no, @Nullable String name, double netKg, LocalDate day, @Nullable Grade grade) {}

  /** A bean whose getters are in another order than its fields. */
  public static class Moisture {
    private final int pct;
    private final boolean dry;

    public Moisture(int pct, boolean dry) {
      this.pct = pct;
      this.dry = dry;
    }

    public boolean isDry() {
      return dry;
    }

    public int getPct() {
      return pct;
    }

    public Optional<String> getRemark() {
      return dry ? Optional.of("fine") : Optional.empty();
    }

    public double getURL() {
      return 0.1 + pct;
    }
  }

  private static final List<Ticket> TICKETS =
      List.of(
          ticket("T1", "G1", "12.50", Grade.FIRST_CUT),
          ticket("T2", "G9", "3", Grade.SECOND),
          ticket("T3", null, "1E+3", Grade.SECOND));

  private static Ticket ticket(String no, @Nullable String grower, String kg, Grade grade) {
    return new Ticket(no, grower, new BigDecimal(kg), LocalDate.of(2026, 7, 20), grade);
  }

  private static final Table GROWERS =
      Tables.of(
          "growers", List.of("code", "name"), List.of(List.of("G1", "Moor"), List.of("G2", "")));

  private static Enrichment priced() {
    return Enrichment.of(Tables.records(TICKETS))
        .lookup(Lookup.in(GROWERS).key("grower", "code").bring("name"))
        .step(new Compute("double kg", "netKg * 2", Evaluation.STRICT))
        .build();
  }

  @Test
  void recordsBecomeRowsAndRowsRecords() {
    Table table = Tables.records(TICKETS);
    assertThat(table.schema().names()).containsExactly("no", "grower", "netKg", "day", "grade");
    assertThat(table.type("netKg")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(table.type("day")).isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    assertThat(table.type("grower")).isNull();
    List<Row> rows = priced().rows();
    assertThat(rows.get(0).map())
        .containsEntry("netKg", "12.50")
        .containsEntry("name", "Moor")
        .containsEntry("grade", "FIRST_CUT")
        .containsEntry("double kg", "25.00");
    assertThat(rows.get(2).get("netKg")).as("no exponent in a cell").isEqualTo("1000");
    assertThat(rows.stream().map(row -> row.as(Priced.class)))
        .containsExactly(
            new Priced("T1", "Moor", 12.5, LocalDate.of(2026, 7, 20), Grade.FIRST_CUT),
            new Priced("T2", null, 3, LocalDate.of(2026, 7, 20), Grade.SECOND),
            new Priced("T3", null, 1000, LocalDate.of(2026, 7, 20), Grade.SECOND));
    assertThat(rows.get(1).number()).isEqualTo(2);
    assertThat(rows.get(1))
        .hasToString("Row" + rows.get(1).map())
        .isEqualTo(priced().rows().get(1));
  }

  @Test
  void beansHaveTheOrderOfTheirFields() {
    Table table = Tables.records(List.of(new Moisture(14, true), new Moisture(20, false)));
    assertThat(table.schema().names()).containsExactly("pct", "dry", "URL", "remark");
    List<Row> rows = Enrichment.of(table).build().rows();
    assertThat(rows.get(0).map().values()).containsExactly("14", "true", "14.1", "fine");
    assertThat(rows.get(1).truth("dry")).isFalse();
    assertThat(rows.get(1).get("remark")).isNull();
    assertThat(Tables.records(Moisture.class, List.of()).schema().names()).hasSize(4);
  }

  @Test
  void valuesOfJavaAreWhatTheCellsSay() {
    Row row =
        Enrichment.of(
                MemoryTable.of(
                        "t", "kg,n,day,at,ok,none", "1.50,7.0,03.07.2026,2026-07-03T08:15,TRUE,")
                    .typed("day", ColumnType.Kind.DATE, "dd.MM.yyyy"))
            .build()
            .rows()
            .get(0);
    assertThat(row.decimal("kg")).isEqualTo("1.50");
    assertThat(row.integer("n")).isEqualTo(7);
    assertThat(row.date("day")).isEqualTo("2026-07-03");
    assertThat(row.dateTime("at")).isEqualTo(LocalDateTime.of(2026, 7, 3, 8, 15));
    assertThat(row.truth("ok")).isTrue();
    assertThat(row.decimal("none")).isNull();
    assertThat(row.date("none")).isNull();
    assertThatThrownBy(() -> row.date("at"))
        .hasMessage("t, row 1, column \"at\": \"2026-07-03T08:15\" is not a date alone");
    assertThatThrownBy(() -> row.get("kgs"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("t has no column \"kgs\"; did you mean \"kg\"?");
    assertThatThrownBy(() -> row.integer("kg"))
        .isInstanceOfSatisfying(
            DataException.class,
            e -> {
              assertThat(e.table()).isEqualTo("t");
              assertThat(e.row()).isEqualTo(1);
              assertThat(e.column()).isEqualTo("kg");
            });
  }

  private record Wrong(Object kg) {}

  private record Primitive(int grower) {}

  private record Absent(String grover) {}

  @Test
  void whatARecordCannotTakeIsNamed() {
    Row row = priced().rows().get(2);
    assertThatThrownBy(() -> row.as(Primitive.class))
        .hasMessageStartingWith(
            "Ticket, row 3, column \"grower\" is null, and component grower of");
    assertThatThrownBy(() -> row.as(Absent.class))
        .hasMessageContaining("no column for component \"grover\"; did you mean \"grower\"?");
    Table one = Tables.of(List.of("kg"), List.of(List.of("1")));
    assertThatThrownBy(() -> Enrichment.of(one).build().rows().get(0).as(Wrong.class))
        .hasMessageStartingWith(
            "component kg of Wrong is of type Object, which no cell becomes; use one");
    assertThatThrownBy(() -> Tables.records(List.of())).hasMessageContaining("state their class");
    assertThatThrownBy(() -> Tables.records(List.of(new Object()))).hasMessageContaining("getters");
    assertThatThrownBy(() -> Tables.of(List.of("a", "a"), List.of()))
        .isInstanceOf(SettingException.class)
        .hasMessage("rows: column \"a\" stands twice");
    Table ragged = Tables.of(List.of("a", "b"), List.of(List.of("1", "2"), List.of("3")));
    assertThatThrownBy(() -> Enrichment.of(ragged).build().rows())
        .isInstanceOf(DataException.class)
        .hasMessage("rows, row 2 has 1 cells, and there are 2 columns");
    assertThatThrownBy(() -> Tables.of(List.of("a"), null)).hasMessage("rows");
    assertThatThrownBy(() -> Enrichment.of(null)).hasMessage("transactions");
  }

  private static Table many(int rows) {
    return Tables.of(
        List.of("n"), IntStream.rangeClosed(1, rows).mapToObj(n -> List.of("" + n)).toList());
  }

  @Test
  void rowsComeInOrderForAnyNumberOfWorkers() {
    for (int workers = 1; workers <= 3; workers++) {
      Enrichment enrichment = Enrichment.of(many(20_000)).workers(workers).build();
      List<Long> taken = new ArrayList<>();
      RunRecord record = enrichment.forEach(row -> taken.add(row.integer("n")));
      assertThat(record.rowsOut()).isEqualTo(20_000);
      assertThat(taken).hasSize(20_000).isSorted();
      try (Stream<Row> rows = enrichment.stream()) {
        assertThat(rows.map(row -> row.integer("n"))).isEqualTo(taken);
      }
    }
  }

  @Test
  void aStreamThatIsClosedEndsItsRun() throws InterruptedException {
    try (Stream<Row> rows = Enrichment.of(many(200_000)).build().stream()) {
      assertThat(rows.limit(3).map(row -> row.get("n"))).containsExactly("1", "2", "3");
    }
    long until = System.nanoTime() + Duration.ofSeconds(20).toNanos();
    while (running() && System.nanoTime() < until) {
      Thread.sleep(20);
    }
    assertThat(running()).isFalse();
  }

  private static boolean running() {
    return Thread.getAllStackTraces().keySet().stream()
        .anyMatch(thread -> thread.getName().equals("able-twine rows"));
  }

  @Test
  void whatEndsARunComesBehindTheRowsBeforeIt() {
    List<List<@Nullable String>> cells = new ArrayList<>();
    for (int row = 0; row < 5_000; row++) {
      cells.add(Arrays.asList(row == 4_000 ? "x" : "1"));
    }
    Enrichment enrichment =
        Enrichment.of(Tables.of(List.of("n"), cells))
            .step(new Compute("m", "n * 2", Evaluation.STRICT))
            .build();
    Iterator<Row> rows = enrichment.stream().iterator();
    AtomicInteger before = new AtomicInteger();
    assertThatThrownBy(
            () ->
                rows.forEachRemaining(
                    row -> {
                      assertThat(row.get("m")).isEqualTo("2");
                      before.incrementAndGet();
                    }))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 4001");
    assertThat(before).as("rows before it").hasValue(4_000);
    assertThatThrownBy(
            () ->
                enrichment.forEach(
                    row -> {
                      throw new IllegalStateException("mine");
                    }))
        .hasMessage("mine");
  }

  /** Whoever gives rows may fail at one: those before it come first, and may fail before it. */
  @Test
  void rowsBeforeOneThatCannotBeGivenComeToo() {
    List<List<String>> cells = new ArrayList<>();
    for (int row = 1; row < 1_500; row++) {
      cells.add(List.of("" + row));
    }
    cells.add(List.of());
    Table ragged = Tables.of("t", List.of("n"), cells);
    for (int workers = 1; workers <= 3; workers++) {
      List<Long> taken = new ArrayList<>();
      Enrichment plain = Enrichment.of(ragged).workers(workers).build();
      assertThatThrownBy(() -> plain.forEach(row -> taken.add(row.integer("n"))))
          .isInstanceOf(DataException.class)
          .hasMessageStartingWith("t, row 1500 has 0 cells");
      assertThat(taken).hasSize(1_499).isSorted();
      Iterator<Row> stream = plain.stream().iterator();
      for (int row = 1; row < 1_500; row++) {
        assertThat(stream.next().integer("n")).isEqualTo(row);
      }
      assertThatThrownBy(stream::hasNext).hasMessageStartingWith("t, row 1500");
      Enrichment fails =
          Enrichment.of(ragged)
              .workers(workers)
              .step(new Compute("m", "1 / (n - 1200)", Evaluation.STRICT))
              .build();
      assertThatThrownBy(() -> fails.forEach(row -> {}))
          .as("of two failures that of the first row")
          .hasMessageContaining("row 1200");
    }
  }

  @Test
  void aLoadedLookupTakesRowsAndNamesWhatIsMissing() {
    var loaded = Lookup.in(GROWERS).key("grower", "code").bring("name").load();
    assertThat(loaded.find(priced().rows().get(0)).get("name")).isEqualTo("Moor");
    assertThat(loaded.find("G2").matched()).isTrue();
    assertThatThrownBy(() -> loaded.find("G1").get("nam"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("brings no \"nam\"; did you mean \"name\"?");
    assertThatThrownBy(() -> loaded.apply(Map.of("growr", "G1")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining(
            "no field \"grower\", by which is looked up; did you mean \"growr\"?");
    Map<String, @Nullable String> blank = new HashMap<>();
    blank.put("grower", null);
    assertThat(loaded.apply(blank).matched()).isFalse();
    var prices =
        Lookup.in(
                MemoryTable.of("p", "crop,kg,from", "wheat,1.5,01.07.2026")
                    .typed("from", ColumnType.Kind.DATE, "dd.MM.yyyy"))
            .key("crop")
            .bring("kg", "from")
            .load();
    assertThat(prices.find("wheat").decimal("kg")).isEqualTo("1.5");
    assertThat(prices.find("wheat").date("from")).isEqualTo("2026-07-01");
    assertThat(prices.find("oats").date("from")).isNull();
    assertThatThrownBy(() -> prices.find("wheat").integer("kg"))
        .hasMessage("p, row 1, column \"kg\": \"1.5\" is not a whole number of up to 18 digits");
  }
}
