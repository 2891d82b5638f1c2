package org.abletwine.compute;

import java.math.BigDecimal;
import java.util.Arrays;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * The values of an expression for the rows of a batch. Reused from batch to batch.
 *
 * <p>Invariant: where {@code known[row]} is false the value is null (for truth: unknown). A number
 * is {@code digits[row]} divided by ten to the {@code scale[row]}, unless {@link #isWide} says that
 * it does not fit; a day is its number since 1970-01-01 in {@code digits}; a truth value is 1 or 0
 * in {@code digits}.
 *
 * <p>Columns of numbers mostly have one scale: where that is known, {@link #sharedScale} says so,
 * and whole columns are computed without looking at the scale and the size of each number.
 */
final class Values {
  boolean[] known = new boolean[0];
  long[] digits = new long[0];
  byte[] scale = new byte[0];
  private @Nullable BigDecimal[] wide = new BigDecimal[0];
  @Nullable String[] text = new String[0];

  /** The scale of all numbers that are known; -1 when they differ, are wide, or nobody looked. */
  int sharedScale = -1;

  /** With a shared scale: no digits that are known are greater, nor less than its opposite. */
  long greatest;

  private boolean anyWide;

  /** Makes room, and forgets what was held. */
  void prepare(int rows, Kind kind) {
    sharedScale = -1;
    if (known.length < rows) {
      known = new boolean[rows];
      digits = new long[rows];
      scale = new byte[rows];
      text = new String[kind == Kind.TEXT ? rows : 0];
    } else {
      Arrays.fill(known, 0, rows, false);
    }
    forgetWide();
  }

  /** Forgets the numbers that do not fit a long. */
  void forgetWide() {
    if (anyWide) {
      Arrays.fill(wide, null);
      anyWide = false;
    }
  }

  /** Whether a number does not fit a long. Asked for each row: hardly ever is there any. */
  boolean isWide(int row) {
    return anyWide && row < wide.length && wide[row] != null;
  }

  /** Looks whether the numbers have one scale. */
  void survey(int rows) {
    sharedScale = -1;
    int shared = -1;
    long any = 0;
    for (int row = 0; row < rows; row++) {
      if (known[row]) {
        if (shared < 0) {
          shared = scale[row];
        } else if (scale[row] != shared) {
          return;
        }
        any |= Math.abs(digits[row]);
      }
    }
    if (!anyWide && any >= 0) {
      share(shared, any);
    }
  }

  /** States that all numbers have one scale. */
  void share(int places, long most) {
    sharedScale = places;
    greatest = most;
  }

  /** Whether any number does not fit a long. */
  boolean anyWide() {
    return anyWide;
  }

  void number(int row, long unscaled, int places) {
    known[row] = true;
    digits[row] = unscaled;
    scale[row] = (byte) places;
  }

  /** Takes a number of any size. */
  void number(int row, BigDecimal value) {
    known[row] = true;
    boolean fits = value.scale() >= 0 && value.scale() <= Decimals.MOST_PLACES;
    if (fits && value.unscaledValue().bitLength() < Long.SIZE) {
      digits[row] = value.unscaledValue().longValue();
      scale[row] = (byte) value.scale();
    } else {
      widen(row, value);
    }
  }

  private void widen(int row, BigDecimal value) {
    if (wide.length <= row) {
      wide = Arrays.copyOf(wide, known.length);
    }
    wide[row] = value;
    anyWide = true;
  }

  /** Takes over the numbers that a column holds, all of them. */
  void takeNumbers(CellVector cells, int rows) {
    System.arraycopy(cells.digits, 0, digits, 0, rows);
    System.arraycopy(cells.scales, 0, scale, 0, rows);
    for (int row = 0; row < rows; row++) {
      known[row] = !cells.isNull(row);
    }
    share(cells.sharedPlaces(), cells.greatest());
  }

  /** Whether a number that is known has no decimal places but zeros. */
  boolean isWhole(int row) {
    if (scale[row] == 0 && !isWide(row)) {
      return true;
    }
    return number(row).stripTrailingZeros().scale() <= 0;
  }

  /** Takes over a number from other values. */
  void number(int row, Values from, int fromRow) {
    if (from.isWide(fromRow)) {
      known[row] = true;
      widen(row, from.number(fromRow));
    } else {
      number(row, from.digits[fromRow], from.scale[fromRow]);
    }
  }

  BigDecimal number(int row) {
    BigDecimal held = isWide(row) ? wide[row] : null;
    return held == null ? BigDecimal.valueOf(digits[row], scale[row]) : held;
  }

  void truth(int row, boolean value) {
    known[row] = true;
    digits[row] = value ? 1 : 0;
  }

  boolean isTrue(int row) {
    return known[row] && digits[row] != 0;
  }

  boolean isFalse(int row) {
    return known[row] && digits[row] == 0;
  }

  void day(int row, long day) {
    known[row] = true;
    digits[row] = day;
  }

  void text(int row, @Nullable String value) {
    known[row] = value != null;
    text[row] = value;
  }

  String text(int row) {
    return String.valueOf(text[row]);
  }
}
