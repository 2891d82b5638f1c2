package org.abletwine.parquet;

import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * What was seen of an output column, whose type must be known before its first value is written. A
 * column of which a single cell is not of its kind, or would come back as another text, is one of
 * texts: zeros before a number, a sign or an exponent are never lost. Belongs to one sink.
 */
final class ColumnFacts {
  /** Digits that a number of a Parquet file has at most, as programs read them. */
  private static final int MOST_DIGITS = 38;

  private static final int MICRO = 1000;

  /** Seconds around 1970 within which a time is told in nanoseconds. */
  private static final long NANO_SECONDS = Long.MAX_VALUE / 1_000_000_000 - 1;

  private final ColumnType.Kind kind;
  private final List<String> patterns;
  private final DatePatterns days;
  private final TimeText times;
  private @Nullable String misfit;
  private long misfitRow;
  private int whole = 1;
  private int places;
  private int leastPlaces = Integer.MAX_VALUE;
  private boolean fine;
  private boolean far;

  ColumnFacts(@Nullable ColumnType type) {
    kind = type == null ? ColumnType.Kind.TEXT : type.kind();
    patterns = kind == ColumnType.Kind.TEXT || type == null ? List.of() : type.patterns();
    boolean dates = kind == ColumnType.Kind.DATE || kind == ColumnType.Kind.DATE_TIME;
    days = new DatePatterns(dates ? patterns : List.of());
    times = new TimeText(dates ? patterns : List.of());
  }

  /**
   * Takes note of a cell that is not null.
   *
   * @param row its row in the output, 1-based
   */
  void met(byte[] text, int start, int end, long row) {
    if (misfit != null || kind == ColumnType.Kind.TEXT) {
      return;
    }
    boolean fits =
        switch (kind) {
          case INTEGER, NUMBER -> number(text, start, end);
          case BOOLEAN -> is("true", text, start, end) || is("false", text, start, end);
          case DATE -> days.day(text, start, end) != DatePatterns.NONE;
          case DATE_TIME -> time(text, start, end);
          case TEXT -> true;
        };
    if (!fits) {
      misfit = Utf8.text(text, start, end);
      misfitRow = row;
    }
  }

  private boolean number(byte[] text, int start, int end) {
    long digits = DecimalText.canonical(text, start, end);
    if (digits == DecimalText.NOT_CANONICAL) {
      return false;
    }
    int after = (int) digits;
    whole = Math.max(whole, (int) (digits >>> Integer.SIZE));
    places = Math.max(places, after);
    leastPlaces = Math.min(leastPlaces, after);
    return whole + places <= MOST_DIGITS;
  }

  private boolean time(byte[] text, int start, int end) {
    if (!times.read(text, start, end)) {
      return false;
    }
    fine |= times.nanos() % MICRO != 0;
    far |= Math.abs(times.seconds()) >= NANO_SECONDS;
    return !(fine && far);
  }

  static boolean is(String word, byte[] text, int start, int end) {
    if (end - start != word.length()) {
      return false;
    }
    for (int i = 0; i < word.length(); i++) {
      if (text[start + i] != word.charAt(i)) {
        return false;
      }
    }
    return true;
  }

  /** Returns how the column is written, once all its cells were met. */
  ColumnShape shape() {
    if (misfit != null) {
      return new ColumnShape(ColumnShape.Kind.TEXT, 0, 0, List.of());
    }
    return switch (kind) {
      case TEXT -> new ColumnShape(ColumnShape.Kind.TEXT, 0, 0, List.of());
      case BOOLEAN -> new ColumnShape(ColumnShape.Kind.TRUTH, 0, 0, List.of());
      case DATE -> new ColumnShape(ColumnShape.Kind.DAY, 0, 0, patterns);
      case DATE_TIME ->
          new ColumnShape(fine ? ColumnShape.Kind.NANOS : ColumnShape.Kind.MICROS, 0, 0, patterns);
      case INTEGER, NUMBER -> number();
    };
  }

  private ColumnShape number() {
    if (kind == ColumnType.Kind.INTEGER && places == 0 && whole <= ColumnShape.LONG_DIGITS) {
      return new ColumnShape(ColumnShape.Kind.WHOLE, 0, 0, List.of());
    }
    boolean wide = whole + places > ColumnShape.LONG_DIGITS;
    return new ColumnShape(
        wide ? ColumnShape.Kind.WIDE : ColumnShape.Kind.DECIMAL,
        wide ? MOST_DIGITS : ColumnShape.LONG_DIGITS,
        places,
        List.of());
  }

  /** Returns whether numbers were seen that get more decimal places than they had. */
  boolean evened() {
    return misfit == null && leastPlaces < places;
  }

  int places() {
    return places;
  }

  /** Returns the cell for which it is a column of texts; null when there is none. */
  @Nullable String misfit() {
    return misfit;
  }

  /** Returns the row of that cell, 1-based. */
  long misfitRow() {
    return misfitRow;
  }
}
