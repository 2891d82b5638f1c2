package org.abletwine.table.text;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Writes dates and times by a pattern. One of digits and marks, such as {@code dd.MM.yyyy HH:mm},
 * is written digit by digit; others as {@link DatePatterns#formatter} does. Immutable; safe to
 * share between threads.
 */
public final class DateForm {
  private static final Pattern DIGITS =
      Pattern.compile("(?:([dMHms])\\1?(?!\\1)|([yu])\\2{3}(?![yu])|[-./:, ])+");

  /** What is written digit by digit; null where the formatter writes. */
  private final @Nullable String digits;

  private final DateTimeFormatter formatter;

  private DateForm(@Nullable String digits, DateTimeFormatter formatter) {
    this.digits = digits;
    this.formatter = formatter;
  }

  /**
   * @param pattern the pattern, as {@link DatePatterns#formatter} takes it
   * @throws IllegalArgumentException when it cannot be read
   */
  public static DateForm of(String pattern) {
    DateTimeFormatter formatter = DatePatterns.formatter(pattern);
    return new DateForm(DIGITS.matcher(pattern).matches() ? pattern : null, formatter);
  }

  /**
   * Writes a time.
   *
   * @param time the time, of the years 1 to {@link DatePatterns#LAST_YEAR}
   * @throws java.time.DateTimeException when the pattern asks for what it does not have, such as a
   *     time zone
   */
  public String write(LocalDateTime time) {
    if (digits == null) {
      return formatter.format(time);
    }
    StringBuilder text = new StringBuilder(digits.length() + 4);
    int end;
    for (int at = 0; at < digits.length(); at = end) {
      char letter = digits.charAt(at);
      end = at + 1;
      while (end < digits.length() && digits.charAt(end) == letter) {
        end++;
      }
      int value =
          switch (letter) {
            case 'd' -> time.getDayOfMonth();
            case 'M' -> time.getMonthValue();
            case 'H' -> time.getHour();
            case 'm' -> time.getMinute();
            case 's' -> time.getSecond();
            case 'y', 'u' -> time.getYear();
            default -> -1;
          };
      if (value < 0) {
        text.append(digits, at, end);
      } else {
        String number = Integer.toString(value);
        text.append("0".repeat(Math.max(0, end - at - number.length()))).append(number);
      }
    }
    return text.toString();
  }
}
