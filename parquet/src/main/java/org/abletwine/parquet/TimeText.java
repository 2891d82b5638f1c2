package org.abletwine.parquet;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;

/** Reads days with a time, in bytes. Belongs to one sink. */
final class TimeText {
  private static final int SECONDS_END = 19;
  private static final int MOST_DIGITS = 9;

  private final DatePatterns patterns;
  private final boolean iso;
  private long seconds;
  private int nanos;

  /**
   * @param patterns how they are written; none for ISO 8601
   */
  TimeText(List<String> patterns) {
    this.patterns = new DatePatterns(patterns);
    iso = patterns.isEmpty();
  }

  /** Reads one; returns whether it is one. */
  boolean read(byte[] text, int start, int end) {
    if (!iso) {
      LocalDateTime time = patterns.read(Utf8.text(text, start, end));
      seconds = time == null ? 0 : time.toEpochSecond(ZoneOffset.UTC);
      nanos = time == null ? 0 : time.getNano();
      return time != null;
    }
    int length = end - start;
    if (length < SECONDS_END
        || text[start + 10] != 'T' && text[start + 10] != ' '
        || text[start + 13] != ':'
        || text[start + 16] != ':') {
      return false;
    }
    long day = DatePatterns.isoDay(text, start);
    int hour = two(text, start + 11);
    int minute = two(text, start + 14);
    int second = two(text, start + 17);
    if (day == DatePatterns.NONE
        || hour < 0
        || hour > 23
        || minute < 0
        || minute > 59
        || second < 0
        || second > 59) {
      return false;
    }
    seconds = day * IsoText.SECONDS_OF_DAY + hour * 3600L + minute * 60L + second;
    nanos = 0;
    return length == SECONDS_END || part(text, start + SECONDS_END, end);
  }

  /** Reads a part of a second. */
  private boolean part(byte[] text, int start, int end) {
    int digits = end - start - 1;
    if (text[start] != '.' || digits < 1 || digits > MOST_DIGITS) {
      return false;
    }
    for (int i = 0; i < MOST_DIGITS; i++) {
      int digit = i < digits ? text[start + 1 + i] - '0' : 0;
      if (digit < 0 || digit > 9) {
        return false;
      }
      nanos = nanos * 10 + digit;
    }
    return true;
  }

  private static int two(byte[] text, int at) {
    int tens = text[at] - '0';
    int ones = text[at + 1] - '0';
    return tens < 0 || tens > 9 || ones < 0 || ones > 9 ? -1 : tens * 10 + ones;
  }

  /** Returns the seconds since 1970-01-01T00:00:00 of what was read. */
  long seconds() {
    return seconds;
  }

  /** Returns its part of a second. */
  int nanos() {
    return nanos;
  }
}
