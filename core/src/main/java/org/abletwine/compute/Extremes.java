package org.abletwine.compute;

import java.math.BigDecimal;
import java.util.Arrays;
import org.abletwine.table.CellVector;
import org.abletwine.table.ColumnType;
import org.abletwine.table.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * The least or the greatest value of each group, as it stood in its cell; the first of equals. A
 * stated type of the column orders it; without one its values are numbers as long as each is, over
 * all groups, and else text by code point, in which dates of ISO 8601 are in order too. Used by one
 * thread.
 */
final class Extremes {
  private final int sign;
  private final @Nullable ValueOrder order;
  private final boolean onlyNumbers;
  private boolean allNumbers = true;
  private final Values one = new Values();
  private @Nullable BigDecimal[] numbers = new BigDecimal[0];
  private @Nullable String[] asNumbers = new String[0];
  private @Nullable String[] asOrdered = new String[0];

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
   * @return whether it is a value of the stated type; true where none is stated
   */
  boolean add(int group, CellVector cells, int row) {
    if (order == null && allNumbers) {
      one.forgetWide();
      if (Decimals.read(cells, row, one, 0)) {
        offer(group, one.number(0), cells, row);
        if (onlyNumbers) {
          return true;
        }
      } else if (onlyNumbers) {
        return false;
      } else {
        allNumbers = false;
        asNumbers = new String[0];
        numbers = new BigDecimal[0];
      }
    }
    String text = String.valueOf(cells.get(row));
    if (order != null && !order.fits(text)) {
      return false;
    }
    offer(group, text);
    return true;
  }

  private void offer(int group, BigDecimal value, CellVector cells, int row) {
    if (group >= numbers.length) {
      int length = Math.max(group + 1, numbers.length * 2);
      numbers = Arrays.copyOf(numbers, length);
      asNumbers = Arrays.copyOf(asNumbers, length);
    }
    BigDecimal held = numbers[group];
    if (held == null || value.compareTo(held) * sign > 0) {
      numbers[group] = value;
      asNumbers[group] = onlyNumbers ? value.toPlainString() : cells.get(row);
    }
  }

  private void offer(int group, String text) {
    if (group >= asOrdered.length) {
      asOrdered = Arrays.copyOf(asOrdered, Math.max(group + 1, asOrdered.length * 2));
    }
    String held = asOrdered[group];
    if (held == null || compare(text, held) * sign > 0) {
      asOrdered[group] = text;
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

  /** That of all groups, or null when there is no value. */
  @Nullable String ofAll(int groups) {
    int best = -1;
    for (int group = 0; group < groups; group++) {
      if (of(group) != null && (best < 0 || better(group, best))) {
        best = group;
      }
    }
    return best < 0 ? null : of(best);
  }

  private boolean better(int group, int than) {
    if (numeric()) {
      BigDecimal value = numbers[group];
      BigDecimal held = numbers[than];
      return value != null && held != null && value.compareTo(held) * sign > 0;
    }
    return compare(String.valueOf(of(group)), String.valueOf(of(than))) * sign > 0;
  }

  /** What values of the stated type are called. */
  String noun() {
    return order == null ? "a number" : order.noun();
  }
}
