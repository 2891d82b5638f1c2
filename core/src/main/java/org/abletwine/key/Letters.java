package org.abletwine.key;

import java.text.Normalizer;
import org.abletwine.table.text.Utf8;

/** Steps that leave characters out by their kind. */
final class Letters {
  private Letters() {}

  /**
   * Leaves out accents: compatibility decomposition (Unicode NFKD), then every combining mark goes.
   * Letters that Unicode does not decompose, such as {@code ø} and {@code ł}, stay.
   */
  static final class IgnoreAccents extends CellStep {
    private static final long serialVersionUID = 1L;

    IgnoreAccents() {
      super("ignore-accents");
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      return !Utf8.ascii(text, start, end);
    }

    @Override
    CharSequence changed(String cell) {
      String apart = Normalizer.normalize(cell, Normalizer.Form.NFKD);
      StringBuilder out = new StringBuilder(apart.length());
      apart
          .codePoints()
          .filter(c -> Character.getType(c) != Character.NON_SPACING_MARK)
          .forEach(out::appendCodePoint);
      return out;
    }
  }

  /** Leaves out punctuation and symbols (Unicode categories P and S); spaces stay. */
  static final class IgnorePunctuation extends CellStep {
    private static final long serialVersionUID = 1L;

    IgnorePunctuation() {
      super("ignore-punctuation");
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      for (int i = start; i < end; i++) {
        byte c = text[i];
        if (!(c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c == ' ')) {
          return true;
        }
      }
      return false;
    }

    @Override
    CharSequence changed(String cell) {
      StringBuilder out = new StringBuilder(cell.length());
      cell.codePoints().filter(c -> !punctuation(c)).forEach(out::appendCodePoint);
      return out;
    }

    private static boolean punctuation(int c) {
      return switch (Character.getType(c)) {
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
            true;
        default -> false;
      };
    }
  }

  /** Keeps digits only; a decimal digit of any script becomes the plain one. */
  static final class DigitsOnly extends CellStep {
    private static final long serialVersionUID = 1L;

    DigitsOnly() {
      super("digits-only");
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      for (int i = start; i < end; i++) {
        if (text[i] < '0' || text[i] > '9') {
          return true;
        }
      }
      return false;
    }

    @Override
    CharSequence changed(String cell) {
      StringBuilder out = new StringBuilder(cell.length());
      cell.codePoints()
          .map(c -> Character.digit(c, 10))
          .filter(digit -> digit >= 0)
          .forEach(out::append);
      return out;
    }
  }
}
