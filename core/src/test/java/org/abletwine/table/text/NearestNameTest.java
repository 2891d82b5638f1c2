package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class NearestNameTest {
  private static final List<String> NAMES = List.of("grower_no", "name", "district_code");

  @Test
  void findsWhatWasMeant() {
    assertThat(NearestName.of("Grower No", NAMES)).contains("grower_no");
    assertThat(NearestName.of("distict_code", NAMES)).contains("district_code");
    assertThat(NearestName.of("zzz", NAMES)).isEmpty();
  }

  @Test
  void listsTheNamesWhenNoneIsClose() {
    assertThat(NearestName.hint("zzz", NAMES))
        .isEqualTo("the names are grower_no, name, district_code");
  }
}
