package org.abletwine.cli;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.regex.Pattern;

/** Numbers as a person is shown them. */
final class Figures {
  private Figures() {}

  /** A number with its thousands set apart, all its places kept. */
  static String number(BigDecimal value) {
    BigDecimal plain = value.scale() < 0 ? value.setScale(0) : value;
    return String.format(Locale.ROOT, "%,." + plain.scale() + "f", plain);
  }

  private static final Pattern LONG = Pattern.compile("(?<![0-9.'-])[0-9]{4,18}(?![0-9-])");

  /** A text whose long numbers have their thousands parted; dates stay. */
  static String grouped(String text) {
    return LONG.matcher(text)
        .replaceAll(found -> String.format(Locale.ROOT, "%,d", Long.parseLong(found.group())));
  }
}
