package org.abletwine.compute;

import java.math.BigDecimal;
import org.abletwine.table.CellVector;

/** The exact total of a column's numbers, in a long as long as it fits. Used by one thread. */
public final class Total {
  private final Values one = new Values();
  private final Values sum = new Values();
  private final Values next = new Values();
  private long nulls;
  private long notNumbers;
  private long rows;

  /** A total of nothing: zero. */
  public Total() {
    one.prepare(1, Kind.NUMBER);
    sum.prepare(1, Kind.NUMBER);
    next.prepare(1, Kind.NUMBER);
    sum.number(0, 0, 0);
  }

  /**
   * Adds a cell.
   *
   * @param cells a column
   * @param row the row, 0-based
   * @return whether it is a number
   */
  public boolean add(CellVector cells, int row) {
    rows++;
    if (cells.starts[row] < 0) {
      nulls++;
      return false;
    }
    one.forgetWide();
    if (!Decimals.read(cells, row, one, 0)) {
      notNumbers++;
      return false;
    }
    next.forgetWide();
    Decimals.add(sum, one, false, next, 0);
    sum.forgetWide();
    sum.number(0, next, 0);
    return true;
  }

  /** Returns whether the number added last is below another column's; for least and greatest. */
  BigDecimal last() {
    return one.number(0);
  }

  /** Returns the total. */
  public BigDecimal value() {
    return sum.number(0);
  }

  /** Returns cells that were null. */
  public long nulls() {
    return nulls;
  }

  /** Returns cells that were no numbers, and so are left out. */
  public long notNumbers() {
    return notNumbers;
  }

  /** Returns cells, nulls included. */
  public long rows() {
    return rows;
  }

  @Override
  public String toString() {
    return "Total[" + value() + "]";
  }
}
