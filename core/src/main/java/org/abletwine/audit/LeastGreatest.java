package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.Arrays;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * The least and the greatest value of a column, as first written: as numbers as long as each is
 * one, else by code point, which is the order of UTF-8's bytes and puts dates of ISO 8601 in order
 * too. Used by one thread.
 */
final class LeastGreatest {
  private boolean any;
  private boolean allNumbers = true;
  private byte[] leastText = {};
  private byte[] greatestText = {};
  private Held least = Held.NONE;
  private Held greatest = Held.NONE;

  /**
   * A number.
   *
   * @param digits its digits, or 0 where it is wide
   * @param places its decimal places
   * @param wide the number where it is written in another way than plainly; null for plain ones
   * @param written as it was written
   * @param row the first row that has it so
   */
  private record Held(
      long digits, int places, @Nullable BigDecimal wide, byte[] written, long row) {
    static final Held NONE = new Held(0, 0, null, new byte[0], 0);

    /** This one, or another that is less; of equals that which stands first. */
    Held lesser(Held other) {
      int order = number().compareTo(other.number());
      return order < 0 || order == 0 && row <= other.row ? this : other;
    }

    /** This one, or another that is greater; of equals that which stands first. */
    Held greater(Held other) {
      int order = number().compareTo(other.number());
      return order > 0 || order == 0 && row <= other.row ? this : other;
    }

    BigDecimal number() {
      return wide == null ? BigDecimal.valueOf(digits, places) : wide;
    }

    int compare(long otherDigits, int otherPlaces) {
      return wide == null && places == otherPlaces
          ? Long.compare(digits, otherDigits)
          : number().compareTo(BigDecimal.valueOf(otherDigits, otherPlaces));
    }
  }

  /** Takes a value into account. */
  void look(byte[] text, int start, int end, long row) {
    if (!any || Arrays.compareUnsigned(text, start, end, leastText, 0, leastText.length) < 0) {
      leastText = Arrays.copyOfRange(text, start, end);
    }
    if (!any
        || Arrays.compareUnsigned(text, start, end, greatestText, 0, greatestText.length) > 0) {
      greatestText = Arrays.copyOfRange(text, start, end);
    }
    if (allNumbers) {
      number(text, start, end, row);
    }
    any = true;
  }

  /** Takes into account what another worker has seen. */
  void merge(LeastGreatest other) {
    if (!other.any) {
      return;
    }
    if (!any || Arrays.compareUnsigned(other.leastText, leastText) < 0) {
      leastText = other.leastText;
    }
    if (!any || Arrays.compareUnsigned(other.greatestText, greatestText) > 0) {
      greatestText = other.greatestText;
    }
    allNumbers &= other.allNumbers;
    if (allNumbers) {
      least = any ? least.lesser(other.least) : other.least;
      greatest = any ? greatest.greater(other.greatest) : other.greatest;
    }
    any = true;
  }

  private void number(byte[] text, int start, int end, long row) {
    boolean bare = start < end && text[start] > ' ' && text[end - 1] > ' ';
    long plain = bare ? DecimalText.plain(text, start, end) : DecimalText.NOT_PLAIN;
    if (plain != DecimalText.NOT_PLAIN) {
      long digits = DecimalText.digits(plain);
      int places = DecimalText.places(plain);
      if (!any || least.compare(digits, places) > 0) {
        least = new Held(digits, places, null, Arrays.copyOfRange(text, start, end), row);
      }
      if (!any || greatest.compare(digits, places) < 0) {
        greatest = new Held(digits, places, null, Arrays.copyOfRange(text, start, end), row);
      }
      return;
    }
    boolean likely = end - start <= DecimalText.MOST_CHARACTERS;
    BigDecimal wide = likely ? DecimalText.read(Utf8.text(text, start, end)) : null;
    if (wide == null) {
      allNumbers = false;
      return;
    }
    if (!any || least.number().compareTo(wide) > 0) {
      least = new Held(0, 0, wide, Arrays.copyOfRange(text, start, end), row);
    }
    if (!any || greatest.number().compareTo(wide) < 0) {
      greatest = new Held(0, 0, wide, Arrays.copyOfRange(text, start, end), row);
    }
  }

  /** The least value; null when there was none. */
  @Nullable String least() {
    return any ? shown(allNumbers ? least.written() : leastText) : null;
  }

  /** The greatest value; null when there was none. */
  @Nullable String greatest() {
    return any ? shown(allNumbers ? greatest.written() : greatestText) : null;
  }

  private static String shown(byte[] text) {
    return Utf8.text(text, 0, text.length);
  }
}
