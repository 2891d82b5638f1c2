package org.abletwine.cli;

import java.math.BigDecimal;
import java.util.Locale;

/** Numbers as a person is shown them. */
final class Figures {
  private Figures() {}

  /** A number with its thousands set apart, all its places kept. */
  static String number(BigDecimal value) {
    BigDecimal plain = value.scale() < 0 ? value.setScale(0) : value;
    return String.format(Locale.ROOT, "%,." + plain.scale() + "f", plain);
  }
}
