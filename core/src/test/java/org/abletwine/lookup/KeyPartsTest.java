package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.abletwine.key.Normalise;
import org.abletwine.table.ColumnType;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.junit.jupiter.api.Test;

/** Parts of keys, and options of tables, in one line each. */
class KeyPartsTest {
  @Test
  void eachRuleHasALineThatIsWhatAPlanWrites() {
    Map<String, KeyPart> lines =
        Map.of(
            "day at-or-below from", KeyPart.atOrBelow("day", "from"),
            "day at-or-above from", KeyPart.atOrAbove("day", "from"),
            "day nearest from", KeyPart.nearest("day", "from"),
            "text starts-with beginning", KeyPart.startsWith("text", "beginning"),
            "text contains word", KeyPart.contains("text", "word"),
            "text wildcard pattern", KeyPart.wildcard("text", "pattern"),
            "text regex pattern", KeyPart.regex("text", "pattern"),
            "code listed codes", KeyPart.listed("code", "codes"),
            "name similar title", KeyPart.similar("name", "title", 0.9),
            "pct between low and high", KeyPart.between("pct", "low", "high"));
    lines.forEach((text, part) -> assertThat(part).isEqualTo(KeyPart.parse(text)));
  }

  @Test
  void distancesAndStepsOfAPart() {
    KeyPart part = KeyPart.atOrBelow("day", "from").within(14).normalised(Normalise.trim());
    assertThat(part.match().within()).isEqualTo(BigDecimal.valueOf(14));
    assertThat(part.normalise()).containsExactly(Normalise.trim());
    assertThat(part.ours()).isEqualTo("day");
    assertThatThrownBy(() -> KeyPart.contains("a", "b").within(1))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessage("a contains b has no distance");
  }

  @Test
  void optionsAreWhatIsStatedAndElseFoundFromTheData() {
    assertThat(TableOptions.builder().build()).isEqualTo(TableOptions.NONE);
    TableOptions options =
        TableOptions.builder()
            .delimiter(';')
            .nulls(List.of("n/a"))
            .type("kg", ColumnType.of(ColumnType.Kind.NUMBER))
            .type("day", ColumnType.of(ColumnType.Kind.DATE))
            .build();
    assertThat(options.delimiter()).isEqualTo(';');
    assertThat(options.types()).containsOnlyKeys("kg", "day");
    assertThat(options.but().delimiter(null).nulls(List.of()).types(Map.of()).build())
        .isEqualTo(TableOptions.NONE);
    assertThatThrownBy(() -> TableOptions.builder().quote('»').build())
        .isInstanceOf(SettingException.class);
  }
}
