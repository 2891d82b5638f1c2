package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Values as coordinates: in the same order as the values, and apart wherever these are. */
class CoordinatesTest {
  private static long at(Domain domain, String text) {
    // Amid other text, since a value is a slice of the text that was read.
    String around = "7" + text + "7";
    return domain.coordinate(Utf8.bytes(around), 1, 1 + Utf8.bytes(text).length);
  }

  /** Numbers of every size and fineness, written in every way. */
  private static String number(Random random) {
    BigDecimal value =
        switch (random.nextInt(6)) {
          case 0 -> BigDecimal.valueOf(random.nextLong(), random.nextInt(25));
          case 1 -> BigDecimal.valueOf(random.nextInt(41) - 20, random.nextInt(8));
          case 2 -> BigDecimal.valueOf(random.nextInt(5) - 2).add(new BigDecimal("1e-20"));
          case 3 -> BigDecimal.valueOf(random.nextInt(9) - 4).scaleByPowerOfTen(random.nextInt(30));
          case 4 -> BigDecimal.TEN.pow(random.nextInt(20)).subtract(BigDecimal.ONE);
          default -> BigDecimal.valueOf(random.nextInt(4_000) - 2_000, 3);
        };
    String text = random.nextInt(5) == 0 ? value.toString() : value.toPlainString();
    return switch (random.nextInt(6)) {
      case 0 -> " " + text;
      case 1 -> text.startsWith("-") ? text : "+" + text;
      case 2 -> text.startsWith("0.") ? text.substring(1) : text;
      default -> text;
    };
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 3, 9, 17})
  void numbersAreInOrder(int scale) {
    Random random = new Random(scale);
    Numbers domain = new Numbers(scale);
    List<String> theirs = new ArrayList<>(List.of("0"));
    List<String> ours = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      String text = number(random);
      BigDecimal value = new BigDecimal(text.strip()).stripTrailingZeros();
      // What a reference of this domain can hold: so many digits in all.
      if (value.scale() <= scale && value.precision() - value.scale() + scale <= 17) {
        theirs.add(text);
      }
      ours.add(text);
    }
    for (String their : theirs) {
      BigDecimal r = new BigDecimal(their.strip());
      long coordinate = at(domain, their);
      assertThat(coordinate % 2).isZero();
      assertThat(new BigDecimal(domain.show(coordinate))).isEqualByComparingTo(r);
      assertThat(domain.show(coordinate)).isEqualTo(r.stripTrailingZeros().toPlainString());
      for (String our : ours) {
        long other = at(domain, our);
        BigDecimal v = new BigDecimal(our.strip());
        assertThat(Long.compare(other, coordinate))
            .as("%s and %s", our, their)
            .isEqualTo(v.compareTo(r));
        assertThat(Math.abs(other)).isLessThan(Domain.FARTHEST);
        if (other % 2 == 0 && Math.abs(other) < Domain.FARTHEST / 4) {
          assertThat(new BigDecimal(domain.distance(other, coordinate)))
              .isEqualByComparingTo(v.subtract(r).abs());
        }
      }
    }
    assertThat(domain.noun()).isEqualTo("a number");
  }

  @ParameterizedTest
  @CsvSource(
      nullValues = "none",
      value = {
        "0, 0, 0",
        "9, 9, 0",
        "-9, -9, 0",
        "007, 7, 0",
        "1.50, 150, 2",
        "-.5, -5, 1",
        "5., 5, 0",
        "12345678901234567, 12345678901234567, 0",
        "1234567890123456.7, 12345678901234567, 1",
        ".12345678901234567, 12345678901234567, 17",
        "123456789012345678, none, 0",
        "12345678901234567.8, none, 0",
        "'', none, 0",
        "-, none, 0",
        "., none, 0",
        "-., none, 0",
        "1.2.3, none, 0",
        "+5, 5, 0",
        "--5, none, 0",
        "5-, none, 0",
        "1e5, none, 0",
        "' 5', none, 0",
        "/, none, 0",
        "':', none, 0",
        "1/, none, 0",
        "'1:', none, 0"
      })
  void plainNumbersArePackedWithTheirPlaces(String text, @Nullable Long digits, int places) {
    String around = "8" + text + "8";
    long plain = Numbers.plain(Utf8.bytes(around), 1, 1 + text.length());
    if (digits == null) {
      assertThat(plain).isEqualTo(Numbers.NOT_PLAIN);
    } else {
      assertThat(plain >> 5).isEqualTo(digits);
      assertThat(DecimalText.places(plain)).isEqualTo(places);
      assertThat(Numbers.parse(Utf8.bytes(around), 1, 1 + text.length()))
          .isEqualByComparingTo(BigDecimal.valueOf(digits, places));
    }
  }

  @Test
  void whatIsNoNumberHasNoCoordinate() {
    for (String text : List.of("", "x", "1x", "1e1001", "1".repeat(2_101), "\u0661")) {
      assertThat(at(new Numbers(2), text)).isEqualTo(Domain.UNFIT);
    }
    assertThat(Numbers.parse(Utf8.bytes("1".repeat(2_100)), 0, 2_100)).isNotNull();
    assertThat(Numbers.parse(Utf8.bytes("1".repeat(2_101)), 0, 2_101)).isNull();
  }

  private static LocalDateTime time(Random random, int places) {
    long unit = BigDecimal.TEN.pow(9 - places).longValueExact();
    int span = random.nextBoolean() ? 3 : 200_000_000;
    return LocalDateTime.of(2026, 7, 1, 0, 0)
        .plusSeconds(random.nextInt(2 * span) - span)
        .plusNanos(unit * random.nextInt((int) Math.min(50, 1_000_000_000 / unit)));
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 3, 6, 7, 9, 10})
  void timesAreInOrder(int places) {
    Random random = new Random(places);
    LocalDateTime from = LocalDateTime.of(2026, 7, 1, 0, 0);
    long origin = places > Times.MOST_PLACES ? from.toEpochSecond(ZoneOffset.UTC) : 0;
    Times domain = new Times(true, List.of(), places, origin);
    for (int i = 0; i < 3_000; i++) {
      LocalDateTime theirs = time(random, Math.min(9, places));
      LocalDateTime ours = random.nextInt(9) == 0 ? theirs : time(random, random.nextInt(10));
      if (places > 8 && Math.abs(Duration.between(from, theirs).toDays()) > 1_000) {
        theirs = from;
      }
      long coordinate = at(domain, theirs.toString());
      long other = at(domain, ours.toString());
      assertThat(coordinate % 2).isZero();
      assertThat(domain.show(coordinate)).isEqualTo(theirs.toString());
      assertThat(Long.signum(Long.compare(other, coordinate)))
          .as("%s and %s", ours, theirs)
          .isEqualTo(Integer.signum(ours.compareTo(theirs)));
      assertThat(Times.places(theirs)).isLessThanOrEqualTo(Math.min(9, places));
    }
  }

  @ParameterizedTest
  @CsvSource({
    "2026-07-01T00:00:00, 0",
    "2026-07-01T00:00:00.5, 1",
    "2026-07-01T00:00:00.05, 2",
    "2026-07-01T00:00:00.120, 2",
    "2026-07-01T00:00:00.100000001, 9",
    "2026-07-01T00:00:00.10000001, 8"
  })
  void aTimeHasSoManyPlaces(String time, int places) {
    assertThat(Times.places(LocalDateTime.parse(time))).isEqualTo(places);
  }

  @ParameterizedTest
  @CsvSource({
    "1, 0",
    "0.5, 0",
    "0.00001, 3",
    "0.000001, 4",
    "0.0000000001, 8",
    "1e-15, 9",
    "1e9, 0"
  })
  void aCountOfDaysHasSoManyPlacesOfASecond(String days, int places) {
    assertThat(Times.places(new BigDecimal(days))).isEqualTo(places);
  }

  @Test
  void timesFarAwayAreBeyondAndStillInOrder() {
    Times fine = new Times(true, List.of(), 9, 0);
    long span = Domain.FARTHEST / 2 / 1_000_000_000 - 1;
    LocalDateTime last = LocalDateTime.ofEpochSecond(span, 0, ZoneOffset.UTC);
    LocalDateTime first = LocalDateTime.ofEpochSecond(-span, 0, ZoneOffset.UTC);
    assertThat(at(fine, last.toString())).isEqualTo(2 * span * 1_000_000_000);
    assertThat(at(fine, last.plusSeconds(1).toString())).isEqualTo(Domain.FARTHEST - 1);
    assertThat(at(fine, first.toString())).isEqualTo(-2 * span * 1_000_000_000);
    assertThat(at(fine, first.minusSeconds(1).toString())).isEqualTo(-Domain.FARTHEST + 1);
    assertThat(at(fine, "2026-02-30")).isEqualTo(Domain.UNFIT);
    assertThat(at(fine, "x")).isEqualTo(Domain.UNFIT);
    assertThat(Times.span(9)).isEqualTo(Domain.FARTHEST / 4 / 1_000_000_000);
    assertThat(Times.span(0)).isEqualTo(Domain.FARTHEST / 4);
  }

  @Test
  void howFarDaysReach() {
    Times seconds = new Times(true, List.of(), 0, 0);
    assertThat(seconds.reach(BigDecimal.ONE)).isEqualTo(2 * 86_400);
    assertThat(seconds.reach(new BigDecimal("0.00002"))).as("1.728 s").isEqualTo(2);
    assertThat(new Times(true, List.of(), 3, 0).reach(new BigDecimal("0.00002"))).isEqualTo(3456);
    assertThat(seconds.reach(new BigDecimal("1e30"))).isEqualTo(Domain.FARTHEST);
  }

  @ParameterizedTest
  @CsvSource({
    "false, 0, 2026-07-01, 2026-07-01, 0 days",
    "false, 0, 2026-07-01, 2026-07-02, 1 day",
    "false, 0, 2026-07-09, 2026-07-01, 8 days",
    "true, 0, 2026-07-01T00:00:00, 2026-07-01T00:00:01, 1 second",
    "true, 0, 2026-07-01T00:00:00, 2026-07-01T00:59:59, 3599 seconds",
    "true, 0, 2026-07-01T00:00:00, 2026-07-01T01:00:00, 0.04 days",
    "true, 0, 2026-07-01T00:00:00, 2026-07-02T12:00:00, 1.5 days",
    "true, 3, 2026-07-01T00:00:00, 2026-07-01T00:00:00.025, 0.025 seconds",
    "true, 4, 2026-07-01T00:00:00, 2026-07-01T00:00:00.0251, 0.026 seconds"
  })
  void distancesAreInWords(boolean withTime, int places, String one, String other, String words) {
    Times domain = new Times(withTime, List.of(), places, 0);
    assertThat(domain.distance(at(domain, one), at(domain, other))).isEqualTo(words);
    assertThat(domain.noun()).isEqualTo(withTime ? "a date and time" : "a date");
    assertThat(domain.show(at(domain, "2026-07-01")))
        .isEqualTo(withTime ? "2026-07-01T00:00" : "2026-07-01");
  }

  @Test
  void daysOfOtherPatternsAreReadByThem() {
    Times domain = new Times(false, List.of("dd.MM.yyyy"), 0, 0);
    assertThat(domain.isDay(Utf8.bytes("2026-07-01"), 0, 10)).isFalse();
    assertThat(domain.show(at(domain, "01.07.2026"))).isEqualTo("2026-07-01");
    Times iso = new Times(false, List.of(), 0, 0);
    assertThat(iso.isDay(Utf8.bytes("x2026-07-01"), 1, 11)).isTrue();
    assertThat(iso.isDay(Utf8.bytes("2026-07-32"), 0, 10)).isFalse();
    assertThat(iso.isDay(Utf8.bytes("2026-07-01T00:00"), 0, 16)).isFalse();
  }
}
