package org.abletwine.compute;

import java.math.BigDecimal;
import java.util.Arrays;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * The least or the greatest value of each group, as it stood in its cell; the first of equals. A
 * stated type of the column orders it; without one its values are numbers as long as each is, over
 * all groups, and else text by code point, in which dates of ISO 8601 are in order too. Used by one
 * thread.
 */
final class Extremes {
  /** About how many bytes the value of a group takes, as a number and as text. */
  static final int BYTES = 230;

  private final int sign;
  private final @Nullable ValueOrder order;
  private final boolean onlyNumbers;
  private boolean allNumbers = true;
  private final Values one = new Values();
  private @Nullable BigDecimal[] numbers = new BigDecimal[0];
  private @Nullable String[] asNumbers = new String[0];
  private @Nullable String[] asOrdered = new String[0];

  /** The rows that the values held stand in: of equals the first stays. */
  private long[] rowOfNumber = new long[0];

  private long[] rowOfText = new long[0];

  /**
   * @param least whether the least is wanted, else the greatest
   * @param type the stated type of the column; null for none
   */
  Extremes(boolean least, @Nullable ColumnType type) {
    sign = least ? -1 : 1;
    onlyNumbers = type != null && type.kind() == ColumnType.Kind.NUMBER;
    order = onlyNumbers || type == null ? null : ValueOrder.of(type);
    one.prepare(1, Kind.NUMBER);
  }

  /**
   * Takes a cell into account.
   *
   * @param group its group
   * @param cells the column
   * @param row the row, 0-based, not null there
   * @param rowNumber its number in the table
   * @return whether it is a value of the stated type; true where none is stated
   */
  boolean add(int group, CellVector cells, int row, long rowNumber) {
    if (order == null && allNumbers) {
      one.forgetWide();
      if (Decimals.read(cells, row, one, 0)) {
        BigDecimal value = one.number(0);
        offer(group, value, onlyNumbers ? value.toPlainString() : cells.get(row), rowNumber);
        if (onlyNumbers) {
          return true;
        }
      } else if (onlyNumbers) {
        return false;
      } else {
        noNumbers();
      }
    }
    String text = String.valueOf(cells.get(row));
    if (order != null && !order.fits(text)) {
      return false;
    }
    offer(group, text, rowNumber);
    return true;
  }

  private void noNumbers() {
    allNumbers = false;
    asNumbers = new String[0];
    numbers = new BigDecimal[0];
    rowOfNumber = new long[0];
  }

  /** Takes over whether all values are numbers. */
  void takeAfter(Extremes other) {
    if (!other.allNumbers && allNumbers) {
      noNumbers();
    }
  }

  /** Takes over what another has found of a group, once what is known of all values is shared. */
  void add(int to, Extremes other, int group) {
    BigDecimal number = group < other.numbers.length ? other.numbers[group] : null;
    if (number != null && allNumbers) {
      offer(to, number, other.asNumbers[group], other.rowOfNumber[group]);
    }
    String text = group < other.asOrdered.length ? other.asOrdered[group] : null;
    if (text != null) {
      offer(to, text, other.rowOfText[group]);
    }
  }

  /** Forgets what was found of any group, but not what the values are. */
  void forgetGroups() {
    numbers = new BigDecimal[0];
    asNumbers = new String[0];
    rowOfNumber = new long[0];
    asOrdered = new String[0];
    rowOfText = new long[0];
  }

  /** Writes what was found of a group. */
  void write(int group, RowBytes into) {
    BigDecimal number = group < numbers.length ? numbers[group] : null;
    into.text(number == null ? null : number.toString());
    if (number != null) {
      into.text(asNumbers[group]);
      into.number(rowOfNumber[group]);
    }
    String text = group < asOrdered.length ? asOrdered[group] : null;
    into.text(text);
    if (text != null) {
      into.number(rowOfText[group]);
    }
  }

  /** Takes over what was {@linkplain #write written} of a group. */
  void read(int group, ByteCursor from) {
    String number = from.textOrNull();
    if (number != null) {
      String written = from.textOrNull();
      long row = from.number();
      if (allNumbers) {
        offer(group, new BigDecimal(number), written, row);
      }
    }
    String text = from.textOrNull();
    if (text != null) {
      offer(group, text, from.number());
    }
  }

  /** Carries what was found, or takes what another process has found in place of nothing. */
  void carry(Carrier carrier) {
    allNumbers = carrier.flag(allNumbers);
    int most = carrier.number(numbers.length);
    numbers = Arrays.copyOf(numbers, most);
    asNumbers = Arrays.copyOf(asNumbers, most);
    rowOfNumber = Arrays.copyOf(rowOfNumber, most);
    for (int group = 0; group < most; group++) {
      numbers[group] = carrier.decimal(numbers[group]);
      asNumbers[group] = carrier.text(asNumbers[group]);
      rowOfNumber[group] = carrier.number(rowOfNumber[group]);
    }
    int texts = carrier.number(asOrdered.length);
    asOrdered = Arrays.copyOf(asOrdered, texts);
    rowOfText = Arrays.copyOf(rowOfText, texts);
    for (int group = 0; group < texts; group++) {
      asOrdered[group] = carrier.text(asOrdered[group]);
      rowOfText[group] = carrier.number(rowOfText[group]);
    }
  }

  private void offer(int group, BigDecimal value, @Nullable String written, long rowNumber) {
    if (group >= numbers.length) {
      int length = Math.max(group + 1, numbers.length * 2);
      numbers = Arrays.copyOf(numbers, length);
      asNumbers = Arrays.copyOf(asNumbers, length);
      rowOfNumber = Arrays.copyOf(rowOfNumber, length);
    }
    BigDecimal held = numbers[group];
    int order = held == null ? 1 : value.compareTo(held) * sign;
    if (order > 0 || order == 0 && rowNumber < rowOfNumber[group]) {
      numbers[group] = value;
      asNumbers[group] = written;
      rowOfNumber[group] = rowNumber;
    }
  }

  private void offer(int group, String text, long rowNumber) {
    if (group >= asOrdered.length) {
      int length = Math.max(group + 1, asOrdered.length * 2);
      asOrdered = Arrays.copyOf(asOrdered, length);
      rowOfText = Arrays.copyOf(rowOfText, length);
    }
    String held = asOrdered[group];
    int order = held == null ? 1 : compare(text, held) * sign;
    if (order > 0 || order == 0 && rowNumber < rowOfText[group]) {
      asOrdered[group] = text;
      rowOfText[group] = rowNumber;
    }
  }

  private int compare(String one, String other) {
    return order == null
        ? ValueOrder.byCodePoint(one.strip(), other.strip())
        : order.compare(one, other);
  }

  private boolean numeric() {
    return order == null && allNumbers;
  }

  /** The group's, or null when it has no value. */
  @Nullable String of(int group) {
    String[] held = numeric() ? asNumbers : asOrdered;
    return group < held.length ? held[group] : null;
  }

  /** What values of the stated type are called. */
  String noun() {
    return order == null ? "a number" : order.noun();
  }
}
