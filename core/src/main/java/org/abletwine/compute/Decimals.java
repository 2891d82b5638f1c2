package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;

/**
 * Exact decimal arithmetic on digits and places that fit a long, with {@link BigDecimal} for what
 * does not. Nothing is allocated as long as the result fits.
 *
 * <p>Each short way comes to the same number, places included, as the long one; tests tell them
 * apart by {@link LongWay}. (Changes of {@link #divide} that only choose the long way more often
 * are not noticed: where it ends early depends on the digits of the quotient.)
 */
final class Decimals {
  /** Decimal places that are held beside a long. */
  static final int MOST_PLACES = DecimalText.MOST_PLACES;

  /** Places of a quotient that does not come out even. */
  static final int QUOTIENT_PLACES = 12;

  /** Digits of a number that is computed, at most: more would be no number anyone meant. */
  static final int MOST_DIGITS = 1_000;

  private Decimals() {}

  /**
   * Reads a cell that is not null as a number, spaces around it left out. Plain ones of up to 17
   * digits without making an object.
   *
   * @return whether it is one
   */
  static boolean read(CellVector cells, int row, Values into, int at) {
    if (cells.inNumbers()) {
      into.number(at, cells.digits[row], cells.scales[row]);
      return true;
    }
    return read(cells.text, cells.starts[row], cells.ends[row], into, at);
  }

  /** As {@link #read}, from a slice of text. */
  static boolean read(byte[] text, int start, int end, Values into, int at) {
    long plain = DecimalText.plain(text, start, end);
    if (plain != DecimalText.NOT_PLAIN) {
      into.number(at, DecimalText.digits(plain), DecimalText.places(plain));
      return true;
    }
    assert LongWay.taken();
    BigDecimal value =
        end - start > DecimalText.MOST_CHARACTERS * Utf8.MOST_BYTES
            ? null
            : DecimalText.read(Utf8.text(text, start, end));
    if (value == null) {
      return false;
    }
    into.number(at, value);
    return true;
  }

  /** Whether a number has more digits than are computed with, decimal places included. */
  static boolean tooLong(BigDecimal value) {
    return value.precision() > MOST_DIGITS || Math.abs((long) value.scale()) > MOST_DIGITS;
  }

  static void add(Values a, Values b, boolean subtract, Values out, int row) {
    if (!a.isWide(row) && !b.isWide(row)) {
      int places = Math.max(a.scale[row], b.scale[row]);
      long x = a.digits[row];
      long y = subtract ? -b.digits[row] : b.digits[row];
      long p = DecimalText.power(places - a.scale[row]);
      long q = DecimalText.power(places - b.scale[row]);
      if (fits(x, p) && fits(y, q) && !(subtract && y == Long.MIN_VALUE)) {
        x *= p;
        y *= q;
        long sum = x + y;
        if (((x ^ sum) & (y ^ sum)) >= 0) {
          out.number(row, sum, places);
          return;
        }
      }
    }
    assert LongWay.taken();
    BigDecimal y = b.number(row);
    out.number(row, subtract ? a.number(row).subtract(y) : a.number(row).add(y));
  }

  private static boolean fits(long value, long factor) {
    return Math.multiplyHigh(value, factor) == value * factor >> 63;
  }

  static void multiply(Values a, Values b, Values out, int row) {
    if (!a.isWide(row) && !b.isWide(row)) {
      int places = a.scale[row] + b.scale[row];
      if (places <= MOST_PLACES && fits(a.digits[row], b.digits[row])) {
        out.number(row, a.digits[row] * b.digits[row], places);
        return;
      }
    }
    assert LongWay.taken();
    out.number(row, a.number(row).multiply(b.number(row)));
  }

  /**
   * Divides: exact where the quotient ends within {@link #QUOTIENT_PLACES}, else rounded half up
   * there; no more places than needed, but no fewer than the dividend has. Long division, digit by
   * digit, so nothing overflows.
   */
  static void divide(Values a, Values b, Values out, int row) {
    long divisor = b.digits[row];
    boolean small = !a.isWide(row) && !b.isWide(row) && divisor != Long.MIN_VALUE;
    if (!small || Math.abs(divisor) > Long.MAX_VALUE / 20 || a.digits[row] == Long.MIN_VALUE) {
      divideWide(a.number(row), b.number(row), out, row);
      return;
    }
    int tens = powerOfTen(divisor);
    if (tens >= 0) {
      shift(a, b, a.scale[row] + tens - b.scale[row], out, row);
      return;
    }
    long dividend = Math.abs(a.digits[row]);
    long by = Math.abs(divisor);
    boolean negative = a.digits[row] < 0 != divisor < 0;
    long quotient = dividend / by;
    long rest = dividend % by;
    int places = a.scale[row] - b.scale[row];
    int least = Math.max(a.scale[row], 0);
    int most = Math.max(QUOTIENT_PLACES, least);
    while ((rest != 0 || places < least) && places < most) {
      if (quotient > Long.MAX_VALUE / 10 - 1) {
        divideWide(a.number(row), b.number(row), out, row);
        return;
      }
      rest *= 10;
      quotient = quotient * 10 + rest / by;
      rest %= by;
      places++;
    }
    if (rest * 2 >= by && rest != 0) {
      quotient++;
    }
    while (places > least && quotient % 10 == 0) {
      quotient /= 10;
      places--;
    }
    out.number(row, negative ? -quotient : quotient, places);
  }

  /** Which power of ten a number is, or -1. */
  static int powerOfTen(long number) {
    for (int power = 0; power <= MOST_PLACES && DecimalText.power(power) <= number; power++) {
      if (DecimalText.power(power) == number) {
        return power;
      }
    }
    return -1;
  }

  /** The dividend's digits with other places: what dividing by a power of ten comes to. */
  private static void shift(Values a, Values b, int wanted, Values out, int row) {
    int least = a.scale[row];
    int places = wanted;
    if (places > QUOTIENT_PLACES || places < least) {
      divideWide(a.number(row), b.number(row), out, row);
      return;
    }
    long digits = a.digits[row];
    while (places > least && digits % 10 == 0) {
      digits /= 10;
      places--;
    }
    out.number(row, digits, places);
  }

  /** As {@link #divide}, for numbers of any size; {@code b} is not zero. */
  static void divideWide(BigDecimal a, BigDecimal b, Values out, int row) {
    assert LongWay.taken();
    BigDecimal quotient = a.divide(b, Math.max(QUOTIENT_PLACES, a.scale()), RoundingMode.HALF_UP);
    BigDecimal stripped = quotient.stripTrailingZeros();
    int least = Math.max(0, a.scale());
    out.number(row, stripped.scale() < least ? stripped.setScale(least) : stripped);
  }

  static int compare(Values a, Values b, int row) {
    if (!a.isWide(row) && !b.isWide(row)) {
      if (a.scale[row] == b.scale[row]) {
        return Long.compare(a.digits[row], b.digits[row]);
      }
      int places = Math.max(a.scale[row], b.scale[row]);
      long p = DecimalText.power(places - a.scale[row]);
      long q = DecimalText.power(places - b.scale[row]);
      if (fits(a.digits[row], p) && fits(b.digits[row], q)) {
        return Long.compare(a.digits[row] * p, b.digits[row] * q);
      }
    }
    assert LongWay.taken();
    return a.number(row).compareTo(b.number(row));
  }

  /** Rounds half up, away from zero, to exactly so many places. */
  static void round(Values a, int row, int places, RoundingMode mode, Values out) {
    boolean small = !a.isWide(row) && places >= 0 && places <= MOST_PLACES;
    if (small
        && places >= a.scale[row]
        && fits(a.digits[row], DecimalText.power(places - a.scale[row]))) {
      out.number(row, a.digits[row] * DecimalText.power(places - a.scale[row]), places);
      return;
    }
    if (small && places < a.scale[row] && mode == RoundingMode.HALF_UP) {
      int drop = a.scale[row] - places;
      long unit = DecimalText.power(drop);
      long quotient = DecimalText.shorter(a.digits[row], drop);
      long rest = Math.abs(a.digits[row] - quotient * unit);
      if (rest >= unit - rest) {
        quotient += a.digits[row] < 0 ? -1 : 1;
      }
      out.number(row, quotient, places);
      return;
    }
    assert LongWay.taken();
    BigDecimal rounded = a.number(row).setScale(places, mode);
    out.number(row, places < 0 ? rounded.setScale(0) : rounded);
  }
}
