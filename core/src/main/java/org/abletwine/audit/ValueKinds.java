package org.abletwine.audit;

import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/** Counts what the values of a column are, and keeps the first of each kind. */
final class ValueKinds {
  /** A column is all but of a kind when at most one value in so many is not. */
  private static final int SPOILED_SHARE = 20;

  private static final int EXAMPLE_BYTES = 120;

  /** What a value is by itself. */
  enum Kind {
    WHOLE,
    DECIMAL,
    DAY,
    TIME,
    OTHER
  }

  private final long[] counts = new long[Kind.values().length];
  private final String[] firsts = new String[counts.length];
  private final long[] rows = new long[counts.length];
  private boolean padded;

  /** Counts a value, and says what it is. */
  Kind count(byte[] text, int start, int end, long row) {
    Kind is = kind(text, start, end);
    int kind = is.ordinal();
    if (counts[kind]++ == 0) {
      int shown = Math.min(end, start + EXAMPLE_BYTES);
      while (shown < end && !Utf8.leads(text[shown])) {
        shown--;
      }
      firsts[kind] = Utf8.text(text, start, shown);
      rows[kind] = row;
    }
    return is;
  }

  /** Counts a value so many times more. */
  void again(Kind kind, long times) {
    counts[kind.ordinal()] += times;
  }

  /** Adds what another worker has counted. */
  void merge(ValueKinds other) {
    padded |= other.padded;
    for (int kind = 0; kind < counts.length; kind++) {
      if (other.counts[kind] > 0 && (counts[kind] == 0 || other.rows[kind] < rows[kind])) {
        firsts[kind] = other.firsts[kind];
        rows[kind] = other.rows[kind];
      }
      counts[kind] += other.counts[kind];
    }
  }

  private Kind kind(byte[] text, int start, int end) {
    int at = start < end && (text[start] == '-' || text[start] == '+') ? start + 1 : start;
    int digits = 0;
    int points = 0;
    int others = 0;
    for (int i = at; i < end; i++) {
      byte c = text[i];
      if (c >= '0' && c <= '9') {
        digits++;
      } else if (c == '.') {
        points++;
      } else {
        others++;
      }
    }
    if (others == 0 && digits > 0 && points <= 1) {
      padded |= points == 0 && digits > 1 && text[at] == '0';
      return points == 0 ? Kind.WHOLE : Kind.DECIMAL;
    }
    if (end - start < DatePatterns.DAY_LENGTH
        || DatePatterns.isoDay(text, start) == DatePatterns.NONE) {
      return Kind.OTHER;
    }
    return end - start == DatePatterns.DAY_LENGTH
        ? Kind.DAY
        : time(text, start + DatePatterns.DAY_LENGTH, end) ? Kind.TIME : Kind.OTHER;
  }

  /** Whether a day is followed by a time such as T14:30, T14:30:00 or T14:30:00.5. */
  private static boolean time(byte[] text, int from, int end) {
    if (end - from < 6 || text[from] != 'T' && text[from] != ' ') {
      return false;
    }
    for (int i = from + 1; i < end; i++) {
      int place = i - from;
      boolean colon = place == 3 || place == 6;
      boolean point = place == 9;
      byte c = text[i];
      if (colon ? c != ':' : point ? c != '.' : c < '0' || c > '9') {
        return false;
      }
    }
    int length = end - from;
    return length == 6 || length == 9 || length > 10;
  }

  private long of(Kind kind) {
    return counts[kind.ordinal()];
  }

  private long all() {
    long all = 0;
    for (long count : counts) {
      all += count;
    }
    return all;
  }

  /** What all values are, in words; "empty" when there are none, "text" when they are mixed. */
  String type() {
    long all = all();
    if (all == 0) {
      return "empty";
    }
    if (of(Kind.WHOLE) == all) {
      return padded ? "code" : "whole number";
    }
    if (of(Kind.WHOLE) + of(Kind.DECIMAL) == all) {
      return "decimal";
    }
    return of(Kind.DAY) == all
        ? "date"
        : of(Kind.DAY) + of(Kind.TIME) == all ? "date and time" : "text";
  }

  /**
   * What all values but a few are, and the first that is not; null when there is no such kind.
   *
   * @param nullWords values that people write where there is none, of which there may be any number
   */
  TableProfile.Column.@Nullable Spoiled spoiled(long nullWords) {
    long all = all();
    long numbers = padded ? 0 : of(Kind.WHOLE) + of(Kind.DECIMAL);
    long days = of(Kind.DAY) + of(Kind.TIME);
    long most = Math.max(numbers, days);
    if (most == 0 || most == all || (all - most - nullWords) * SPOILED_SHARE > all) {
      return null;
    }
    boolean number = numbers >= days;
    String type =
        number
            ? of(Kind.DECIMAL) > 0 ? "decimal" : "whole number"
            : of(Kind.TIME) > 0 ? "date and time" : "date";
    int first = -1;
    for (Kind kind : Kind.values()) {
      boolean fits =
          number
              ? kind == Kind.WHOLE || kind == Kind.DECIMAL
              : kind == Kind.DAY || kind == Kind.TIME;
      int at = kind.ordinal();
      if (!fits && counts[at] > 0 && (first < 0 || rows[at] < rows[first])) {
        first = at;
      }
    }
    return new TableProfile.Column.Spoiled(type, all - most, firsts[first], rows[first]);
  }
}
