package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.abletwine.MemoryTable;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.OneRow;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RowFilterTest {
  private static final Table TABLE =
      new MemoryTable("t.csv", List.of("status", "kg", "note", "Postal code"), List.of(), 4);

  private static boolean passes(String condition) {
    Expression filter = RowFilter.parse(condition, TABLE).start();
    filter.over(OneRow.of("open", "7.50", null, "100"));
    return filter.isTrue(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "status = 'open';true",
        "status <> 'open';false",
        "kg = 7.5;true",
        "kg > 7 and kg < 10;true",
        "kg between 7.5 and 8;true",
        "kg not between 1 and 2;true",
        "kg > -1;true",
        "status in ('open', 'new');true",
        "status not in ('open');false",
        "kg in (1, 7.50);true",
        "status like 'o%n';true",
        "status like '_pen';true",
        "status not like 'x%';true",
        "note is null;true",
        "note is not null;false",
        "note = 'x';false",
        "note <> 'x';false",
        "not (note = 'x');false",
        "note = 'x' or status = 'open';true",
        "note = 'x' and status = 'open';false",
        "note not in ('x');false",
        "\"Postal code\" = '100';true",
        "status > 5;false",
        "upper(status) = 'OPEN';true",
        "kg + 1 > 8;true",
        "coalesce(note, status) = 'open';true",
        "(status = 'shut' or kg >= 7) and not note is not null;true",
      })
  void followsIsoSql(String condition, boolean expected) {
    assertThat(passes(condition)).isEqualTo(expected);
  }

  @Test
  void whatIsNoConditionIsRefused() {
    assertRefused("status", "not a condition");
    assertRefused("statsu = 'open'", "did you mean \"status\"?", "at character 1");
    assertRefused("status = = 'x'", "cannot read");
    assertRefused("note is null and status", "not a condition", "status = 'yes'");
    assertRefused("uper(status) = 'OPEN'", "uper", "did you mean");
    assertRefused("kg + 1", "is a number where a condition is needed");
  }

  private static void assertRefused(String condition, String... parts) {
    assertThatThrownBy(() -> RowFilter.parse(condition, TABLE))
        .isInstanceOf(SettingException.class)
        .message()
        .contains(parts);
  }
}
