package org.abletwine.match.index;

import java.util.Arrays;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * What a rule is built from: for each row its partition and its value or values, normalised.
 * Collected while a reference is read; used by one thread.
 *
 * <p>Value {@code v} of row {@code i} is entry {@code i * width + v}: bytes {@code text[starts[e]
 * .. starts[e] + lengths[e])}, or null when the length is negative.
 */
public final class RuleRows {
  private final int width;
  private byte[] text = new byte[1024];
  private int used;
  private final boolean hidden;
  private int[] starts = new int[64];
  private int[] lengths = new int[64];
  private long[] plain = new long[64];
  private long values;
  private long plainValues;
  private int mostPlaces;
  private int mostWhole;
  private int[] partitions = new int[64];
  private int[] places = new int[64];
  private int[] numbers = new int[64];
  private int rows;
  private int finest;

  /**
   * @param width values of each row: 2 for bands, else 1
   * @param hidden whether messages must not show them
   */
  public RuleRows(int width, boolean hidden) {
    this.width = width;
    this.hidden = hidden;
  }

  /** Rows whose values may be shown. */
  public RuleRows(int width) {
    this(width, false);
  }

  /**
   * States how many decimal places must be told apart, whatever these rows have: others are
   * compared with the same values.
   *
   * @param decimals decimal places of numbers, or of seconds
   */
  public void tellApart(int decimals) {
    finest = decimals;
  }

  /** Returns how many decimal places must be told apart, whatever the rows have. */
  int finest() {
    return finest;
  }

  /** Returns the memory held, in bytes. */
  public long bytes() {
    return text.length
        + 4L * (starts.length + lengths.length)
        + 8L * plain.length
        + 12L * partitions.length;
  }

  /**
   * Adds a row.
   *
   * @param values a vector for each value
   * @param row the row in them, 0-based
   * @param partition its partition, 0 or more
   * @param place its place in the store
   * @param number its number in the store, 0-based
   */
  public void add(CellVector[] values, int row, int partition, int place, int number) {
    for (int v = 0; v < width; v++) {
      CellVector cells = values[v];
      int start = cells.starts[row];
      value(v, cells.text, start, start < 0 ? -1 : cells.ends[row] - start);
    }
    end(partition, place, number);
  }

  /** Takes a value of the row being added; null when its length is negative. */
  private void value(int v, byte[] from, int start, int length) {
    int entry = rows * width + v;
    if (entry == starts.length) {
      starts = Arrays.copyOf(starts, entry * 2);
      lengths = Arrays.copyOf(lengths, entry * 2);
      plain = Arrays.copyOf(plain, entry * 2);
    }
    starts[entry] = used;
    lengths[entry] = length;
    if (length > 0) {
      if (used + length > text.length) {
        text = Arrays.copyOf(text, Math.max(used + length, text.length * 2));
      }
      System.arraycopy(from, start, text, used, length);
      used += length;
      noteNumber(entry);
    }
  }

  private void end(int partition, int place, int number) {
    if (rows == partitions.length) {
      partitions = Arrays.copyOf(partitions, rows * 2);
      places = Arrays.copyOf(places, rows * 2);
      numbers = Arrays.copyOf(numbers, rows * 2);
    }
    partitions[rows] = partition;
    places[rows] = place;
    numbers[rows++] = number;
  }

  /**
   * Adds a row of others once more, in a partition of its own.
   *
   * @param from the others
   * @param number the row, by its number in the store
   * @param partition the partition, 0 or more
   */
  void add(RuleRows from, int number, int partition) {
    int row = Arrays.binarySearch(from.numbers, 0, from.rows, number);
    for (int v = 0; v < width; v++) {
      value(v, from.text, from.starts[row * width + v], from.lengths[row * width + v]);
    }
    end(partition, from.places[row], number);
  }

  /** The number in the store of the row at a place; both ascend, since rows are added in order. */
  int numberAt(int place) {
    return numbers[Arrays.binarySearch(places, 0, rows, place)];
  }

  /** Numbers are read while the reference is, when there is time, and not once more afterwards. */
  private void noteNumber(int entry) {
    int end = starts[entry] + lengths[entry];
    long number = Numbers.plain(text, starts[entry], end);
    plain[entry] = number;
    values++;
    if (number != Numbers.NOT_PLAIN) {
      plainValues++;
      int places = DecimalText.places(number);
      mostPlaces = Math.max(mostPlaces, places);
      mostWhole = Math.max(mostWhole, lengths[entry] - places);
    }
  }

  /** Whether every value is a number written plainly, and there is any. */
  boolean plainNumbers() {
    return values > 0 && plainValues == values;
  }

  /** The most decimal places of numbers written plainly. */
  int mostPlaces() {
    return mostPlaces;
  }

  /** The most characters before the decimal places, sign and point included. */
  int mostWhole() {
    return mostWhole;
  }

  /** What {@link Numbers#plain} made of a value that is not null. */
  long plain(int row, int value) {
    return plain[row * width + value];
  }

  /**
   * Leaves out rows, for a rule for duplicates that has chosen others.
   *
   * @param leftOut by number in the store
   */
  public void remove(java.util.BitSet leftOut) {
    int kept = 0;
    for (int row = 0; row < rows; row++) {
      if (!leftOut.get(numbers[row])) {
        partitions[kept] = partitions[row];
        places[kept] = places[row];
        numbers[kept] = numbers[row];
        for (int v = 0; v < width; v++) {
          starts[kept * width + v] = starts[row * width + v];
          lengths[kept * width + v] = lengths[row * width + v];
          plain[kept * width + v] = plain[row * width + v];
        }
        kept++;
      }
    }
    rows = kept;
  }

  int rows() {
    return rows;
  }

  int width() {
    return width;
  }

  int partition(int row) {
    return partitions[row];
  }

  int place(int row) {
    return places[row];
  }

  int number(int row) {
    return numbers[row];
  }

  byte[] text() {
    return text;
  }

  int start(int row, int value) {
    return starts[row * width + value];
  }

  int end(int row, int value) {
    int entry = row * width + value;
    return starts[entry] + Math.max(0, lengths[entry]);
  }

  boolean isNull(int row, int value) {
    return lengths[row * width + value] <= 0;
  }

  @Nullable String value(int row, int value) {
    return isNull(row, value) ? null : Utf8.text(text, start(row, value), end(row, value));
  }

  /** Whether messages must not show values. */
  boolean hidden() {
    return hidden;
  }

  /** A value as messages show it. */
  @Nullable String shown(int row, int value) {
    return Veil.over(hidden, value(row, value));
  }

  /** Partitions there are: one more than the highest. */
  int partitionCount() {
    int most = 0;
    for (int row = 0; row < rows; row++) {
      most = Math.max(most, partitions[row] + 1);
    }
    return most;
  }

  @Override
  public String toString() {
    return "RuleRows[" + rows + "]";
  }
}
