package org.abletwine.match.index;

import java.io.Serializable;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.Function;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * Values that are ordered but do not fit a long: texts by code point, and numbers of very many
 * digits. The coordinate is twice the place among the values of the reference.
 *
 * @param <T> the values
 */
final class Ranks<T extends Comparable<? super T> & Serializable> implements Domain {
  private static final long serialVersionUID = 1L;

  private final Object[] values;
  private final String noun;
  private final Reading<T> reading;

  /** Reads a value from text; null when it is none. */
  interface Reading<T> extends Function<String, @Nullable T>, Serializable {}

  Ranks(List<T> all, Reading<T> reading, String noun) {
    this.values = all.stream().distinct().sorted(Comparator.naturalOrder()).toArray();
    this.reading = reading;
    this.noun = noun;
  }

  @Override
  public long coordinate(byte[] text, int start, int end) {
    T value = reading.apply(Utf8.text(text, start, end));
    if (value == null) {
      return UNFIT;
    }
    int at = Arrays.binarySearch(values, value);
    return at >= 0 ? 2L * at : 2L * (-at - 1) - 1;
  }

  @Override
  public String show(long coordinate) {
    int at = (int) Math.max(0, Math.min(values.length - 1L, Math.floorDiv(coordinate, 2)));
    return values.length == 0 ? "" : String.valueOf(values[at]);
  }

  @Override
  public String distance(long one, long other) {
    return "";
  }

  @Override
  public String noun() {
    return noun;
  }

  /** A time too fine to be counted. */
  record Time(LocalDateTime time) implements Comparable<Time>, Serializable {
    @Override
    public int compareTo(Time other) {
      return time.compareTo(other.time);
    }

    @Override
    public String toString() {
      return time.toString();
    }
  }

  /** Reads times as a column writes them. */
  record TimeReading(DatePatterns dates) implements Reading<Time> {
    private static final long serialVersionUID = 1L;

    @Override
    public @Nullable Time apply(String text) {
      LocalDateTime time = dates.read(text);
      return time == null ? null : new Time(time);
    }
  }

  /** A text compared by code point, as ISO SQL's simplest collation does. */
  record CodePoints(String text) implements Comparable<CodePoints>, Serializable {
    @Override
    public int compareTo(CodePoints other) {
      return ValueOrder.byCodePoint(text, other.text);
    }

    @Override
    public String toString() {
      return text;
    }
  }
}
