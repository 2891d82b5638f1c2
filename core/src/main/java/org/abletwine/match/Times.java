package org.abletwine.match;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.abletwine.table.DatePatterns;
import org.jspecify.annotations.Nullable;

/** Days and times of day, counted in seconds; fractions of a second lie between. */
final class Times implements Domain {
  private static final long serialVersionUID = 1L;
  private static final long DAY = 86_400;

  private final boolean withTime;
  private final DatePatterns dates;

  /**
   * @param withTime whether the reference holds times of day
   * @param patterns how dates are written, or none for ISO 8601
   */
  Times(boolean withTime, List<String> patterns) {
    this.withTime = withTime;
    this.dates = new DatePatterns(patterns);
  }

  @Override
  public long coordinate(char[] text, int start, int end) {
    if (dates.plain() && end - start == DatePatterns.DAY_LENGTH) {
      long day = DatePatterns.isoDay(text, start);
      return day == DatePatterns.NONE ? UNFIT : 2 * DAY * day;
    }
    LocalDateTime time = dates.read(new String(text, start, end - start));
    return time == null
        ? UNFIT
        : 2 * time.toEpochSecond(ZoneOffset.UTC) + (time.getNano() == 0 ? 0 : 1);
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
