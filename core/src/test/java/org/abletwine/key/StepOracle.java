package org.abletwine.key;

import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.Locale;

/** The oracle of the normalise steps: each written the plain way, on strings. */
public final class StepOracle {
  private StepOracle() {}

  public static String apply(String step, String cell) {
    int at = step.indexOf('=');
    String argument = at < 0 ? "" : step.substring(at + 1);
    return switch (at < 0 ? step : step.substring(0, at)) {
      case "trim" -> trim(cell);
      case "collapse-spaces" -> collapse(cell);
      case "ignore-case" -> fold(cell);
      case "ignore-accents" -> accents(cell);
      case "ignore-punctuation" -> punctuation(cell);
      case "drop-leading-zeros" -> cell.replaceFirst("^0+(?=.)", "");
      case "pad-zeros" -> padded(cell, Integer.parseInt(argument));
      case "digits-only" -> digits(cell);
      case "drop-prefix" ->
          cell.startsWith(argument) && cell.length() > argument.length()
              ? cell.substring(argument.length())
              : cell;
      case "drop-suffix" ->
          cell.endsWith(argument) && cell.length() > argument.length()
              ? cell.substring(0, cell.length() - argument.length())
              : cell;
      case "first" -> ends(cell, Integer.parseInt(argument), true);
      case "last" -> ends(cell, Integer.parseInt(argument), false);
      case "as-number" -> number(cell);
      default -> throw new IllegalArgumentException(step);
    };
  }

  static boolean space(int c) {
    return Character.isWhitespace(c)
        || Character.isSpaceChar(c)
        || c == 0x200B
        || c == 0x200C
        || c == 0x200D
        || c == 0x200E
        || c == 0x200F
        || c == 0x2060
        || c == 0xFEFF
        || c == 0x85
        || c == 0x180E;
  }

  private static String trim(String cell) {
    int[] c = cell.codePoints().toArray();
    int from = 0;
    int to = c.length;
    while (from < to && space(c[from])) {
      from++;
    }
    while (to > from && space(c[to - 1])) {
      to--;
    }
    return new String(c, from, to - from);
  }

  private static String collapse(String cell) {
    StringBuilder out = new StringBuilder();
    boolean before = false;
    for (int c : cell.codePoints().toArray()) {
      if (!space(c)) {
        out.appendCodePoint(c);
      } else if (!before) {
        out.append(' ');
      }
      before = space(c);
    }
    return out.toString();
  }

  private static String fold(String cell) {
    String composed = Normalizer.normalize(cell, Normalizer.Form.NFKC);
    String upper = composed.toUpperCase(Locale.ROOT);
    String folded = upper.toLowerCase(Locale.ROOT).replace('\u03C2', '\u03C3');
    return Normalizer.normalize(folded, Normalizer.Form.NFC);
  }

  private static String accents(String cell) {
    String apart = Normalizer.normalize(cell, Normalizer.Form.NFKD);
    StringBuilder out = new StringBuilder();
    apart
        .codePoints()
        .filter(c -> Character.getType(c) != Character.NON_SPACING_MARK)
        .forEach(out::appendCodePoint);
    return Normalizer.normalize(out, Normalizer.Form.NFC);
  }

  private static String punctuation(String cell) {
    StringBuilder out = new StringBuilder();
    cell.codePoints()
        .filter(
            c ->
                switch (Character.getType(c)) {
                  case Character.CONNECTOR_PUNCTUATION,
                      Character.DASH_PUNCTUATION,
                      Character.START_PUNCTUATION,
                      Character.END_PUNCTUATION,
                      Character.INITIAL_QUOTE_PUNCTUATION,
                      Character.FINAL_QUOTE_PUNCTUATION,
                      Character.OTHER_PUNCTUATION,
                      Character.MATH_SYMBOL,
                      Character.CURRENCY_SYMBOL,
                      Character.MODIFIER_SYMBOL,
                      Character.OTHER_SYMBOL ->
                      false;
                  default -> true;
                })
        .forEach(out::appendCodePoint);
    return out.toString();
  }

  private static String padded(String cell, int width) {
    StringBuilder out = new StringBuilder(cell);
    while (out.codePointCount(0, out.length()) < width) {
      out.insert(0, '0');
    }
    return out.toString();
  }

  private static String digits(String cell) {
    StringBuilder out = new StringBuilder();
    cell.codePoints().filter(Character::isDigit).forEach(c -> out.append(Character.digit(c, 10)));
    return out.toString();
  }

  private static String ends(String cell, int count, boolean start) {
    int[] c = cell.codePoints().toArray();
    int length = Math.min(count, c.length);
    return new String(c, start ? 0 : c.length - length, length);
  }

  private static String number(String cell) {
    try {
      BigDecimal value = new BigDecimal(trim(cell));
      BigDecimal bare = value.signum() == 0 ? BigDecimal.ZERO : value.stripTrailingZeros();
      return Math.abs(bare.scale()) <= 60 ? bare.toPlainString() : bare.toString();
    } catch (NumberFormatException e) {
      return cell;
    }
  }
}
