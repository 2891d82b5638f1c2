package org.abletwine.table.text;

import java.io.Serializable;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.temporal.ChronoField;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * How dates and times are written in a column: by stated patterns, tried in turn, or else as ISO
 * 8601 says. Month names are English. Safe to share between threads.
 */
public final class DatePatterns implements Serializable {
  /** What is not a date. */
  public static final long NONE = Long.MIN_VALUE;

  /** The last year that dates are read and written in. */
  public static final int LAST_YEAR = 9999;

  /** Characters of a date as ISO 8601 writes it. */
  public static final int DAY_LENGTH = 10;

  private static final int MOST_YEAR = 10;

  private static final long serialVersionUID = 1L;

  private final List<String> patterns;
  private transient volatile DateTimeFormatter @Nullable [] formatters;

  /**
   * @param patterns how they are written; none for ISO 8601
   * @throws IllegalArgumentException when a pattern cannot be read
   */
  public DatePatterns(List<String> patterns) {
    this.patterns = List.copyOf(patterns);
    formatters();
  }

  /** Returns whether there are no patterns, so that ISO 8601 holds. */
  public boolean plain() {
    return patterns.isEmpty();
  }

  /**
   * What a pattern reads and writes: strictly, whatever the case of its letters.
   *
   * @param pattern the pattern; {@code y} stands for the year as {@code u} does
   * @throws IllegalArgumentException when it cannot be read
   */
  public static DateTimeFormatter formatter(String pattern) {
    if (outsideQuotes(pattern)
        .contains("u".repeat(MOST_YEAR + 1))) { // known to fail once it writes
      throw new IllegalArgumentException("a year of more than " + MOST_YEAR + " letters");
    }
    DateTimeFormatterBuilder builder =
        new DateTimeFormatterBuilder().parseCaseInsensitive().appendPattern(outsideQuotes(pattern));
    if (letters(pattern).indexOf('H') < 0 && letters(pattern).indexOf('h') < 0) {
      builder.parseDefaulting(ChronoField.SECOND_OF_DAY, 0);
    }
    return builder.toFormatter(Locale.ENGLISH).withResolverStyle(ResolverStyle.STRICT);
  }

  /** The pattern with the year of its era read as the plain year; quoted text stays. */
  private static String outsideQuotes(String pattern) {
    StringBuilder plain = new StringBuilder();
    boolean quoted = false;
    for (char c : pattern.toCharArray()) {
      quoted ^= c == '\'';
      plain.append(c == 'y' && !quoted ? 'u' : c);
    }
    return plain.toString();
  }

  /** The letters of a pattern that stand for something. */
  private static String letters(String pattern) {
    return pattern.replaceAll("'[^']*'", "");
  }

  private DateTimeFormatter[] formatters() {
    DateTimeFormatter[] known = formatters;
    if (known == null) {
      known = patterns.stream().map(DatePatterns::formatter).toArray(DateTimeFormatter[]::new);
      formatters = known;
    }
    return known;
  }

  /**
   * Reads a date, or a date and time.
   *
   * @param text the text, nothing around it
   * @return the time, midnight where only a day is given; null when it is neither
   */
  public @Nullable LocalDateTime read(String text) {
    if (plain()) {
      if (text.length() == DAY_LENGTH) {
        long day = isoDay(text);
        return day == NONE ? null : LocalDate.ofEpochDay(day).atStartOfDay();
      }
      try {
        return known(
            text.indexOf('T') < 0 && text.indexOf(' ') < 0
                ? LocalDate.parse(text).atStartOfDay()
                : LocalDateTime.parse(text.replace(' ', 'T')));
      } catch (DateTimeException e) {
        return null;
      }
    }
    for (DateTimeFormatter formatter : formatters()) {
      try {
        return known(LocalDateTime.parse(text, formatter));
      } catch (DateTimeException e) {
        continue; // the next pattern may fit
      }
    }
    return null;
  }

  /** Years before 1 and beyond 9999 are no dates here, as in ISO SQL. */
  private static @Nullable LocalDateTime known(LocalDateTime time) {
    return time.getYear() >= 1 && time.getYear() <= LAST_YEAR ? time : null;
  }

  /**
   * Reads the day of a date, or of a date and time, spaces around it left out.
   *
   * @param text where it stands
   * @param start its first byte, 0-based
   * @param end its end, exclusive
   * @return days since 1970-01-01, or {@link #NONE}
   */
  public long day(byte[] text, int start, int end) {
    if (plain() && end - start == DAY_LENGTH && text[start] != ' ') {
      return isoDay(text, start);
    }
    LocalDateTime read = read(Utf8.text(text, start, end).strip());
    return read == null ? NONE : read.toLocalDate().toEpochDay();
  }

  /**
   * Reads a day as ISO 8601 writes it.
   *
   * @param text the text, nothing around it
   * @return days since 1970-01-01, or {@link #NONE}
   */
  public static long isoDay(String text) {
    return text.length() == DAY_LENGTH
        ? isoDay(text.getBytes(StandardCharsets.ISO_8859_1), 0)
        : NONE;
  }

  /**
   * Reads a day as ISO 8601 writes it, without making an object of it.
   *
   * @param text at least ten bytes from there on
   * @param at its first byte, 0-based
   * @return days since 1970-01-01, or {@link #NONE}
   */
  public static long isoDay(byte[] text, int at) {
    int year = digits(text, at, 4);
    int month = digits(text, at + 5, 2);
    int day = digits(text, at + 8, 2);
    if (year < 1 || month < 1 || month > 12 || day < 1 || day > 31) {
      return NONE;
    }
    if (text[at + 4] != '-' || text[at + 7] != '-') {
      return NONE;
    }
    if (day > 28 && day > YearMonth.of(year, month).lengthOfMonth()) {
      return NONE;
    }
    return epochDay(year, month, day);
  }

  private static int digits(byte[] text, int at, int count) {
    int value = 0;
    for (int i = at; i < at + count; i++) {
      int digit = text[i] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      value = value * 10 + digit;
    }
    return value;
  }

  /** Days since 1970-01-01 (Hinnant, chrono-compatible low-level date algorithms). */
  private static long epochDay(int year, int month, int day) {
    int shifted = month <= 2 ? year - 1 : year;
    int era = Math.floorDiv(shifted, 400);
    int yearOfEra = shifted - era * 400;
    int dayOfYear = (153 * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
    int dayOfEra = yearOfEra * 365 + yearOfEra / 4 - yearOfEra / 100 + dayOfYear;
    return era * 146_097L + dayOfEra - 719_468;
  }

  @Override
  public String toString() {
    return plain() ? "ISO 8601" : String.join(" | ", patterns);
  }
}
