package org.abletwine.lookup.rows;

import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.ValueOrder;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * The values that may have to be compared to find the newest row: whether there is an order that
 * all of them have. A declared type states it; without one, all must be numbers, or all dates.
 * Which value ends that is decided by its place, so that the values of one table can be looked at
 * in parts and in any order. For one thread.
 */
public final class ValuesCompared {
  /** Stands for what comes from another process. */
  public static final ValuesCompared NOTHING = new ValuesCompared(new Place("", "", false), null);

  private final Place place;
  private final @Nullable ColumnType type;
  private final @Nullable ValueOrder declared;
  private final ValueOrder numbers = ValueOrder.of(ColumnType.of(ColumnType.Kind.NUMBER));
  private final ValueOrder times = ValueOrder.of(ColumnType.of(ColumnType.Kind.DATE_TIME));

  /** The first value that is no number, or not of the declared type; null for none. */
  private @Nullable Met noNumber;

  /** The first value that is no date, or not of the declared type; null for none. */
  private @Nullable Met noTime;

  /**
   * Where the column is.
   *
   * @param table the table's name
   * @param column the column's name
   * @param hidden whether messages must not show its values
   */
  public record Place(String table, String column, boolean hidden) {}

  /**
   * A value that was met.
   *
   * @param set what its set goes by in the order of all sets: the number of its second row
   * @param row the number of its row in the file, 1-based
   */
  private record Met(long set, long row, String value) {
    boolean before(@Nullable Met other) {
      return other == null || set < other.set || set == other.set && row < other.row;
    }

    static @Nullable Met carried(@Nullable Met held, Carrier carrier) {
      if (!carrier.flag(held != null)) {
        return null;
      }
      Met met = held == null ? new Met(0, 0, "") : held;
      return new Met(carrier.number(met.set), carrier.number(met.row), carrier.words(met.value));
    }

    static @Nullable Met first(@Nullable Met one, @Nullable Met other) {
      return one != null && one.before(other) ? one : other;
    }
  }

  /**
   * @param place the table and column
   * @param type the declared type of the column; null for none
   */
  public ValuesCompared(Place place, @Nullable ColumnType type) {
    this.place = place;
    this.type = type;
    declared = type == null ? null : ValueOrder.of(type);
  }

  /**
   * Looks at a value.
   *
   * @param set what its set goes by in the order of all sets, which ends with that of the rows
   * @param row the number of its row in the file, 1-based
   */
  void look(long set, long row, String value) {
    ValueOrder stated = declared;
    if (stated != null) {
      if (!stated.fits(value)) {
        noNumber = Met.first(new Met(set, row, value), noNumber);
        noTime = noNumber;
      }
      return;
    }
    Met met = new Met(set, row, value);
    if (met.before(noNumber) && !numbers.fits(value)) {
      noNumber = met;
    }
    if (met.before(noTime) && !times.fits(value)) {
      noTime = met;
    }
  }

  /** Carries what was met to another process, or takes it from there in place of nothing. */
  public static ValuesCompared carried(ValuesCompared held, Carrier carrier) {
    Place at = held.place;
    ColumnType type = held.type;
    Place place =
        new Place(carrier.words(at.table()), carrier.words(at.column()), carrier.flag(at.hidden()));
    String kind = carrier.text(type == null ? null : type.kind().name());
    List<String> patterns =
        carrier.all(type == null ? List.of() : type.patterns(), "", carrier::words);
    ValuesCompared met =
        new ValuesCompared(
            place, kind == null ? null : new ColumnType(ColumnType.Kind.valueOf(kind), patterns));
    met.noNumber = Met.carried(held.noNumber, carrier);
    met.noTime = Met.carried(held.noTime, carrier);
    return met;
  }

  /** Takes over what was met in other rows of the same table. */
  public void merge(ValuesCompared other) {
    noNumber = Met.first(noNumber, other.noNumber);
    noTime = Met.first(noTime, other.noTime);
  }

  /** The order that all values have, when there is {@linkplain #failure nothing wrong}. */
  ValueOrder order() {
    return declared != null ? declared : noNumber == null ? numbers : times;
  }

  /** What is wrong with the first value with which no order is left; null for nothing. */
  public @Nullable DataException failure() {
    if (noNumber == null || noTime == null) {
      return null;
    }
    Met met = noNumber.before(noTime) ? noTime : noNumber;
    return new DataException(
        place.table()
            + ", row "
            + met.row()
            + ", column \""
            + place.column()
            + "\": \""
            + Veil.over(place.hidden(), met.value())
            + "\" is "
            + (declared == null
                ? "not a number or a date as the values before it, so that newest-by has no order"
                    + " to go by"
                : "not " + declared.noun() + ", and newest-by goes by it")
            + "; correct the row, or "
            + (declared == null
                ? "in a plan declare the column's type (types: text orders by code point, dates other than"
                    + " ISO 8601 state their pattern), with which unreadable: leave-out leaves such"
                    + " rows out"
                : "in a plan declare another type (types: text orders by code point, dates other than ISO"
                    + " 8601 state their pattern), or leave such rows out with unreadable:"
                    + " leave-out"),
        place.table(),
        met.row(),
        place.column());
  }

  /**
   * Ends the run when there is no order.
   *
   * @throws DataException then
   */
  public void throwIfAny() {
    DataException failure = failure();
    if (failure != null) {
      throw failure;
    }
  }
}
