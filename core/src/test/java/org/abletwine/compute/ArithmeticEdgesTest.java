package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.LongStream;
import org.abletwine.table.text.DecimalText;
import org.junit.jupiter.api.Test;

/**
 * Arithmetic where a long is just full and just not: every pair of numbers at such an edge, with
 * every pair of scales, number by number and as columns, against big decimals.
 */
class ArithmeticEdgesTest {
  private static final long QUARTER = Long.MAX_VALUE / 4;
  private static final long[] EDGES =
      LongStream.of(
              0,
              1,
              2,
              3,
              4,
              5,
              7,
              9,
              10,
              12,
              15,
              45,
              49,
              50,
              51,
              95,
              100,
              149,
              150,
              1_000,
              4_999,
              5_000,
              1L << 31,
              3_037_000_499L,
              3_037_000_500L,
              999_999_999_999L,
              1_000_000_000_000L,
              QUARTER / 100,
              QUARTER / 100 + 1,
              QUARTER / 10,
              QUARTER / 10 + 1,
              QUARTER - 1,
              QUARTER,
              QUARTER + 1,
              Long.MAX_VALUE / 20,
              Long.MAX_VALUE / 20 + 1,
              Long.MAX_VALUE / 10,
              Long.MAX_VALUE / 10 + 1,
              1_000_000_000_000_000_000L,
              Long.MAX_VALUE / 2,
              Long.MAX_VALUE / 2 + 1,
              Long.MAX_VALUE - 1,
              Long.MAX_VALUE)
          .flatMap(n -> LongStream.of(n, -n))
          .toArray();
  private static final int[] SCALES = {0, 1, 2, 3, 9, 12, 13, 17, 18};

  private static Values of(BigDecimal... numbers) {
    Values values = new Values();
    values.prepare(numbers.length, Kind.NUMBER);
    for (int row = 0; row < numbers.length; row++) {
      values.number(row, numbers[row]);
    }
    return values;
  }

  private static Values shared(int places, long... digits) {
    Values values = new Values();
    values.prepare(digits.length, Kind.NUMBER);
    for (int row = 0; row < digits.length; row++) {
      values.number(row, digits[row], places);
    }
    values.survey(digits.length);
    return values;
  }

  private static Values empty(int rows) {
    Values values = new Values();
    values.prepare(rows, Kind.NUMBER);
    return values;
  }

  private static BigDecimal quotient(BigDecimal a, BigDecimal b) {
    BigDecimal bare =
        a.divide(b, Math.max(Decimals.QUOTIENT_PLACES, a.scale()), RoundingMode.HALF_UP)
            .stripTrailingZeros();
    return bare.setScale(Math.max(bare.scale(), Math.max(0, a.scale())));
  }

  private interface Pair {
    void of(BigDecimal a, BigDecimal b, Values x, Values y);
  }

  private static void pairs(Pair each) {
    List<BigDecimal> numbers = new ArrayList<>();
    for (long edge : EDGES) {
      for (int scale : SCALES) {
        numbers.add(BigDecimal.valueOf(edge, scale));
      }
    }
    numbers.add(BigDecimal.valueOf(Long.MIN_VALUE));
    numbers.add(BigDecimal.valueOf(Long.MIN_VALUE, 18));
    numbers.add(new BigDecimal("-123456789012345678901234.5"));
    numbers.add(new BigDecimal("1e25"));
    numbers.add(new BigDecimal("0.0000000000000000000000001"));
    List<Values> held = new ArrayList<>();
    numbers.forEach(n -> held.add(of(n)));
    for (int i = 0; i < numbers.size(); i++) {
      // Every seventh of the others, from another one on each time: all of them in the end.
      for (int j = i % 7; j < numbers.size(); j += 7) {
        each.of(numbers.get(i), numbers.get(j), held.get(i), held.get(j));
      }
    }
  }

  private static boolean fits(BigDecimal value) {
    return value.scale() >= 0
        && value.scale() <= Decimals.MOST_PLACES
        && value.unscaledValue().bitLength() < Long.SIZE;
  }

  private static void check(
      Values out, BigDecimal wanted, String what, BigDecimal a, BigDecimal b) {
    if (!out.number(0).equals(wanted) || out.isWide(0) == fits(wanted)) {
      assertThat(out.number(0)).as("%s %s %s", a, what, b).isEqualTo(wanted);
      assertThat(out.isWide(0)).as("%s %s %s is wide", a, what, b).isEqualTo(!fits(wanted));
    }
  }

  /** Whether a number fits a long with the places of another too. */
  private static boolean fitsWith(BigDecimal a, BigDecimal b) {
    BigDecimal scaled = a.setScale(Math.max(a.scale(), b.scale()), RoundingMode.UNNECESSARY);
    return fits(a) && fits(b) && fits(scaled);
  }

  /** Runs something; it goes the short way where that is possible, and only there. */
  private static void goes(boolean shortWay, String what, Runnable run) {
    long before = LongWay.count();
    run.run();
    if (LongWay.count() - before != (shortWay ? 0 : 1)) {
      assertThat(LongWay.count() - before).as(what).isEqualTo(shortWay ? 0 : 1);
    }
  }

  @Test
  void sumsDifferencesAndProducts() {
    Values out = empty(1);
    BigDecimal least = BigDecimal.valueOf(Long.MIN_VALUE);
    pairs(
        (a, b, x, y) -> {
          boolean both = fitsWith(a, b) && fitsWith(b, a);
          out.prepare(1, Kind.NUMBER);
          boolean sum = both && fits(a.add(b));
          goes(sum, a + " + " + b, () -> Decimals.add(x, y, false, out, 0));
          check(out, a.add(b), "+", a, b);
          out.prepare(1, Kind.NUMBER);
          boolean opposite = fits(b) && !b.unscaledValue().equals(least.unscaledValue());
          boolean difference = both && opposite && fits(a.subtract(b));
          goes(difference, a + " - " + b, () -> Decimals.add(x, y, true, out, 0));
          check(out, a.subtract(b), "-", a, b);
          out.prepare(1, Kind.NUMBER);
          boolean product = fits(a) && fits(b) && fits(a.multiply(b));
          goes(product, a + " * " + b, () -> Decimals.multiply(x, y, out, 0));
          check(out, a.multiply(b), "*", a, b);
          int[] order = new int[1];
          goes(both, a + " <> " + b, () -> order[0] = Decimals.compare(x, y, 0));
          assertThat(Integer.signum(order[0])).isEqualTo(a.compareTo(b));
        });
  }

  @Test
  void quotients() {
    Values out = empty(1);
    pairs(
        (a, b, x, y) -> {
          if (b.signum() != 0) {
            out.prepare(1, Kind.NUMBER);
            Decimals.divide(x, y, out, 0);
            check(out, quotient(a, b), "/", a, b);
          }
        });
  }

  @Test
  void rounding() {
    Values out = empty(1);
    for (long edge : EDGES) {
      for (int scale : SCALES) {
        BigDecimal a = BigDecimal.valueOf(edge, scale);
        for (int places = -3; places <= 20; places++) {
          for (RoundingMode mode :
              List.of(RoundingMode.HALF_UP, RoundingMode.FLOOR, RoundingMode.CEILING)) {
            out.prepare(1, Kind.NUMBER);
            boolean within = places >= 0 && places <= Decimals.MOST_PLACES;
            boolean more = places >= scale && within && fits(a.setScale(places));
            boolean fewer = places < scale && within && mode == RoundingMode.HALF_UP;
            int to = places;
            goes(more || fewer, a + " to " + places, () -> Decimals.round(of(a), 0, to, mode, out));
            BigDecimal wanted = a.setScale(places, mode);
            check(out, places < 0 ? wanted.setScale(0) : wanted, mode + " " + places, a, a);
          }
        }
      }
    }
  }

  @Test
  void powersOfTen() {
    long power = 1;
    for (int i = 0; i <= 18; i++, power *= 10) {
      assertThat(DecimalText.power(i)).isEqualTo(power);
      assertThat(Decimals.powerOfTen(power)).isEqualTo(i);
      assertThat(Decimals.powerOfTen(-power)).isEqualTo(-1);
      assertThat(Decimals.powerOfTen(power + 1)).isEqualTo(-1);
      assertThat(Decimals.powerOfTen(power - 1)).isEqualTo(-1);
    }
  }

  @Test
  void aNumberIsTooLongOnlyBeyondItsDigitsOrPlaces() {
    BigDecimal digits = new BigDecimal("9".repeat(Decimals.MOST_DIGITS));
    assertThat(Decimals.tooLong(digits)).isFalse();
    assertThat(Decimals.tooLong(digits.add(BigDecimal.ONE))).isTrue();
    assertThat(Decimals.tooLong(BigDecimal.ONE.movePointLeft(Decimals.MOST_DIGITS))).isFalse();
    assertThat(Decimals.tooLong(BigDecimal.ONE.movePointLeft(Decimals.MOST_DIGITS + 1))).isTrue();
    assertThat(Decimals.tooLong(BigDecimal.ONE.scaleByPowerOfTen(Decimals.MOST_DIGITS))).isFalse();
    assertThat(Decimals.tooLong(BigDecimal.ONE.scaleByPowerOfTen(Decimals.MOST_DIGITS + 1)))
        .isTrue();
  }

  /** Whole columns: what they may do, and that whatever they do is right. */
  @Test
  void columnsOfOneScale() {
    for (long a : EDGES) {
      for (int scale : SCALES) {
        Values x = shared(scale, a, -a / 3, 0);
        for (long b : new long[] {0, 1, 4, 100, QUARTER / 1_000, QUARTER, -QUARTER, QUARTER + 1}) {
          for (int other : new int[] {0, 2, 18 - scale, Math.min(18, 19 - scale)}) {
            Values y = shared(other, b, -b, b / 7);
            columns(x, y);
          }
        }
        alone(x);
      }
    }
  }

  private static boolean may(Values a, Values b) {
    int places = Math.max(a.sharedScale, b.sharedScale);
    return a.greatest <= QUARTER / DecimalText.power(places - a.sharedScale)
        && b.greatest <= QUARTER / DecimalText.power(places - b.sharedScale);
  }

  private static void columns(Values x, Values y) {
    Values out = empty(3);
    boolean may = may(x, y);
    for (boolean subtract : new boolean[] {false, true}) {
      assertThat(SharedScale.add(x, y, subtract, out, 3)).isEqualTo(may);
      if (may) {
        is(
            out,
            row -> {
              BigDecimal b = y.number(row);
              return subtract ? x.number(row).subtract(b) : x.number(row).add(b);
            });
      }
    }
    boolean product =
        x.sharedScale + y.sharedScale <= Decimals.MOST_PLACES
            && x.greatest <= QUARTER / Math.max(1, y.greatest);
    assertThat(SharedScale.multiply(x, y, out, 3)).isEqualTo(product);
    if (product) {
      is(out, row -> x.number(row).multiply(y.number(row)));
    }
    for (int order = 0; order < 8; order++) {
      boolean less = (order & 1) != 0;
      boolean equal = (order & 2) != 0;
      boolean greater = (order & 4) != 0;
      assertThat(SharedScale.compare(x, y, less, equal, greater, out, 3)).isEqualTo(may);
      for (int row = 0; row < 3 && may; row++) {
        int sign = x.number(row).compareTo(y.number(row));
        assertThat(out.isTrue(row)).isEqualTo(sign < 0 ? less : sign == 0 ? equal : greater);
      }
    }
  }

  private static void alone(Values x) {
    for (int tens = 0; tens <= 13; tens++) {
      BigDecimal by = BigDecimal.TEN.pow(tens);
      boolean may = x.sharedScale + tens <= Decimals.QUOTIENT_PLACES;
      Values out = empty(3);
      assertThat(SharedScale.divide(x, tens, false, out, 3)).isEqualTo(may);
      if (may) {
        int places = x.sharedScale + tens;
        is(out, row -> x.number(row).divide(by, places, RoundingMode.UNNECESSARY));
      }
      out.prepare(3, Kind.NUMBER);
      assertThat(SharedScale.divide(x, tens, true, out, 3)).isEqualTo(may);
      for (int row = 0; row < 3 && may; row++) {
        assertThat(out.number(row)).isEqualTo(quotient(x.number(row), by));
      }
    }
    for (int places = -1; places <= 19; places++) {
      for (RoundingMode mode : List.of(RoundingMode.HALF_UP, RoundingMode.FLOOR)) {
        Values out = empty(3);
        int drop = x.sharedScale - places;
        boolean may =
            places >= 0
                && places <= Decimals.MOST_PLACES
                && (drop <= 0
                    ? x.greatest <= QUARTER / DecimalText.power(-drop)
                    : mode == RoundingMode.HALF_UP && x.greatest <= QUARTER);
        assertThat(SharedScale.round(x, places, mode, out, 3)).isEqualTo(may);
        int to = places;
        if (may) {
          is(out, row -> x.number(row).setScale(to, mode));
        }
      }
    }
  }

  private interface Wanted {
    BigDecimal of(int row);
  }

  /** What a column came to: its numbers, and a bound that holds for whoever computes on. */
  private static void is(Values out, Wanted wanted) {
    for (int row = 0; row < 3; row++) {
      BigDecimal value = wanted.of(row);
      if (!out.known[row] || !out.number(row).equals(value) || out.greatest < 0) {
        assertThat(out.known[row]).isTrue();
        assertThat(out.number(row)).isEqualTo(value);
        assertThat(out.greatest).isNotNegative();
      }
      assertThat(out.sharedScale).isEqualTo(value.scale());
      assertThat(value.unscaledValue().abs().longValueExact()).isLessThanOrEqualTo(out.greatest);
    }
  }

  @Test
  void columnsWithoutOneScaleAreLeftToOthers() {
    Values one = shared(1, 5, 6);
    Values mixed = empty(2);
    mixed.number(0, 5, 1);
    mixed.number(1, 5, 2);
    mixed.survey(2);
    Values out = empty(2);
    for (Values[] pair : new Values[][] {{one, mixed}, {mixed, one}}) {
      assertThat(SharedScale.add(pair[0], pair[1], false, out, 2)).isFalse();
      assertThat(SharedScale.multiply(pair[0], pair[1], out, 2)).isFalse();
      assertThat(SharedScale.compare(pair[0], pair[1], true, true, true, out, 2)).isFalse();
    }
    assertThat(SharedScale.divide(mixed, 1, true, out, 2)).isFalse();
    assertThat(SharedScale.round(mixed, 0, RoundingMode.HALF_UP, out, 2)).isFalse();
  }

  /** Null where either is, whatever stands in its digits. */
  @Test
  void nullsOfColumns() {
    Values a = shared(0, 1, 2, 3, 4);
    Values b = shared(0, 5, 6, 7, 8);
    a.known[1] = false;
    a.known[3] = false;
    b.known[2] = false;
    b.known[3] = false;
    Values out = empty(4);
    boolean[] both = {true, false, false, false};
    SharedScale.add(a, b, false, out, 4);
    assertThat(out.known).isEqualTo(both);
    SharedScale.multiply(a, b, out, 4);
    assertThat(out.known).isEqualTo(both);
    SharedScale.compare(a, b, true, false, false, out, 4);
    assertThat(out.known).isEqualTo(both);
    SharedScale.divide(a, 1, false, out, 4);
    assertThat(out.known).isEqualTo(a.known);
    SharedScale.round(b, 0, RoundingMode.HALF_UP, out, 4);
    assertThat(out.known).isEqualTo(b.known);
  }

  @Test
  void aSurveyTellsOneScaleFromSeveral() {
    Values values = shared(2, 5, -7, 0);
    assertThat(values.sharedScale).isEqualTo(2);
    assertThat(values.greatest).isBetween(7L, QUARTER);
    values.known[1] = false;
    values.scale[1] = 9;
    values.survey(3);
    assertThat(values.sharedScale).as("a null has no scale").isEqualTo(2);
    values.known[1] = true;
    values.survey(3);
    assertThat(values.sharedScale).isEqualTo(-1);
    assertThat(shared(0, 1, Long.MIN_VALUE).sharedScale).isEqualTo(-1);
    Values wide = of(BigDecimal.ONE, new BigDecimal("1e30"));
    wide.survey(2);
    assertThat(wide.anyWide()).isTrue();
    assertThat(wide.sharedScale).isEqualTo(-1);
    wide.forgetWide();
    assertThat(wide.anyWide()).isFalse();
    assertThat(wide.isWide(1)).isFalse();
    assertThat(empty(2).sharedScale).isEqualTo(-1);
  }

  @Test
  void aNumberIsWholeWhoeverHoldsIt() {
    Values values =
        of(
            new BigDecimal("7"),
            new BigDecimal("7.0"),
            new BigDecimal("7.5"),
            new BigDecimal("1e30"),
            new BigDecimal("1234567890123456789012.5"));
    boolean[] whole = {true, true, false, true, false};
    Values taken = empty(5);
    for (int row = 0; row < whole.length; row++) {
      assertThat(values.isWhole(row)).isEqualTo(whole[row]);
      taken.number(row, values, row);
      assertThat(taken.known[row]).isTrue();
      assertThat(taken.number(row)).isEqualTo(values.number(row));
      assertThat(taken.isWide(row)).isEqualTo(values.isWide(row));
    }
    taken.prepare(5, Kind.NUMBER);
    assertThat(taken.known).containsOnly(false);
    assertThat(taken.anyWide()).isFalse();
  }
}
