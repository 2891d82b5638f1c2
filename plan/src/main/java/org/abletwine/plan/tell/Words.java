package org.abletwine.plan.tell;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.regex.Pattern;
import org.abletwine.figures.RunRecord;
import org.abletwine.table.text.Veil;

/** Numbers as a person is told them. Stateless. */
public final class Words {
  private static final Pattern LONG = Pattern.compile("(?<![0-9.'-])[1-9][0-9]{3,17}(?![0-9-])");

  private Words() {}

  /** {@return how many keys, such as {@code 1,200 keys}} */
  public static String keys(long count) {
    return count(count) + (count == 1 ? " key" : " keys");
  }

  /** {@return how many rows, such as {@code 1 row}} */
  public static String rows(long count) {
    return count(count) + (count == 1 ? " row" : " rows");
  }

  /** {@return a count with its thousands parted} */
  public static String count(long count) {
    return parted(Long.toString(count));
  }

  /**
   * {@return a share in per cent with one decimal; never 0.0 or 100.0 unless it is}
   *
   * @param part the part
   * @param whole the whole; a dash stands for the share of nothing
   */
  public static String percent(long part, long whole) {
    if (whole == 0) {
      return "-";
    }
    double share = 100.0 * part / whole;
    if (part > 0 && share < 0.05) {
      return "<0.1 %";
    }
    if (part < whole && share > 99.95) {
      return ">99.9 %";
    }
    return BigDecimal.valueOf(share).setScale(1, RoundingMode.HALF_UP) + " %";
  }

  /** {@return a part of a whole, such as {@code 58 (1.9 %)}} */
  public static String part(long part, long whole) {
    return count(part) + (whole == 0 ? "" : " (" + percent(part, whole) + ")");
  }

  /** {@return a time in seconds} */
  public static String seconds(long millis) {
    int places = millis < 10_000 ? 2 : 1;
    return BigDecimal.valueOf(millis, 3).setScale(places, RoundingMode.HALF_UP) + " s";
  }

  /** {@return a size, such as {@code 860 kB}} */
  public static String bytes(long bytes) {
    if (bytes < 10_000) {
      return count(bytes) + " bytes";
    }
    if (bytes < 10_000_000) {
      return count(bytes / 1000) + " kB";
    }
    return count(bytes / 1_000_000) + " MB";
  }

  /** {@return a number with its thousands parted, all its places kept} */
  public static String number(BigDecimal value) {
    return parted(value.toPlainString());
  }

  /** {@return a text whose long numbers have their thousands parted; dates and codes stay} */
  public static String grouped(String text) {
    return LONG.matcher(text).replaceAll(found -> parted(found.group()));
  }

  /** A plain number with its thousands parted: formats of the runtime take long to be ready. */
  private static String parted(String number) {
    int point = number.indexOf('.');
    int end = point < 0 ? number.length() : point;
    int start = number.startsWith("-") ? 1 : 0;
    StringBuilder text = new StringBuilder(number.length() + 8);
    for (int at = 0; at < number.length(); at++) {
      if (at > start && at < end && (end - at) % 3 == 0) {
        text.append(',');
      }
      text.append(number.charAt(at));
    }
    return text.toString();
  }

  /**
   * A text as a terminal, or a page, may have it.
   *
   * @param text any text
   * @return the text, control characters but line feeds, and marks that turn the direction of
   *     writing, as {@code <U+001B>}
   */
  public static String shown(String text) {
    int at = 0;
    while (at < text.length() && !hidden(text.charAt(at))) {
      at++;
    }
    if (at == text.length()) {
      return text;
    }
    StringBuilder shown = new StringBuilder(text.length() + 16).append(text, 0, at);
    for (; at < text.length(); at++) {
      char c = text.charAt(at);
      if (hidden(c)) {
        shown.append(String.format(Locale.ROOT, "<U+%04X>", (int) c));
      } else {
        shown.append(c);
      }
    }
    return shown.toString();
  }

  /** {@return whether {@link #shown} shows a character by its number} */
  public static boolean hidden(char c) {
    return c < ' ' && c != '\n'
        || c >= 0x7F && c < 0xA0
        || c == 0x2028
        || c == 0x2029
        || c >= 0x202A && c <= 0x202E
        || c >= 0x2066 && c <= 0x2069;
  }

  /**
   * JSON as it may be printed, or stand in a page: what {@link #shown} would show is written as
   * JSON does, so that whoever reads it gets what the data holds.
   *
   * @param json JSON text
   */
  public static String json(String json) {
    StringBuilder text = new StringBuilder(json.length());
    for (int at = 0; at < json.length(); at++) {
      char c = json.charAt(at);
      if (hidden(c) && c != '\r') {
        text.append(String.format(Locale.ROOT, "\\u%04x", (int) c));
      } else {
        text.append(c);
      }
    }
    return text.toString();
  }

  /**
   * Which columns a run kept private, in words.
   *
   * @param run the figures of the run
   * @return empty where none was
   */
  public static String keptPrivate(RunRecord run) {
    return run.privateColumns().isEmpty()
        ? ""
        : "Kept private: "
            + String.join(", ", run.privateColumns())
            + " ("
            + Veil.START
            + "... stands for values outside the enriched rows)";
  }
}
