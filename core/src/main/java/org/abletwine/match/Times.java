package org.abletwine.match;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.temporal.ChronoField;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Days and times of day, counted in seconds; fractions of a second lie between. */
final class Times implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long DAY = 86_400;

  private final boolean withTime;
  private final List<String> patterns;
  private transient DateTimeFormatter @Nullable [] formatters;

  /**
   * @param withTime whether the reference holds times of day
   * @param patterns how dates are written, or none for ISO 8601
   */
  Times(boolean withTime, List<String> patterns) {
    this.withTime = withTime;
    this.patterns = List.copyOf(patterns);
  }

  @Override
  public long coordinate(char[] text, int start, int end) {
    if (patterns.isEmpty() && end - start == 10) {
      return isoDay(text, start);
    }
    return slow(new String(text, start, end - start));
  }

  private static long isoDay(char[] text, int at) {
    int year = digits(text, at, 4);
    int month = digits(text, at + 5, 2);
    int day = digits(text, at + 8, 2);
    if (year < 0 || month < 1 || month > 12 || day < 1 || day > 31) {
      return UNFIT;
    }
    if (text[at + 4] != '-' || text[at + 7] != '-') {
      return UNFIT;
    }
    if (day > 28 && day > java.time.YearMonth.of(year, month).lengthOfMonth()) {
      return UNFIT;
    }
    return 2 * DAY * epochDay(year, month, day);
  }

  private static int digits(char[] text, int at, int count) {
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

  private long slow(String text) {
    LocalDateTime time = parse(text);
    if (time == null) {
      return UNFIT;
    }
    return 2 * time.toEpochSecond(ZoneOffset.UTC) + (time.getNano() == 0 ? 0 : 1);
  }

  private @Nullable LocalDateTime parse(String text) {
    if (patterns.isEmpty()) {
      try {
        return text.indexOf('T') < 0 && text.indexOf(' ') < 0
            ? LocalDate.parse(text).atStartOfDay()
            : LocalDateTime.parse(text.replace(' ', 'T'));
      } catch (DateTimeException e) {
        return null;
      }
    }
    for (DateTimeFormatter formatter : formatters()) {
      try {
        return LocalDateTime.parse(text, formatter);
      } catch (DateTimeException e) {
        continue; // the next pattern may fit
      }
    }
    return null;
  }

  private DateTimeFormatter[] formatters() {
    DateTimeFormatter[] known = formatters;
    if (known == null) {
      known = patterns.stream().map(Times::formatter).toArray(DateTimeFormatter[]::new);
      formatters = known;
    }
    return known;
  }

  private static DateTimeFormatter formatter(String pattern) {
    DateTimeFormatterBuilder builder =
        new DateTimeFormatterBuilder()
            .parseCaseInsensitive()
            .appendPattern(pattern.replace('y', 'u'));
    if (pattern.indexOf('H') < 0 && pattern.indexOf('h') < 0) {
      builder.parseDefaulting(ChronoField.SECOND_OF_DAY, 0);
    }
    return builder.toFormatter(Locale.ENGLISH).withResolverStyle(ResolverStyle.STRICT);
  }

  /** Days as seconds. */
  static @Nullable Long seconds(BigDecimal days) {
    try {
      return days.multiply(BigDecimal.valueOf(DAY))
          .setScale(0, RoundingMode.FLOOR)
          .longValueExact();
    } catch (ArithmeticException e) {
      return null;
    }
  }

  @Override
  public String show(long coordinate) {
    LocalDateTime time =
        LocalDateTime.ofEpochSecond(Math.floorDiv(coordinate, 2), 0, ZoneOffset.UTC);
    return withTime ? time.toString() : time.toLocalDate().toString();
  }

  @Override
  public String distance(long one, long other) {
    BigDecimal days =
        BigDecimal.valueOf(Math.abs(one - other))
            .divide(BigDecimal.valueOf(2 * DAY), 2, RoundingMode.HALF_UP)
            .stripTrailingZeros();
    return days.toPlainString() + (days.compareTo(BigDecimal.ONE) == 0 ? " day" : " days");
  }

  @Override
  public String noun() {
    return withTime ? "a date and time" : "a date";
  }
}
