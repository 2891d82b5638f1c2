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
  void aNameWithinAnotherIsClose() {
    assertThat(NearestName.of("kgs", List.of("total of all kgs", "x")))
        .contains("total of all kgs");
    assertThat(NearestName.of("my kgs of all", List.of("x", "kgs"))).contains("kgs");
    assertThat(NearestName.of("ab", List.of("zzzzabzzzz"))).as("two letters").isEmpty();
    assertThat(NearestName.of("zzzzabzzzz", List.of("ab"))).isEmpty();
    assertThat(NearestName.of("price", List.of("the price of it", "prices"))).contains("prices");
  }

  @Test
  void listsTheNamesWhenNoneIsClose() {
    assertThat(NearestName.hint("zzz", NAMES))
        .isEqualTo("the names are grower_no, name, district_code");
    assertThat(NearestName.hint("nam", NAMES)).isEqualTo("did you mean \"name\"?");
    assertThat(NearestName.hint("zzz", List.of())).isEqualTo("the names are (none)");
    List<String> twelve = List.of("a b c d e f g h i j k l".split(" "));
    assertThat(NearestName.hint("zzz", twelve)).endsWith(", k, l");
    List<String> more = List.of("a b c d e f g h i j k l m n".split(" "));
    assertThat(NearestName.hint("zzz", more)).endsWith(", k, l and 2 more");
  }
}
