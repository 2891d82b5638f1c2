package org.abletwine.table;

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
  /** Bytes that {@link #write} needs at most. */
  public static final int MOST_BYTES = 32;

  /** Decimal places a number of one long may have. */
  public static final int MOST_PLACES = 18;

  /** Characters of a number at most: one of a thousand digits and as many places is read back. */
  public static final int MOST_CHARACTERS = 2_100;

  /** The greatest exponent of ten, and the most decimal places. */
  public static final int MOST_EXPONENT = 1000;

  private static final int AT_ONCE = 8;
  private static final long BEYOND = 100_000_000;
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ZEROS = 0x0101010101010101L * '0';
  private static final long[] POWERS = new long[MOST_PLACES + 1];

  static {
    POWERS[0] = 1;
    for (int i = 1; i < POWERS.length; i++) {
      POWERS[i] = POWERS[i - 1] * 10;
    }
  }

  private DecimalText() {}

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
      return upToEight((int) number, into, from);
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

  /** Writes a number without leading zeros; eight bytes from there on change. */
  private static int upToEight(int number, byte[] into, int from) {
    long digits = digits(number);
    int zeros = Long.numberOfTrailingZeros(digits | 1L << 56) & ~7;
    WORD.set(into, from, (digits | ZEROS) >>> zeros);
    return from + AT_ONCE - (zeros >>> 3);
  }

  /** Writes a number with leading zeros to a count of digits; eight bytes from there on change. */
  private static void eight(int number, int count, byte[] into, int from) {
    WORD.set(into, from, (digits(number) | ZEROS) >>> Long.SIZE - (count << 3));
  }
}
