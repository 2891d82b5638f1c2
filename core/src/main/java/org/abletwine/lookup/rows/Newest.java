package org.abletwine.lookup.rows;

import java.io.Serializable;
import java.util.PrimitiveIterator;
import java.util.stream.IntStream;
import org.abletwine.index.RowStore;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.text.ValueOrder;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Finds the newest of several rows by a column: its declared type orders it, else its values do,
 * when all are numbers or all are dates. Anything else is refused, since which of two such rows is
 * the newer nobody can tell. Null is older than any value. Immutable; safe to share between
 * threads.
 */
public final class Newest implements Serializable {
  private static final long serialVersionUID = 1L;

  private final int cell;
  private final ValueOrder order;

  private Newest(int cell, ValueOrder order) {
    this.cell = cell;
    this.order = order;
  }

  /**
   * Looks at the values that may have to be compared.
   *
   * @param rows the rows
   * @param cell the cell that decides
   * @param compared those of them that may be compared
   * @param type the declared type of the column; null for none
   * @param place the table and column, for messages
   * @param numbers the rows' numbers in the file
   * @throws DataException when a value is not of the type, or there is no order
   */
  public static Newest by(
      RowStore rows,
      int cell,
      IntStream compared,
      @Nullable ColumnType type,
      Place place,
      RowNumbers numbers) {
    ValueOrder declared = type == null ? null : ValueOrder.of(type);
    ValueOrder.Finder finder = new ValueOrder.Finder();
    for (PrimitiveIterator.OfInt each = compared.iterator(); each.hasNext(); ) {
      int row = each.nextInt();
      String value = rows.get(row, cell);
      if (value == null || (declared == null ? finder.look(value) : declared.fits(value))) {
        continue;
      }
      throw new DataException(
          place.table()
              + ", row "
              + numbers.of(row)
              + ", column \""
              + place.column()
              + "\": \""
              + Veil.over(place.hidden(), value)
              + "\" is "
              + (declared == null
                  ? "not a number or a date as the values before it, so that newest-by has no order"
                      + " to go by"
                  : "not " + declared.noun() + ", and newest-by goes by it")
              + "; correct the row, or declare the column's type (types: text orders by code point,"
              + " dates other than ISO 8601 state their pattern), or leave such rows out with where:");
    }
    return new Newest(cell, declared == null ? finder.order() : declared);
  }

  /**
   * Where the column is.
   *
   * @param table the table's name
   * @param column the column's name
   * @param hidden whether messages must not show its values
   */
  public record Place(String table, String column, boolean hidden) {}

  /** The row with the greatest value; the first of equals. */
  public int among(RowStore rows, int[] members) {
    int best = members[0];
    for (int row : members) {
      if (newer(rows.get(row, cell), rows.get(best, cell))) {
        best = row;
      }
    }
    return best;
  }

  private boolean newer(@Nullable String one, @Nullable String other) {
    return one != null && (other == null || order.compare(one, other) > 0);
  }
}
