package org.abletwine.plan.drift;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;

/** Parts of a whole, and how they differ. Shares are exact fractions until they are told. */
record Share(long part, long whole) {
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
  private static final int PLACES = 2;

  /** The share in per cent, to ten significant digits. */
  BigDecimal percent() {
    return whole == 0
        ? BigDecimal.ZERO
        : BigDecimal.valueOf(part)
            .multiply(HUNDRED)
            .divide(BigDecimal.valueOf(whole), MathContext.DECIMAL64);
  }

  String told() {
    return whole == 0 ? "no rows" : rounded(percent()) + " %";
  }

  /** How many points more than another. */
  BigDecimal pointsFrom(Share before) {
    return whole == 0 || before.whole == 0 ? BigDecimal.ZERO : percent().subtract(before.percent());
  }

  /** Points as they are told. */
  static String points(BigDecimal points) {
    BigDecimal shown = rounded(points);
    return (shown.signum() > 0 ? "+" : "") + shown.toPlainString() + " points";
  }

  /** A change in per cent, as it is told. */
  static String percent(BigDecimal change) {
    BigDecimal shown = change.multiply(HUNDRED).setScale(1, RoundingMode.HALF_UP);
    return (shown.signum() > 0 ? "+" : "") + shown.toPlainString() + " %";
  }

  static BigDecimal rounded(BigDecimal number) {
    return number.setScale(PLACES, RoundingMode.HALF_UP);
  }

  /** Whether points are told as anything but nothing. */
  static boolean shows(BigDecimal points) {
    return rounded(points).signum() != 0;
  }

  /**
   * Points as a share of the whole, for the weight of a change of something that is better the less
   * there is of it.
   */
  static double weight(BigDecimal points) {
    return Math.abs(points.doubleValue()) / (points.signum() > 0 ? 100 : 400);
  }

  /** How much one number is larger than another, 0.1 for a tenth; 1 from nothing. */
  static BigDecimal growth(BigDecimal before, BigDecimal after) {
    if (before.compareTo(after) == 0) {
      return BigDecimal.ZERO;
    }
    return before.signum() == 0
        ? BigDecimal.valueOf(after.signum())
        : after.subtract(before).divide(before.abs(), MathContext.DECIMAL64);
  }
}
