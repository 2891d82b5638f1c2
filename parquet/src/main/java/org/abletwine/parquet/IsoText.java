package org.abletwine.parquet;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import org.abletwine.table.text.DecimalText;

/** Days and times as ISO 8601, in bytes: seconds always, parts of a second where there are any. */
final class IsoText {
  static final long SECONDS_OF_DAY = 86_400;
  private static final int LAST_YEAR = 9999;

  private IsoText() {}

  /**
   * Writes a day (Hinnant, "chrono-Compatible Low-Level Date Algorithms", 2013).
   *
   * @param day days since 1970-01-01
   * @return where it ends, exclusive
   */
  static int day(long day, byte[] into, int from) {
    long shifted = day + 719_468; // since 0000-03-01
    long era = Math.floorDiv(shifted, 146_097L);
    int ofEra = (int) (shifted - era * 146_097);
    int yearOfEra = (ofEra - ofEra / 1460 + ofEra / 36_524 - ofEra / 146_096) / 365;
    int ofYear = ofEra - (365 * yearOfEra + yearOfEra / 4 - yearOfEra / 100);
    int month = (5 * ofYear + 2) / 153;
    long year = yearOfEra + era * 400 + (month < 10 ? 0 : 1);
    if (year < 0 || year > LAST_YEAR) {
      byte[] text = LocalDate.ofEpochDay(day).toString().getBytes(StandardCharsets.US_ASCII);
      System.arraycopy(text, 0, into, from, text.length);
      return from + text.length;
    }
    int at = two((int) year / 100, into, from);
    at = two((int) year % 100, into, at);
    into[at++] = '-';
    at = two(month < 10 ? month + 3 : month - 9, into, at);
    into[at++] = '-';
    return two(ofYear - (153 * month + 2) / 5 + 1, into, at);
  }

  /**
   * Writes a day and a time.
   *
   * @param value parts of seconds since 1970-01-01T00:00:00
   * @param digits how many digits a part of a second has
   */
  static int time(long value, int digits, byte[] into, int from) {
    long parts = SECONDS_OF_DAY * DecimalText.power(digits);
    int at = day(Math.floorDiv(value, parts), into, from);
    into[at++] = 'T';
    return timeOfDay(Math.floorMod(value, parts), digits, into, at);
  }

  /** Writes a time of a day. */
  static int timeOfDay(long value, int digits, byte[] into, int from) {
    long one = DecimalText.power(digits);
    int second = (int) (value / one);
    long part = value - second * one;
    int at = two(second / 3600, into, from);
    into[at++] = ':';
    at = two(second / 60 % 60, into, at);
    into[at++] = ':';
    at = two(second % 60, into, at);
    if (part > 0) {
      into[at++] = '.';
      for (long next = one / 10; part > 0; next /= 10) {
        into[at++] = (byte) ('0' + part / next);
        part %= next;
      }
    }
    return at;
  }

  private static int two(int number, byte[] into, int from) {
    into[from] = (byte) ('0' + number / 10);
    into[from + 1] = (byte) ('0' + number % 10);
    return from + 2;
  }
}
