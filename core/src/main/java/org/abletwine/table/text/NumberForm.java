package org.abletwine.table.text;

import java.io.Serializable;
import org.jspecify.annotations.Nullable;

/**
 * How numbers are written in a column, told by an example such as {@code 1.234,56}, {@code
 * $1,234.56} or {@code (1,234.56)}. The last separator of the example parts whole numbers and
 * decimal places, the others part thousands; what stands before and behind, such as a currency, may
 * stand there or not; brackets mean less than zero. Immutable.
 */
public final class NumberForm implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int GROUP = 3;
  private static final char NONE = '\0';

  private final String example;
  private final String before;
  private final String behind;
  private final boolean brackets;
  private final boolean signBehind;
  private final char decimal;
  private final char group;

  private NumberForm(
      String example,
      String before,
      String behind,
      boolean brackets,
      boolean signBehind,
      char decimal,
      char group) {
    this.example = example;
    this.before = before;
    this.behind = behind;
    this.brackets = brackets;
    this.signBehind = signBehind;
    this.decimal = decimal;
    this.group = group;
  }

  /**
   * Reads an example.
   *
   * @param example a number as the column writes it
   * @param whole whether the column holds whole numbers, so that a single separator parts thousands
   * @throws IllegalArgumentException when it does not tell how numbers are written, saying why
   */
  public static NumberForm of(String example, boolean whole) {
    String text = spaced(example);
    boolean brackets = text.startsWith("(") && text.endsWith(")");
    text = brackets ? text.substring(1, text.length() - 1).strip() : text;
    boolean signBehind = text.endsWith("-");
    text = signBehind ? text.substring(0, text.length() - 1).strip() : text;
    text = text.startsWith("-") ? text.substring(1).strip() : text;
    int first = 0;
    while (first < text.length() && !digit(text.charAt(first))) {
      first++;
    }
    int last = text.length();
    while (last > first && !digit(text.charAt(last - 1))) {
      last--;
    }
    if (first == last) {
      throw new IllegalArgumentException("there is no digit in it");
    }
    String before = text.substring(0, first).replace("-", "").strip();
    String number = text.substring(first, last);
    String behind = text.substring(last).strip();
    char group = NONE;
    char decimal = NONE;
    int separators = 0;
    int at = -1;
    for (int i = 0; i < number.length(); i++) {
      char plain = number.charAt(i);
      if (!digit(plain)) {
        if (".,' ".indexOf(plain) < 0) {
          throw new IllegalArgumentException("\"" + plain + "\" parts no numbers");
        }
        if (decimal != NONE && decimal != plain && group != NONE) {
          throw new IllegalArgumentException("it has more than two kinds of separators");
        }
        if (decimal != NONE && decimal != plain) {
          group = decimal;
        }
        decimal = plain;
        separators++;
        at = i;
      }
    }
    boolean three = at >= 0 && number.length() - at - 1 == GROUP;
    if (separators > 1 && group == NONE
        || separators == 1 && (whole || decimal == ' ' || decimal == '\'')) {
      group = decimal; // the same one several times parts thousands
      decimal = NONE;
    } else if (separators == 1 && three) {
      throw new IllegalArgumentException(
          "it does not tell whether \""
              + decimal
              + "\" parts thousands or decimal places; write one with both, such as 1"
              + (decimal == '.' ? ".234,56" : ",234.56"));
    }
    NumberForm form = new NumberForm(example, before, behind, brackets, signBehind, decimal, group);
    if (form.plain(example) == null) {
      throw new IllegalArgumentException("thousands are parted by threes, such as 1.234,56");
    }
    return form;
  }

  /** A text whose spaces are plain ones, none at its ends. */
  private static String spaced(String text) {
    StringBuilder plain = new StringBuilder(text);
    for (int i = 0; i < plain.length(); i++) {
      plain.setCharAt(i, plain(plain.charAt(i)));
    }
    return plain.toString().strip();
  }

  private static boolean digit(char c) {
    return c >= '0' && c <= '9';
  }

  /** Spaces and apostrophes of all kinds are one. */
  private static char plain(char c) {
    return c == '\u00A0' || c == '\u202F' || c == '\u2009' ? ' ' : c == '\u2019' ? '\'' : c;
  }

  /**
   * A number of this form with a point before its decimal places and nothing else but digits and
   * sign.
   *
   * @param text as the column writes it
   * @return null when it is not of this form
   */
  public @Nullable String plain(String text) {
    String left = spaced(text);
    boolean negative = false;
    if (brackets && left.startsWith("(") && left.endsWith(")")) {
      negative = true;
      left = left.substring(1, left.length() - 1).strip();
    }
    if (signBehind && !negative && left.endsWith("-")) {
      negative = true;
      left = left.substring(0, left.length() - 1).strip();
    }
    if (!negative && left.startsWith("-")) {
      negative = true;
      left = left.substring(1).strip();
    }
    if (!before.isEmpty() && left.startsWith(before)) {
      left = left.substring(before.length()).strip();
      if (!negative && left.startsWith("-")) {
        negative = true;
        left = left.substring(1).strip();
      }
    }
    if (!behind.isEmpty() && left.endsWith(behind)) {
      left = left.substring(0, left.length() - behind.length()).strip();
    }
    String digits = digits(left);
    return digits == null ? null : negative ? "-" + digits : digits;
  }

  private @Nullable String digits(String text) {
    StringBuilder digits = new StringBuilder(text.length() + 1);
    int whole = 0;
    int sinceGroup = 0;
    boolean grouped = false;
    boolean places = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (digit(c)) {
        digits.append(c);
        whole += places ? 0 : 1;
        sinceGroup++;
      } else if (c == decimal && !places && decimal != NONE) {
        if (grouped && sinceGroup != GROUP || i == text.length() - 1 || whole == 0) {
          return null;
        }
        digits.append('.');
        places = true;
      } else if (c == group && !places && group != NONE) {
        boolean right = grouped ? sinceGroup == GROUP : whole >= 1 && whole <= GROUP;
        if (!right) {
          return null;
        }
        grouped = true;
        sinceGroup = 0;
      } else {
        return null;
      }
    }
    boolean ended = places || !grouped || sinceGroup == GROUP;
    return whole > 0 && ended ? digits.toString() : null;
  }

  /** Returns how many decimal places the example has. */
  public int places() {
    int places = 0;
    boolean behindPoint = false;
    for (char c : spaced(example).toCharArray()) {
      behindPoint |= c == decimal && decimal != NONE;
      places += behindPoint && digit(c) ? 1 : 0;
    }
    return places;
  }

  /** Returns whether thousands are parted. */
  public boolean grouped() {
    return group != NONE;
  }

  /** Returns what stands before a number, such as a currency; empty for nothing. */
  public String before() {
    return before;
  }

  /** Returns what stands behind a number, a space included where the example has one. */
  public String behind() {
    return behind.isEmpty() || !example.contains(" " + behind) ? behind : " " + behind;
  }

  /** Returns whether the numbers are per cent: what is written is a hundred times what is meant. */
  public boolean percent() {
    return behind.equals("%") || before.equals("%");
  }

  /**
   * Writes a number in this form.
   *
   * @param plain digits with a sign before and a point within, where it has them
   */
  public String write(String plain) {
    boolean negative = plain.startsWith("-");
    String digits = negative ? plain.substring(1) : plain;
    int point = digits.indexOf('.');
    String whole = point < 0 ? digits : digits.substring(0, point);
    StringBuilder text = new StringBuilder(whole);
    for (int at = whole.length() - GROUP; at > 0 && group != NONE; at -= GROUP) {
      text.insert(at, group);
    }
    if (point >= 0) {
      text.append(decimal == NONE ? '.' : decimal).append(digits, point + 1, digits.length());
    }
    text.insert(0, before);
    if (!behind.isEmpty()) {
      text.append(behind());
    }
    if (!negative) {
      return text.toString();
    }
    return brackets ? "(" + text + ")" : signBehind ? text + "-" : "-" + text;
  }

  /**
   * The same form as spreadsheets state it (ECMA-376 part 1, 18.8.31), whose separators are those
   * of whoever looks.
   */
  public String cellFormat() {
    String number =
        (group == NONE ? "0" : "#,##0") + (places() == 0 ? "" : "." + "0".repeat(places()));
    String tail = behind.isEmpty() ? "" : percent() ? "%" : "\"" + quoted(behind()) + "\"";
    String all = (before.isEmpty() ? "" : "\"" + quoted(before) + "\"") + number + tail;
    return brackets ? all + ";(" + all + ")" : all;
  }

  private static String quoted(String text) {
    return text.replace("\"", "");
  }

  /** Returns the example. */
  @Override
  public String toString() {
    return example;
  }
}
