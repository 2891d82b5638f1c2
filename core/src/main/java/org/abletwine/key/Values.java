package org.abletwine.key;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.DataException;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;

/** Steps that read a cell as something: a number, a date, a pattern. */
final class Values {
  private Values() {}

  /** Fills up with zeros on the left, to so many characters. */
  static final class PadZeros extends CellStep {
    private static final long serialVersionUID = 1L;

    private final int width;

    PadZeros(int width) {
      super("pad-zeros: " + width);
      this.width = width;
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      return end > start && Utf8.points(text, start, end) < width;
    }

    @Override
    CharSequence changed(String cell) {
      return "0".repeat(Math.max(0, width - cell.codePointCount(0, cell.length()))) + cell;
    }
  }

  /**
   * Makes numbers of one value one text: {@code 7}, {@code 7.0} and {@code 007}; {@code 1e3} and
   * {@code 1000}. What is not a decimal number stays as it is. Exact: nothing is rounded.
   */
  static final class AsNumber extends CellStep {
    private static final long serialVersionUID = 1L;
    private static final int MOST_CHARACTERS = 60;
    private static final int MOST_EXPONENT = 60;

    AsNumber() {
      super("as-number");
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      boolean plain = end > start && (text[start] != '0' || end - start == 1);
      for (int i = start; i < end && plain; i++) {
        plain = text[i] >= '0' && text[i] <= '9';
      }
      return !plain && end - start <= Utf8.MOST_BYTES * MOST_CHARACTERS;
    }

    @Override
    CharSequence changed(String cell) {
      if (cell.length() > MOST_CHARACTERS) {
        return cell;
      }
      try {
        BigDecimal number = new BigDecimal(Spaces.trimmed(cell)).stripTrailingZeros();
        // A huge exponent is kept as one: writing it out would be a text of that many digits.
        return Math.abs((long) number.scale()) <= MOST_EXPONENT
            ? number.toPlainString()
            : number.toString();
      } catch (NumberFormatException e) {
        return cell;
      }
    }
  }

  /** Makes dates of one day one text, ISO 8601; what fits none of the patterns stays as it is. */
  static final class AsDate extends CellStep {
    private static final long serialVersionUID = 1L;

    private final List<String> written;
    private final DatePatterns patterns;

    AsDate(List<String> patterns) {
      super("as-date: " + String.join(" | ", patterns));
      this.written = List.copyOf(patterns);
      this.patterns = new DatePatterns(patterns);
    }

    @Override
    public boolean equals(Object other) {
      return other instanceof AsDate that && that.written.equals(written);
    }

    @Override
    public int hashCode() {
      return written.hashCode();
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      return end > start;
    }

    @Override
    CharSequence changed(String cell) {
      LocalDateTime read = patterns.read(Spaces.trimmed(cell));
      return read == null ? cell : read.toLocalDate().toString();
    }
  }

  /** Replaces what a regular expression finds; linear in the length of the cell (re2j). */
  static final class Replace extends CellStep {
    private static final long serialVersionUID = 1L;

    /** Characters of what it makes at most. */
    private static final int MOST_TEXT = 1_000_000;

    private final Pattern pattern;
    private final String with;

    Replace(Pattern pattern, String with) {
      super("replace: " + pattern.pattern() + " with " + with);
      this.pattern = pattern;
      this.with = with;
    }

    @Override
    boolean concerns(byte[] text, int start, int end) {
      return true;
    }

    @Override
    CharSequence changed(String cell) {
      String replaced = pattern.matcher(cell).replaceAll(with);
      if (replaced.length() > MOST_TEXT) {
        throw new DataException(
            name() + ": makes a key of more than " + MOST_TEXT + " characters; put in less");
      }
      return replaced;
    }

    @Override
    public boolean equals(Object other) {
      return other instanceof Replace that
          && that.pattern.pattern().equals(pattern.pattern())
          && that.with.equals(with);
    }

    @Override
    public int hashCode() {
      return 31 * pattern.pattern().hashCode() + with.hashCode();
    }
  }
}
