package org.abletwine.compute;

import java.math.RoundingMode;
import java.util.Arrays;
import org.abletwine.table.text.DecimalText;

/**
 * Arithmetic on whole columns of numbers that have one scale each: bounds are looked at once for
 * the column, so that the loops over its rows are free of checks. Each method says whether it could
 * do it; if not, the numbers are computed one by one. What stands in rows that are null means
 * nothing.
 */
final class SharedScale {
  private static final long MOST = Long.MAX_VALUE / 4;

  private SharedScale() {}

  static boolean add(Values a, Values b, boolean subtract, Values out, int rows) {
    if (a.sharedScale < 0 || b.sharedScale < 0) {
      return false;
    }
    int places = Math.max(a.sharedScale, b.sharedScale);
    long p = DecimalText.power(places - a.sharedScale);
    long q = DecimalText.power(places - b.sharedScale);
    if (a.greatest > MOST / p || b.greatest > MOST / q) {
      return false;
    }
    long factor = subtract ? -q : q;
    long[] x = a.digits;
    long[] y = b.digits;
    long[] to = out.digits;
    for (int row = 0; row < rows; row++) {
      to[row] = x[row] * p + y[row] * factor;
    }
    both(a, b, out, rows);
    share(out, places, a.greatest * p + b.greatest * q, rows);
    return true;
  }

  static boolean multiply(Values a, Values b, Values out, int rows) {
    if (a.sharedScale < 0 || b.sharedScale < 0) {
      return false;
    }
    int places = a.sharedScale + b.sharedScale;
    if (places > DecimalText.MOST_PLACES || a.greatest > MOST / Math.max(1, b.greatest)) {
      return false;
    }
    long[] x = a.digits;
    long[] y = b.digits;
    long[] to = out.digits;
    for (int row = 0; row < rows; row++) {
      to[row] = x[row] * y[row];
    }
    both(a, b, out, rows);
    share(out, places, a.greatest * b.greatest, rows);
    return true;
  }

  /**
   * Divides by a power of ten.
   *
   * @param tens which power, at least 0
   * @param bare whether places that a quotient does not need are left out, as {@link
   *     Decimals#divide} does
   */
  static boolean divide(Values a, int tens, boolean bare, Values out, int rows) {
    int least = a.sharedScale;
    int places = least + tens;
    if (least < 0 || places > Decimals.QUOTIENT_PLACES) {
      return false;
    }
    System.arraycopy(a.known, 0, out.known, 0, rows);
    if (!bare) {
      System.arraycopy(a.digits, 0, out.digits, 0, rows);
      share(out, places, a.greatest, rows);
      return true;
    }
    for (int row = 0; row < rows; row++) {
      long digits = a.digits[row];
      int left = places;
      while (left > least && digits % 10 == 0) {
        digits /= 10;
        left--;
      }
      out.digits[row] = digits;
      out.scale[row] = (byte) left;
    }
    return true;
  }

  /** Rounds to so many places, as {@link Decimals#round} does. */
  static boolean round(Values a, int places, RoundingMode mode, Values out, int rows) {
    if (a.sharedScale < 0 || places < 0 || places > DecimalText.MOST_PLACES) {
      return false;
    }
    long[] x = a.digits;
    long[] to = out.digits;
    int drop = a.sharedScale - places;
    if (drop <= 0) {
      long factor = DecimalText.power(-drop);
      if (a.greatest > MOST / factor) {
        return false;
      }
      for (int row = 0; row < rows; row++) {
        to[row] = x[row] * factor;
      }
      share(out, places, a.greatest * factor, rows);
    } else if (mode == RoundingMode.HALF_UP && a.greatest <= MOST) {
      long half = DecimalText.power(drop) / 2;
      for (int row = 0; row < rows; row++) {
        long number = x[row];
        to[row] = DecimalText.shorter(number + (number < 0 ? -half : half), drop);
      }
      share(out, places, a.greatest / DecimalText.power(drop) + 1, rows);
    } else {
      return false;
    }
    System.arraycopy(a.known, 0, out.known, 0, rows);
    return true;
  }

  /** Compares: which of less, equal and greater make it true. */
  static boolean compare(
      Values a, Values b, boolean less, boolean equal, boolean greater, Values out, int rows) {
    if (a.sharedScale < 0 || b.sharedScale < 0) {
      return false;
    }
    int places = Math.max(a.sharedScale, b.sharedScale);
    long p = DecimalText.power(places - a.sharedScale);
    long q = DecimalText.power(places - b.sharedScale);
    if (a.greatest > MOST / p || b.greatest > MOST / q) {
      return false;
    }
    int order = (less ? 1 : 0) | (equal ? 2 : 0) | (greater ? 4 : 0);
    for (int row = 0; row < rows; row++) {
      long difference = a.digits[row] * p - b.digits[row] * q;
      out.digits[row] = order >> 1 + Long.signum(difference) & 1;
    }
    both(a, b, out, rows);
    return true;
  }

  private static void both(Values a, Values b, Values out, int rows) {
    boolean[] x = a.known;
    boolean[] y = b.known;
    boolean[] to = out.known;
    for (int row = 0; row < rows; row++) {
      to[row] = x[row] & y[row];
    }
  }

  private static void share(Values out, int places, long most, int rows) {
    Arrays.fill(out.scale, 0, rows, (byte) places);
    out.share(places, most);
  }
}
