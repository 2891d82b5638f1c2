package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.Map;
import org.abletwine.MemoryTable;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What a lookup gives for one record, by the types of what it brings. */
class LookupResultTest {
  private static LoadedLookup prices() {
    MemoryTable table =
        MemoryTable.of(
                "prices",
                "crop,price,lots,since,seen,note",
                "rye,4.10,12,03.02.2026,2026-02-03T04:05,x",
                "oats,,,,,")
            .typed("since", ColumnType.Kind.DATE, "dd.MM.yyyy");
    return Lookup.in(table).key("crop").bring("price", "lots", "since", "seen", "note").load();
  }

  @Test
  void valuesAreOfTheirTypes() {
    LoadedLookup.Result rye = prices().find("rye");
    assertThat(rye.matched()).isTrue();
    assertThat(rye.decimal("price")).isEqualTo(new BigDecimal("4.10"));
    assertThat(rye.integer("lots")).isEqualTo(12L);
    assertThat(rye.date("since")).as("by the pattern").isEqualTo(LocalDate.of(2026, 2, 3));
    assertThat(rye.dateTime("seen")).isEqualTo(LocalDateTime.of(2026, 2, 3, 4, 5));
    assertThat(rye.get("note")).isEqualTo("x");
    assertThat(rye.attributes())
        .containsExactly(
            Map.entry("price", "4.10"),
            Map.entry("lots", "12"),
            Map.entry("since", "03.02.2026"),
            Map.entry("seen", "2026-02-03T04:05"),
            Map.entry("note", "x"));
    assertThatThrownBy(() -> rye.decimal("note"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("prices, row 1, column \"note\"");
  }

  @Test
  void whatIsNullIsNull() {
    LoadedLookup.Result oats = prices().find("oats");
    assertThat(oats.matched()).isTrue();
    assertThat(oats.decimal("price")).isNull();
    assertThat(oats.integer("lots")).isNull();
    assertThat(oats.date("since")).isNull();
    assertThat(oats.dateTime("seen")).isNull();
    LoadedLookup.Result peas = prices().find("peas");
    assertThat(peas.matched()).isFalse();
    assertThat(peas.get("price")).isNull();
    assertThat(peas.reference()).isEmpty();
    assertThatThrownBy(() -> peas.get("prize"))
        .isInstanceOf(SettingException.class)
        .hasMessage("the lookup brings no \"prize\"; did you mean \"price\"?");
  }

  @Test
  void onesOwnKeepsItsAttributes() {
    Map<String, @Nullable String> attributes = new HashMap<>(Map.of("price", "5"));
    attributes.put("unit", null);
    LoadedLookup.Result own = new LoadedLookup.Result(Outcome.MATCHED, "prices", 3, attributes);
    attributes.clear();
    assertThat(own.decimal("price")).isEqualTo(new BigDecimal("5"));
    assertThat(own.get("unit")).isNull();
    assertThatThrownBy(() -> own.get("units")).hasMessageContaining("did you mean \"unit\"?");
    assertThatThrownBy(() -> own.attributes().put("a", "b"))
        .isInstanceOf(UnsupportedOperationException.class);
  }
}
