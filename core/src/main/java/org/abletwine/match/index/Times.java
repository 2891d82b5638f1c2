package org.abletwine.match.index;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;

/**
 * Days and times of day, counted in seconds or in a decimal part of them: the finest that the
 * reference holds. What is finer lies between.
 */
final class Times implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long DAY = 86_400;
  private static final int NANO_PLACES = 9;

  /** Decimal places of a second with which every year up to 9999 can be counted. */
  static final int MOST_PLACES = 6;

  private final boolean withTime;
  private final DatePatterns dates;
  private final int places;

  /** How many of the units counted make a second. */
  private final long second;

  /** The second counted from. */
  private final long origin;

  /** The farthest second from there that can be counted. */
  private final long farthest;

  /**
   * @param withTime whether the reference holds times of day
   * @param patterns how dates are written, or none for ISO 8601
   * @param places decimal places of a second that are told apart, 0 to 10
   * @param origin the second counted from, as seconds since 1970-01-01
   */
  Times(boolean withTime, List<String> patterns, int places, long origin) {
    this.origin = origin;
    this.withTime = withTime;
    this.dates = new DatePatterns(patterns);
    this.places = places;
    this.second = BigDecimal.TEN.pow(places).longValueExact();
    this.farthest = FARTHEST / 2 / second - 1;
  }

  /** Decimal places of a second that a time has. */
  static int places(LocalDateTime time) {
    int places = NANO_PLACES;
    int nanos = time.getNano();
    while (places > 0 && nanos % 10 == 0) {
      nanos /= 10;
      places--;
    }
    return places;
  }

  /** Decimal places of a second that a count of days has, as far as times have any. */
  static int places(BigDecimal days) {
    int scale = days.multiply(BigDecimal.valueOf(DAY)).stripTrailingZeros().scale();
    return Math.max(0, Math.min(NANO_PLACES, scale));
  }

  /** How many seconds can be counted with so many decimal places, one way. */
  static long span(int places) {
    return BigDecimal.valueOf(FARTHEST / 4).movePointLeft(places).longValue();
  }

  /** Whether a text is a day as ISO 8601 writes it, where the column does. */
  boolean isDay(byte[] text, int start, int end) {
    return dates.plain()
        && end - start == DatePatterns.DAY_LENGTH
        && DatePatterns.isoDay(text, start) != DatePatterns.NONE;
  }

  @Override
  public long coordinate(byte[] text, int start, int end) {
    if (dates.plain() && end - start == DatePatterns.DAY_LENGTH) {
      long day = DatePatterns.isoDay(text, start);
      return day == DatePatterns.NONE ? UNFIT : coordinate(DAY * day, 0);
    }
    LocalDateTime time = dates.read(Utf8.text(text, start, end));
    return time == null ? UNFIT : coordinate(time.toEpochSecond(ZoneOffset.UTC), time.getNano());
  }

  private long coordinate(long since1970, int nanos) {
    long seconds = since1970 - origin;
    if (Math.abs(seconds) > farthest) {
      return seconds < 0 ? -FARTHEST + 1 : FARTHEST - 1; // beyond any of the reference
    }
    if (places >= NANO_PLACES) {
      return 2 * (seconds * second + nanos * (second / 1_000_000_000));
    }
    long unit = 1_000_000_000 / second;
    return 2 * (seconds * second + nanos / unit) + (nanos % unit == 0 ? 0 : 1);
  }

  /** How far so many days reach, in coordinates. */
  long reach(BigDecimal days) {
    BigDecimal units =
        days.multiply(BigDecimal.valueOf(DAY))
            .multiply(BigDecimal.valueOf(second))
            .setScale(0, RoundingMode.FLOOR);
    boolean fits = units.compareTo(BigDecimal.valueOf(FARTHEST / 2)) < 0;
    return fits ? 2 * units.longValue() : FARTHEST;
  }

  @Override
  public String show(long coordinate) {
    long units = Math.floorDiv(coordinate, 2);
    long part = Math.floorMod(units, second);
    long nanos =
        places >= NANO_PLACES ? part / (second / 1_000_000_000) : part * (1_000_000_000 / second);
    LocalDateTime time =
        LocalDateTime.ofEpochSecond(
            origin + Math.floorDiv(units, second), (int) nanos, ZoneOffset.UTC);
    return withTime ? time.toString() : time.toLocalDate().toString();
  }

  @Override
  public String distance(long one, long other) {
    BigDecimal seconds =
        BigDecimal.valueOf(Math.abs(one - other))
            .divide(BigDecimal.valueOf(2))
            .movePointLeft(places);
    if (withTime && seconds.compareTo(BigDecimal.valueOf(DAY / 24)) < 0) {
      return counted(seconds.setScale(Math.min(3, places), RoundingMode.UP), "second");
    }
    return counted(seconds.divide(BigDecimal.valueOf(DAY), 2, RoundingMode.HALF_UP), "day");
  }

  private static String counted(BigDecimal count, String unit) {
    String number = count.stripTrailingZeros().toPlainString();
    return number + " " + unit + (count.compareTo(BigDecimal.ONE) == 0 ? "" : "s");
  }

  @Override
  public String noun() {
    return withTime ? "a date and time" : "a date";
  }
}
