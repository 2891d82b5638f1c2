package org.abletwine.match;

import java.math.BigDecimal;
import java.math.RoundingMode;
import org.abletwine.table.DecimalText;
import org.jspecify.annotations.Nullable;

/** Decimal numbers that fit a long once scaled. */
final class Numbers implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long MOST = FARTHEST / 2 - 1;
  private static final int MOST_FAST_DIGITS = 17;
  private static final int PLACES_BITS = 5;

  /** What is no number written plainly. */
  static final long NOT_PLAIN = Long.MIN_VALUE;

  private static final long[] POWERS = new long[19];

  static {
    POWERS[0] = 1;
    for (int i = 1; i < POWERS.length; i++) {
      POWERS[i] = POWERS[i - 1] * 10;
    }
  }

  private final int scale;

  /**
   * @param scale decimal places of the values of the reference, at least; 0 to 18
   */
  Numbers(int scale) {
    this.scale = scale;
  }

  static @Nullable BigDecimal parse(char[] text, int start, int end) {
    return end - start > DecimalText.MOST_CHARACTERS
        ? null
        : DecimalText.read(new String(text, start, end - start));
  }

  /**
   * A number written plainly: its digits times 32, plus its decimal places.
   *
   * @return that, or {@link #NOT_PLAIN} when it is written otherwise, is too long, or is none
   */
  static long plain(char[] text, int start, int end) {
    int at = start;
    boolean negative = at < end && text[at] == '-';
    at += negative ? 1 : 0;
    int point = -1;
    int first = at;
    long value = 0;
    for (; at < end; at++) {
      int digit = text[at] - '0';
      if (digit >= 0 && digit <= 9) {
        value = value * 10 + digit;
      } else if (text[at] == '.' && point < 0) {
        point = at;
      } else {
        return NOT_PLAIN;
      }
    }
    int digits = end - first - (point < 0 ? 0 : 1);
    if (digits == 0 || digits > MOST_FAST_DIGITS) {
      return NOT_PLAIN;
    }
    int places = point < 0 ? 0 : end - point - 1;
    return (negative ? -value : value) << PLACES_BITS | places;
  }

  /** Decimal places of what {@link #plain} gave. */
  static int places(long plain) {
    return (int) plain & (1 << PLACES_BITS) - 1;
  }

  @Override
  public long coordinate(char[] text, int start, int end) {
    long plain = plain(text, start, end);
    int missing = scale - places(plain);
    boolean fits = plain != NOT_PLAIN && end - start + Math.max(0, missing) <= MOST_FAST_DIGITS;
    return fits ? coordinate(plain) : slow(text, start, end);
  }

  /** The coordinate of what {@link #plain} gave, which fits once scaled. */
  long coordinate(long plain) {
    long value = plain >> PLACES_BITS;
    int missing = scale - places(plain);
    if (missing >= 0) {
      return 2 * value * POWERS[missing];
    }
    long cut = DecimalText.shorter(value, -missing);
    long rest = value - cut * POWERS[-missing];
    return 2 * cut + (rest == 0 ? 0 : rest < 0 ? -1 : 1);
  }

  private long slow(char[] text, int start, int end) {
    BigDecimal value = parse(text, start, end);
    if (value == null) {
      return UNFIT;
    }
    boolean zero = value.signum() == 0; // which is not large, even with a large exponent
    if (!zero && value.precision() - value.scale() + scale > 18) {
      return value.signum() < 0 ? -FARTHEST + 1 : FARTHEST - 1; // beyond any of the reference
    }
    BigDecimal floor = value.setScale(scale, RoundingMode.FLOOR);
    long scaled = Math.max(-MOST, Math.min(MOST, floor.unscaledValue().longValue()));
    return 2 * scaled + (floor.compareTo(value) == 0 ? 0 : 1);
  }

  @Override
  public String show(long coordinate) {
    return BigDecimal.valueOf(Math.floorDiv(coordinate, 2), scale)
        .stripTrailingZeros()
        .toPlainString();
  }

  @Override
  public String distance(long one, long other) {
    BigDecimal apart = BigDecimal.valueOf(Math.abs(one - other), scale);
    return apart.divide(BigDecimal.valueOf(2)).stripTrailingZeros().toPlainString();
  }

  @Override
  public String noun() {
    return "a number";
  }
}
