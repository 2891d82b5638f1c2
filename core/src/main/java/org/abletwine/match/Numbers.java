package org.abletwine.match;

import java.math.BigDecimal;
import java.math.RoundingMode;
import org.jspecify.annotations.Nullable;

/** Decimal numbers that fit a long once scaled. */
final class Numbers implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long MOST = FARTHEST / 2 - 1;
  private static final int MOST_FAST_DIGITS = 17;
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
    try {
      return end - start > 60 ? null : new BigDecimal(text, start, end - start);
    } catch (NumberFormatException e) {
      return null;
    }
  }

  /**
   * The shape of a number written plainly, without making one: decimal places and digits.
   *
   * @return digits times 64 plus places; or -1 when it is written otherwise, is too long, or is
   *     none
   */
  static int shape(char[] text, int start, int end) {
    int at = start;
    if (at < end && text[at] == '-') {
      at++;
    }
    int digits = 0;
    int places = -1;
    for (; at < end; at++) {
      char c = text[at];
      if (c >= '0' && c <= '9') {
        digits++;
        places += places >= 0 ? 1 : 0;
      } else if (c == '.' && places < 0) {
        places = 0;
      } else {
        return -1;
      }
    }
    return digits == 0 || digits > MOST_FAST_DIGITS ? -1 : digits << 6 | Math.max(places, 0);
  }

  @Override
  public long coordinate(char[] text, int start, int end) {
    int at = start;
    boolean negative = at < end && text[at] == '-';
    if (negative) {
      at++;
    }
    long value = 0;
    int digits = 0;
    int places = -1;
    for (; at < end; at++) {
      char c = text[at];
      if (c >= '0' && c <= '9') {
        value = value * 10 + (c - '0');
        digits++;
        places += places >= 0 ? 1 : 0;
      } else if (c == '.' && places < 0) {
        places = 0;
      } else {
        return slow(text, start, end);
      }
    }
    places = Math.max(places, 0);
    if (digits == 0 || digits + Math.max(0, scale - places) > MOST_FAST_DIGITS) {
      return slow(text, start, end);
    }
    if (places <= scale) {
      long scaled = value * POWERS[scale - places];
      return 2 * (negative ? -scaled : scaled);
    }
    long unit = POWERS[places - scale];
    long signed = negative ? -value : value;
    long floor = Math.floorDiv(signed, unit);
    return 2 * floor + (floor * unit == signed ? 0 : 1);
  }

  private long slow(char[] text, int start, int end) {
    BigDecimal value = parse(text, start, end);
    if (value == null) {
      return UNFIT;
    }
    if (value.precision() - value.scale() + scale > 18) {
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
