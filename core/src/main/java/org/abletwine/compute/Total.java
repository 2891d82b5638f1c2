package org.abletwine.compute;

import java.math.BigDecimal;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/** The exact total of a column's numbers, in a long as long as it fits. Used by one thread. */
public final class Total {
  private final Values one = new Values();
  private final Values sum = new Values();
  private final Values next = new Values();
  private long nulls;
  private long notNumbers;
  private long rows;
  private final boolean whole;

  /** A total of nothing: zero. */
  public Total() {
    this(null);
  }

  /**
   * A total of nothing: zero.
   *
   * @param type the stated type of the column; null for none
   */
  public Total(@Nullable ColumnType type) {
    whole = type != null && type.kind() == ColumnType.Kind.INTEGER;
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
    if (cells.isNull(row)) {
      nulls++;
      return false;
    }
    one.forgetWide();
    if (!Decimals.read(cells, row, one, 0) || whole && !one.isWhole(0)) {
      notNumbers++;
      return false;
    }
    addToSum(one);
    return true;
  }

  /**
   * Adds another total's cells.
   *
   * @param other the other
   */
  public void merge(Total other) {
    nulls += other.nulls;
    notNumbers += other.notNumbers;
    rows += other.rows;
    addToSum(other.sum);
  }

  /**
   * Carries what was added, or takes what another process has added in place of nothing.
   *
   * @param carrier carries it
   */
  public void carry(Carrier carrier) {
    nulls = carrier.number(nulls);
    notNumbers = carrier.number(notNumbers);
    rows = carrier.number(rows);
    BigDecimal value = carrier.decimal(value());
    if (carrier.comesIn() && value != null) {
      sum.forgetWide();
      sum.number(0, value);
    }
  }

  private void addToSum(Values addend) {
    next.forgetWide();
    Decimals.add(sum, addend, false, next, 0);
    sum.forgetWide();
    sum.number(0, next, 0);
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
