package org.abletwine.table.text;

import java.io.Serializable;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;

/**
 * The order of a column's values: numbers as exact decimals, dates and times as such, text by code
 * point. The declared type of the column decides; where there is none, its values do, through a
 * {@link Finder}. Spaces around a value play no part. Immutable; safe to share between threads.
 */
public final class ValueOrder implements Serializable {
  private static final long serialVersionUID = 1L;

  private final ColumnType.Kind kind;
  private final DatePatterns dates;

  private ValueOrder(ColumnType.Kind kind, List<String> patterns) {
    this.kind = kind;
    this.dates = new DatePatterns(patterns);
  }

  /**
   * The order of a column whose type is stated.
   *
   * @param type the type
   */
  public static ValueOrder of(ColumnType type) {
    return new ValueOrder(type.kind(), type.patterns());
  }

  /**
   * @param text what stands in a cell
   * @return whether it is a value of this order
   */
  public boolean fits(String text) {
    return switch (kind) {
      case NUMBER -> number(text) != null;
      case INTEGER -> whole(number(text));
      case DATE, DATE_TIME -> time(text) != null;
      case TEXT, BOOLEAN -> true;
    };
  }

  /**
   * Compares two values.
   *
   * @param one a value that {@linkplain #fits fits}
   * @param other another
   * @return below 0 when {@code one} comes first, 0 when they are equal, else above 0
   */
  public int compare(String one, String other) {
    return switch (kind) {
      case NUMBER, INTEGER -> compare(number(one), number(other), one, other);
      case DATE, DATE_TIME -> compare(time(one), time(other), one, other);
      case TEXT, BOOLEAN -> byCodePoint(one.strip(), other.strip());
    };
  }

  private static <T extends Comparable<? super T>> int compare(
      @Nullable T a, @Nullable T b, String one, String other) {
    if (a == null || b == null) {
      throw new IllegalArgumentException(
          "not of this order: \"" + (a == null ? one : other) + "\"");
    }
    return a.compareTo(b);
  }

  /** Returns what a value of this order is called, such as {@code a number}. */
  public String noun() {
    return switch (kind) {
      case NUMBER -> "a number";
      case INTEGER -> "a whole number";
      case DATE -> "a date";
      case DATE_TIME -> "a date and time";
      case TEXT, BOOLEAN -> "text";
    };
  }

  private static @Nullable BigDecimal number(String text) {
    return DecimalText.read(text);
  }

  private static boolean whole(@Nullable BigDecimal number) {
    return number != null && number.stripTrailingZeros().scale() <= 0;
  }

  private @Nullable LocalDateTime time(String text) {
    return dates.read(text.strip());
  }

  /**
   * Compares text by code point, as ISO SQL's simplest collation does.
   *
   * @param one a text
   * @param other another
   * @return as {@link #compare}
   */
  public static int byCodePoint(String one, String other) {
    int length = Math.min(one.length(), other.length());
    for (int i = 0; i < length; i++) {
      char a = one.charAt(i);
      char b = other.charAt(i);
      if (a != b) {
        // Surrogates stand for code points above all others, though their code units are lower.
        boolean pairs = Character.isSurrogate(a) != Character.isSurrogate(b);
        return pairs ? (Character.isSurrogate(a) ? 1 : -1) : Character.compare(a, b);
      }
    }
    return Integer.compare(one.length(), other.length());
  }

  @Override
  public String toString() {
    return "ValueOrder[" + kind + "]";
  }

  /**
   * Finds the order of a column without a stated type from all of its values: numbers when each is
   * one, dates and times when each is one of ISO 8601, else text. Used by one thread.
   */
  public static final class Finder {
    private final ValueOrder numbers = of(ColumnType.of(ColumnType.Kind.NUMBER));
    private final ValueOrder times = of(ColumnType.of(ColumnType.Kind.DATE_TIME));
    private boolean allNumbers = true;
    private boolean allTimes = true;

    /**
     * Takes a value into account.
     *
     * @param text what stands in the cell
     * @return whether all values so far are numbers, or all are dates and times
     */
    public boolean look(String text) {
      allNumbers = allNumbers && numbers.fits(text);
      allTimes = allTimes && times.fits(text);
      return allNumbers || allTimes;
    }

    /** Returns the order that fits all values seen. */
    public ValueOrder order() {
      return allNumbers ? numbers : allTimes ? times : of(ColumnType.of(ColumnType.Kind.TEXT));
    }
  }
}
