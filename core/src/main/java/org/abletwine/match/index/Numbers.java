package org.abletwine.match.index;

import java.math.BigDecimal;
import java.math.RoundingMode;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/** Decimal numbers that fit a long once scaled. */
final class Numbers implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long MOST = FARTHEST / 2 - 1;

  /** What is no number written plainly. */
  static final long NOT_PLAIN = DecimalText.NOT_PLAIN;

  private final int scale;

  /**
   * @param scale decimal places of the values of the reference, at least; 0 to 18
   */
  Numbers(int scale) {
    this.scale = scale;
  }

  static @Nullable BigDecimal parse(byte[] text, int start, int end) {
    return end - start > DecimalText.MOST_CHARACTERS * Utf8.MOST_BYTES
        ? null
        : DecimalText.read(Utf8.text(text, start, end));
  }

  /**
   * A number written plainly, with nothing around it.
   *
   * @return as {@link DecimalText#plain} gives it
   */
  static long plain(byte[] text, int start, int end) {
    return start < end && text[start] > ' ' && text[end - 1] > ' '
        ? DecimalText.plain(text, start, end)
        : NOT_PLAIN;
  }

  @Override
  public long coordinate(byte[] text, int start, int end) {
    long plain = plain(text, start, end);
    int missing = scale - DecimalText.places(plain);
    boolean fits =
        plain != NOT_PLAIN && end - start + Math.max(0, missing) <= DecimalText.MOST_PLAIN_DIGITS;
    return fits ? coordinate(plain) : slow(text, start, end);
  }

  /** The coordinate of what {@link #plain} gave, which fits once scaled. */
  long coordinate(long plain) {
    long value = DecimalText.digits(plain);
    int missing = scale - DecimalText.places(plain);
    if (missing >= 0) {
      return 2 * value * DecimalText.power(missing);
    }
    long cut = DecimalText.shorter(value, -missing);
    long rest = value - cut * DecimalText.power(-missing);
    return 2 * cut + (rest == 0 ? 0 : rest < 0 ? -1 : 1);
  }

  private long slow(byte[] text, int start, int end) {
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
