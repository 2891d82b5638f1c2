package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.MemoryTable;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How dates and numbers of a column are written, told from its values. */
class WrittenFormsTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "03.07.2026;31.12.2025|{ date: dd.MM.yyyy }",
        "3.7.2026;31.12.2025|{ date: d.M.yyyy }",
        "03/07/2026;31/12/2025|{ date: dd/MM/yyyy }",
        "07/03/2026;12/31/2025|{ date: MM/dd/yyyy }",
        "03/07/2026;02/12/2025|{ date: dd/MM/yyyy };{ date: MM/dd/yyyy }",
        "3 Jul 2026;12 May 2025|{ date: d MMM yyyy }",
        "3 July 2026;12 May 2025|{ date: d MMMM yyyy }",
        "03.07.2026 14:05;31.12.2025 00:00|{ date-time: \"dd.MM.yyyy HH:mm\" }",
        "1.234,5;7,25|{ decimal: \"1.234,56\" }",
        "1 234,5;7,25|{ decimal: \"1 234,56\" }",
        "1,234.5;7.25|{ decimal: \"1,234.56\" }",
        "1,234;7|{ decimal: \"1.234,56\" };{ decimal: \"1,234.56\" }",
        "03.07.2026;n/a;-;31.12.2025|{ date: dd.MM.yyyy }",
        "03.07.2026;soon|",
        "31.02.2026;01.01.2026|",
        "n/a;-|",
        "2026-07-03;2025-12-31|",
        "7.25;1|",
        "1.234;1.234,5|{ decimal: \"1.234,56\" }",
        "1.23;1.234,5|",
        "1234.567;1.234,5|",
        "1.234;1,234.5|{ decimal: \"1,234.56\" }",
        "2026-07-03;03.07.2026|",
        "20260703;03.07.2026|"
      })
  void areToldFromAllValues(String values, String expected) {
    List<@Nullable String[]> cells = new ArrayList<>();
    for (String value : values.split(";")) {
      cells.add(new @Nullable String[] {value});
    }
    MemoryTable table = new MemoryTable("t", List.of("c"), cells, 3);
    TableProfile.Column column = TableProfile.of(table).columns().get(0);
    assertThat(String.join(";", column.written())).isEqualTo(expected == null ? "" : expected);
    boolean one = column.written().size() == 1;
    if (!column.written().isEmpty()) {
      assertThat(column.stated()).isEqualTo(one ? column.written().get(0) : null);
    }
  }
}
