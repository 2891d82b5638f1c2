package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.MemoryTable;
import org.abletwine.audit.RecordFinder.Found;
import org.abletwine.key.Normalise;
import org.junit.jupiter.api.Test;

/** One record by its key, what a key can still be, and near misses. */
class RecordFinderTest {
  private final MemoryTable grades =
      MemoryTable.of(
          "grades",
          "commodity,grade,name",
          "oats,M1,Milling",
          "oats,F1,Feed",
          "Oats,F2,Feed two",
          "wheat,M1,Hard",
          "wheat,,Ungraded");

  private Found find(Map<String, String> given, String... open) {
    return new RecordFinder(grades, List.of(Normalise.trim(), Normalise.ignoreCase()))
        .find(given, List.of(open), 2);
  }

  private static Map<String, String> given(String... pairs) {
    Map<String, String> given = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      given.put(pairs[i], pairs[i + 1]);
    }
    return given;
  }

  @Test
  void aWholeKeyGivesItsRecord() {
    Found found = find(given("commodity", " OATS", "grade", "f2"));
    assertThat(found.rows()).isEqualTo(1);
    assertThat(found.records()).containsOnlyKeys(3L);
    assertThat(found.records().get(3L)).containsExactly("Oats", "F2", "Feed two");
    assertThat(found.nearMisses()).isEmpty();
  }

  @Test
  void anOpenPartGivesWhatItCanStillBe() {
    Found found = find(given("commodity", "oats"), "grade");
    assertThat(found.rows()).isEqualTo(3);
    assertThat(found.records()).as("no more than asked for").hasSize(2);
    assertThat(found.choices().get("grade"))
        .extracting(choice -> choice.value() + " " + choice.rows())
        .containsExactlyInAnyOrder("M1 1", "F1 1", "F2 1");
    assertThat(find(given("commodity", "wheat"), "grade").choices().get("grade"))
        .extracting(choice -> choice.value() + " " + choice.rows())
        .containsExactlyInAnyOrder("M1 1", "null 1");
  }

  @Test
  void nothingGivenLeavesEverythingOpenMostFrequentFirst() {
    Found found = find(given(), "grade");
    assertThat(found.rows()).isEqualTo(5);
    assertThat(found.choices().get("grade").get(0).value()).isEqualTo("M1");
    assertThat(found.choices().get("grade").get(0).rows()).isEqualTo(2);
  }

  @Test
  void aValueThatStandsNowhereGivesItsNearMisses() {
    Found found = find(given("commodity", "weat"));
    assertThat(found.rows()).isZero();
    assertThat(found.nearMisses().get("commodity").get(0).key()).isEqualTo("wheat");
    assertThat(found.apart()).isFalse();
  }

  @Test
  void valuesThatNeverStandTogetherAreToldApart() {
    Found found = find(given("commodity", "wheat", "grade", "F1"));
    assertThat(found.rows()).isZero();
    assertThat(found.nearMisses()).isEmpty();
    assertThat(found.apart()).isTrue();
  }
}
