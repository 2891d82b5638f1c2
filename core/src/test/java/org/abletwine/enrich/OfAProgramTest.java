package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.DataException;
import org.abletwine.table.Row;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What programs ask for beside rows: large numbers, progress, options, what things are called. */
class OfAProgramTest {
  private record Load(@Nullable BigInteger grains) {}

  private static Row row(@Nullable String grains) {
    List<@Nullable String> cells = new ArrayList<>();
    cells.add(grains);
    return Enrichment.of(Tables.of("loads", List.of("grains"), List.of(cells)))
        .build()
        .rows()
        .get(0);
  }

  @Test
  void wholeNumbersOfAnySize() {
    String many = "123456789012345678901234567890";
    assertThat(row(many).as(Load.class).grains()).isEqualTo(new BigInteger(many));
    assertThat(row("12.0").as(Load.class).grains()).isEqualTo(12);
    assertThat(row(null).as(Load.class).grains()).isNull();
    assertThatThrownBy(() -> row("12.5").as(Load.class))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("loads, row 1, column \"grains\": \"12.5\" is not a whole number");
  }

  @Test
  void progressIsToldOfTablesThatAreRead() {
    Table loads = Tables.of("loads", List.of("k"), List.of(List.of("a"), List.of("b")));
    Table sites = Tables.of("sites", List.of("k", "name"), List.of(List.of("a", "Mill")));
    List<String> told = new ArrayList<>();
    Enrichment.of(loads)
        .lookup(Lookup.in(sites).key("k").bring("name"))
        .progress(
            (table, bytes, rows) -> {
              told.add("read " + table.name());
              return () -> told.add(table.name() + " " + rows.getAsLong());
            })
        .build()
        .writeTo(new ListSink());
    assertThat(told).containsExactly("read sites", "sites 1", "read loads", "loads 2");
  }

  @Test
  void optionsAreKept() {
    TableOptions options = TableOptions.builder().header(false).encoding("windows-1252").build();
    assertThat(options.header()).isFalse();
    assertThat(options.encoding()).isEqualTo("windows-1252");
  }

  @Test
  void whatIsLoadedSaysWhatItIs() {
    Table sites = Tables.of("sites", List.of("k", "name"), List.of(List.of("a", "Mill")));
    assertThat(Lookup.in(sites).key("site", "k").bring("name").load())
        .hasToString("LoadedLookup[sites by [site]]");
  }
}
