package org.abletwine.match.near;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.match.NearMiss;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a person would name comes first, and is clear only where nothing else is as near. */
class NearSearchTest {
  private static final List<String> PLACES =
      List.of(
          "Merrow Bank International Depot",
          "Merrow Bank Silo",
          "Calder Hollow Silo",
          "Brönnfeld Siding",
          "Saint Osier Weighbridge",
          "Upper Tamsin Depot",
          "Tamsin Silo 4",
          "Tamsin Silo 5",
          "Department of Marram Point",
          "Larkfield & Fenwick Store",
          "Oxley",
          "Pennet Hollow Elevator");

  private static List<NearMiss> near(List<String> keys, String key) {
    return new NearKeys(keys).search().nearest(key, 3);
  }

  @ParameterizedTest
  @CsvSource({
    "MERROW BANK SILO, Merrow Bank Silo",
    "merow bank silo, Merrow Bank Silo",
    "Merrow Bank Intl Depot, Merrow Bank International Depot",
    "Bronnfeld, Brönnfeld Siding",
    "broennfeld siding, Brönnfeld Siding",
    "St Osier Weighbridge, Saint Osier Weighbridge",
    "St. Osier, Saint Osier Weighbridge",
    "Upr Tamsin Depot, Upper Tamsin Depot",
    "Tamsin 5, Tamsin Silo 5",
    "Tamsin Silo 04, Tamsin Silo 4",
    "Dept. Marram Point, Department of Marram Point",
    "Fenwick and Larkfield, Larkfield & Fenwick Store",
    "Hollow Calder, Calder Hollow Silo",
    "CalderHollow Silo, Calder Hollow Silo",
    "Oxley Depot, Oxley",
    "Pennet Hollow, Pennet Hollow Elevator",
    "Penent Hollw Elevator, Pennet Hollow Elevator"
  })
  void theOneMeantComesFirst(String key, String meant) {
    List<NearMiss> near = near(PLACES, key);
    assertThat(near).isNotEmpty();
    assertThat(near.get(0).key()).isEqualTo(meant);
    assertThat(near.get(0).weak()).as("%s", near).isFalse();
  }

  @ParameterizedTest
  @CsvSource({
    "1204, '1240 1304 9999', 1240",
    "G1024, 'G1025 H9999 K3333', G1025",
    "324R, '000324R 000325R 99', 000324R",
    "WV-100204-17, 'WV-100294-17 WV-555555-17 WV-100204-88', WV-100294-17",
    "PEN-2, 'PEN MAR TAN', PEN",
    "12045678, '1204567 22045678x 77777777', 1204567"
  })
  void codesGoByTheirEdits(String key, String keys, String meant) {
    assertThat(near(List.of(keys.split(" ")), key).get(0).key()).isEqualTo(meant);
  }

  @Test
  void likenessIsOneWhereOnlyFormsDiffer() {
    NearMiss same = near(PLACES, " merrow-bank   SILO.").get(0);
    assertThat(same.likeness()).isEqualTo(1);
    assertThat(same.clear()).isTrue();
    NearMiss swapped = near(PLACES, "Silo Merrow Bank").get(0);
    assertThat(swapped.likeness()).isEqualTo(0.98, within(1e-9));
    NearMiss slip = near(PLACES, "Merrow Bank Siol").get(0);
    assertThat(slip.likeness()).isBetween(0.8, 0.97);
  }

  @Test
  void whatIsAsNearAsAnotherIsNotClear() {
    List<NearMiss> near = near(PLACES, "Tamsin Silo");
    assertThat(near.get(0).clear()).isFalse();
    assertThat(near).extracting(NearMiss::key).contains("Tamsin Silo 4", "Tamsin Silo 5");
    assertThat(near(List.of("ABC", "abc"), "Abc").get(0).clear()).isFalse();
    // One digit off in a list that has most numbers means nothing.
    List<String> dense = new ArrayList<>();
    for (int i = 0; i < 10_000; i += 7) {
      dense.add(String.format("%04d", i));
    }
    assertThat(near(dense, "0015").get(0).clear()).isFalse();
  }

  @Test
  void otherNumbersAreOtherThings() {
    List<NearMiss> near = near(List.of("Merrow Bank 12", "Merrow Bench"), "Merrow Bank 13");
    assertThat(near.get(0).clear()).isFalse();
    assertThat(near.get(0).likeness()).isLessThan(0.7);
  }

  @Test
  void whatEveryKeyHasCarriesNothing() {
    List<String> keys = new ArrayList<>();
    for (String first : List.of("Thistle", "Merrow", "Calder", "Osier", "Brindle", "Hollin")) {
      keys.add(first + " Growers Cooperative Limited");
    }
    List<NearMiss> near = near(keys, "Quarry Growers Cooperative Limited");
    assertThat(near).allMatch(miss -> !miss.clear());
    assertThat(near(keys, "Thistel").get(0).key()).startsWith("Thistle");
  }

  @Test
  void nothingIsPressedOnWhatSharesNothing() {
    assertThat(near(PLACES, "Zzyzx")).isEmpty();
    assertThat(near(PLACES, "")).isEmpty();
    assertThat(near(List.of(), "Oxley")).isEmpty();
    assertThat(near(PLACES, "Kestrel Gorse")).allMatch(NearMiss::weak);
  }

  @Test
  void ofSeveralPartsTheOneThatDisagreesIsCompared() {
    String part = String.valueOf(NearKeys.PART);
    List<String> keys = List.of("wheat" + part + "M1", "wheat" + part + "F1", "oats" + part + "M1");
    List<String> shown = List.of("wheat | M1", "wheat | F1", "oats | M1");
    NearSearch search = new NearKeys(keys, shown).search();
    List<NearMiss> near = search.nearest("wheta" + part + "M1", 3);
    assertThat(near.get(0).key()).isEqualTo("wheat | M1");
    assertThat(near.get(0).clear()).isTrue();
    // Never as joined text.
    assertThat(search.nearest("whea" + part + "tM1", 3).get(0).likeness()).isLessThan(0.8);
    assertThatThrownBy(() -> new NearKeys(keys, List.of("a")))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void otherScriptsAreComparedToo() {
    List<String> keys =
        List.of(
            "\u041c\u0435\u0440\u0440\u043e\u0443",
            "\u041a\u0430\u043b\u0434\u0435\u0440",
            "\u6771\u4eac\u5009\u5eab",
            "\u5927\u962a\u5009\u5eab");
    assertThat(near(keys, "\u043c\u0435\u0440\u043e\u0443").get(0).key()).isEqualTo(keys.get(0));
    assertThat(near(keys, "\u6771\u4eac \u5009\u5eab").get(0).key()).isEqualTo(keys.get(2));
  }

  /** The same for any number of threads, and whatever was searched for before. */
  @Test
  void manyAtOnceAreTheSameAsOneByOne() {
    Random random = new Random(7);
    List<String> keys = new ArrayList<>();
    for (int i = 0; i < 3_000; i++) {
      keys.add(word(random) + " " + word(random) + " " + random.nextInt(50));
    }
    List<String> wanted = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      String key = keys.get(random.nextInt(keys.size()));
      int at = random.nextInt(key.length());
      wanted.add(key.substring(0, at) + "x" + key.substring(at + 1));
    }
    NearKeys near = new NearKeys(keys);
    List<List<NearMiss>> all = near.nearest(wanted, 3);
    NearSearch again = near.search();
    for (int i = 0; i < wanted.size(); i++) {
      assertThat(all.get(i)).isEqualTo(near.search().nearest(wanted.get(i), 3));
      assertThat(again.nearest(wanted.get(i), 3)).isEqualTo(all.get(i));
    }
  }

  private static String word(Random random) {
    StringBuilder word = new StringBuilder();
    for (int i = 3 + random.nextInt(5); i > 0; i--) {
      word.append((char) ('a' + random.nextInt(8)));
    }
    return word.toString();
  }
}
