package org.abletwine.table.text;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.math.BigDecimal;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * Decimal numbers as text: plainly, without an exponent, with all their places. Eight digits at a
 * time as the bytes of a long, by three divisions that multiply with reciprocals (Khuong, "How to
 * print integers really fast", 2017), so that numbers of different lengths cost no mispredicted
 * branches. Safe for use by several threads.
 */
public final class DecimalText {
  /** What is no number written plainly. */
  public static final long NOT_PLAIN = Long.MIN_VALUE;

  /** Bytes that {@link #write} needs at most. */
  public static final int MOST_BYTES = 32;

  /** Decimal places a number of one long may have. */
  public static final int MOST_PLACES = 18;

  /** Characters of a number at most: one of a thousand digits and as many places is read back. */
  public static final int MOST_CHARACTERS = 2_100;

  /** The greatest exponent of ten, and the most decimal places. */
  public static final int MOST_EXPONENT = 1000;

  /** Digits of a number written plainly, at most. */
  public static final int MOST_PLAIN_DIGITS = 17;

  private static final int PLACES_BITS = 5;
  private static final int AT_ONCE = 8;
  private static final long BEYOND = 100_000_000;
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ONES = 0x0101010101010101L;
  private static final long HIGHS = ONES << 7;
  private static final long ZEROS = ONES * '0';
  private static final long POINTS = ONES * '.';
  private static final long ABOVE_NINE = ONES * (0x7F - '9');
  private static final long[] POWERS = new long[MOST_PLACES + 1];

  static {
    POWERS[0] = 1;
    for (int i = 1; i < POWERS.length; i++) {
      POWERS[i] = POWERS[i - 1] * 10;
    }
  }

  private DecimalText() {}

  /**
   * Ten to a power.
   *
   * @param exponent the power, 0 to 18
   */
  public static long power(int exponent) {
    return POWERS[exponent];
  }

  /**
   * Reads a number as most are written: up to {@value #MOST_PLAIN_DIGITS} digits with or without
   * sign and point, white space around it left out. Up to eight characters at once, as the bytes of
   * a long (Lemire and Langdale, "Parsing gigabytes of JSON per second", 2019).
   *
   * @param text where it stands, UTF-8
   * @param from its first byte, 0-based
   * @param to its end, exclusive
   * @return {@linkplain #digits its digits} and {@linkplain #places places} in one number; {@link
   *     #NOT_PLAIN} when it is written otherwise or is none, which {@link #read} tells
   */
  public static long plain(byte[] text, int from, int to) {
    int length = to - from;
    if (length > 0 && length <= AT_ONCE && from + AT_ONCE <= text.length) {
      long value = upToEight(text, from, length);
      if (value != NOT_PLAIN) {
        return value;
      }
    }
    return digitByDigit(text, from, to);
  }

  /** Digits, and perhaps a point among them; {@link #NOT_PLAIN} for all else. */
  static long upToEight(byte[] text, int from, int length) {
    int spare = Long.SIZE - (length << 3);
    long word = (long) WORD.get(text, from) << spare | ZEROS & (1L << spare) - 1;
    long difference = word ^ POINTS;
    long point = difference - ONES & ~difference & HIGHS;
    int places = 0;
    if (point != 0) {
      int bit = Long.numberOfTrailingZeros(point) & ~7;
      places = 7 - (bit >>> 3);
      long before = word & (1L << bit) - 1;
      long after = word & -2L << bit + 7;
      word = before << 8 | after | '0';
      if (length == 1) {
        return NOT_PLAIN;
      }
    }
    if (((word + ABOVE_NINE | word - ZEROS) & HIGHS) != 0) {
      return NOT_PLAIN;
    }
    long digits = word - ZEROS;
    digits = digits * 10 + (digits >>> 8);
    long value =
        (digits & 0x000000FF000000FFL) * (100 + (1_000_000L << 32))
                + (digits >>> 16 & 0x000000FF000000FFL) * (1 + (10_000L << 32))
            >>> 32;
    return value << PLACES_BITS | places;
  }

  private static long digitByDigit(byte[] text, int from, int to) {
    int at = from;
    int end = to;
    while (at < end && isSpace(text[at])) {
      at++;
    }
    while (end > at && isSpace(text[end - 1])) {
      end--;
    }
    boolean negative = at < end && text[at] == '-';
    at += negative || at < end && text[at] == '+' ? 1 : 0;
    if (end - at > MOST_PLAIN_DIGITS + 1) {
      return NOT_PLAIN;
    }
    int first = at;
    int point = -1;
    long value = 0;
    for (; at < end; at++) {
      int digit = text[at] - '0';
      if (digit >= 0 && digit <= 9) {
        value = value * 10 + digit;
      } else if (text[at] == '.' && point < 0) {
        point = at;
      } else {
        return NOT_PLAIN;
      }
    }
    int digits = end - first - (point < 0 ? 0 : 1);
    if (digits == 0 || digits > MOST_PLAIN_DIGITS) {
      return NOT_PLAIN;
    }
    int places = point < 0 ? 0 : end - point - 1;
    return (negative ? -value : value) << PLACES_BITS | places;
  }

  /** What {@link #canonical} gives for a text that would not come back as it is. */
  public static final long NOT_CANONICAL = -1;

  /**
   * Whether a number is written as numbers come back that were kept as such: digits, at most a
   * minus before them and a point within; no zeros before, no sign before zero.
   *
   * @param text where it stands, UTF-8
   * @param from its first byte, 0-based
   * @param to its end, exclusive
   * @return digits before the point in the upper half, decimal places in the lower; {@link
   *     #NOT_CANONICAL} when it is written otherwise or is none
   */
  public static long canonical(byte[] text, int from, int to) {
    int at = from < to && text[from] == '-' ? from + 1 : from;
    int point = -1;
    boolean zero = true;
    for (int i = at; i < to; i++) {
      if (text[i] == '.' && point < 0) {
        point = i;
      } else if (text[i] < '0' || text[i] > '9') {
        return NOT_CANONICAL;
      }
      zero &= text[i] == '0' || text[i] == '.';
    }
    int whole = (point < 0 ? to : point) - at;
    int places = point < 0 ? 0 : to - point - 1;
    boolean canonical =
        whole > 0
            && (point < 0 || places > 0)
            && (text[at] != '0' || whole == 1)
            && !(zero && at > from);
    return canonical ? (long) whole << Integer.SIZE | places : NOT_CANONICAL;
  }

  private static boolean isSpace(byte b) {
    return b == ' ' || b >= '\t' && b <= '\r' || b >= 0x1C && b < ' ';
  }

  /** The digits of what {@link #plain} gave, sign included. */
  public static long digits(long plain) {
    return plain >> PLACES_BITS;
  }

  /** How many of the digits of what {@link #plain} gave are decimal places. */
  public static int places(long plain) {
    return (int) plain & (1 << PLACES_BITS) - 1;
  }

  /**
   * Reads a number: ASCII digits, with or without sign, point and exponent, white space around it
   * left out. One of more than {@value #MOST_CHARACTERS} characters, or with an exponent beyond
   * {@value #MOST_EXPONENT}, is none: it could not be computed with in bounded time.
   *
   * @param text what stands in a cell
   * @return the number, or null when the text is none
   */
  public static @Nullable BigDecimal read(String text) {
    String bare = text.strip();
    int length = bare.length();
    if (length == 0 || length > MOST_CHARACTERS) {
      return null;
    }
    for (int i = 0; i < length; i++) {
      if (bare.charAt(i) >= 0x80) {
        return null; // digits of other scripts are digits to the library
      }
    }
    try {
      BigDecimal value = new BigDecimal(bare);
      return Math.abs((long) value.scale()) > MOST_EXPONENT ? null : value;
    } catch (NumberFormatException e) {
      return null;
    }
  }

  /**
   * Writes a number.
   *
   * @param unscaled its digits
   * @param places how many of them are decimal places, 0 to 18
   * @param into where to write; has room for {@link #MOST_BYTES}, of which some behind the end may
   *     change
   * @param from where to begin, 0-based
   * @return where it ends, exclusive
   */
  public static int write(long unscaled, int places, byte[] into, int from) {
    long rest = unscaled;
    int at = from;
    if (rest < 0) {
      if (rest == Long.MIN_VALUE) {
        return writeLeast(places, into, from);
      }
      rest = -rest;
      into[at++] = '-';
    }
    if (rest < BEYOND && places < AT_ONCE) {
      return upToEight((int) rest, places, into, at);
    }
    if (places == 0) {
      return integer(rest, into, at);
    }
    long whole = shorter(rest, places);
    at = integer(whole, into, at);
    into[at] = '.';
    return fraction(rest - whole * POWERS[places], places, into, at + 1);
  }

  /** The one number whose opposite does not fit. */
  private static int writeLeast(int places, byte[] into, int from) {
    String text = BigDecimal.valueOf(Long.MIN_VALUE, places).toPlainString();
    byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
    System.arraycopy(bytes, 0, into, from, bytes.length);
    return from + bytes.length;
  }

  /**
   * A number without its last digits: division by a constant costs a tenth of any other.
   *
   * @param number the number
   * @param drop how many digits, 0 to 18
   * @return what is left, cut off towards zero
   */
  public static long shorter(long number, int drop) {
    return switch (drop) {
      case 1 -> number / 10;
      case 2 -> number / 100;
      case 3 -> number / 1_000;
      case 4 -> number / 10_000;
      case 5 -> number / 100_000;
      case 6 -> number / 1_000_000;
      default -> number / POWERS[drop];
    };
  }

  private static int integer(long number, byte[] into, int from) {
    if (number < BEYOND) {
      return upToEight((int) number, 0, into, from);
    }
    long whole = number / BEYOND;
    int at = integer(whole, into, from);
    eight((int) (number - whole * BEYOND), AT_ONCE, into, at);
    return at + AT_ONCE;
  }

  private static int fraction(long number, int places, byte[] into, int from) {
    if (places <= AT_ONCE) {
      eight((int) number, places, into, from);
      return from + places;
    }
    long whole = number / BEYOND;
    int at = fraction(whole, places - AT_ONCE, into, from);
    eight((int) (number - whole * BEYOND), AT_ONCE, into, at);
    return at + AT_ONCE;
  }

  /** The digits of a number of up to eight, the first lowest, leading zeros included. */
  private static long digits(int number) {
    int high = number / 10_000;
    long halves = high | (long) (number - high * 10_000) << 32;
    long hundreds = halves * 10_486 >>> 20 & 0x0000007F0000007FL;
    long pairs = hundreds | halves - 100 * hundreds << 16;
    long tens = pairs * 103 >>> 10 & 0x000F000F000F000FL;
    return tens | pairs - 10 * tens << 8;
  }

  /**
   * Writes a number of up to eight digits, of which fewer than eight are decimal places, without
   * leading zeros; seventeen bytes from there on change.
   */
  private static int upToEight(int number, int places, byte[] into, int from) {
    long digits = digits(number);
    // One digit before the point stays, be it zero.
    int zeros = Long.numberOfTrailingZeros(digits | 1L << (7 - places << 3)) & ~7;
    long text = (digits | ZEROS) >>> zeros;
    int end = from + AT_ONCE - (zeros >>> 3);
    WORD.set(into, from, text);
    if (places == 0) {
      return end;
    }
    int point = end - places;
    into[point] = '.';
    WORD.set(into, point + 1, text >>> (point - from << 3));
    return end + 1;
  }

  /** Writes a number with leading zeros to a count of digits; eight bytes from there on change. */
  private static void eight(int number, int count, byte[] into, int from) {
    WORD.set(into, from, (digits(number) | ZEROS) >>> Long.SIZE - (count << 3));
  }
}
