package org.abletwine.table;

import java.util.Collections;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A table of things that a program holds.
 *
 * @param name its name in messages
 * @param schema its columns
 * @param types what columns hold, where that is known
 * @param things the things, of which each is a row
 * @param cells the cells of one
 */
record HeldTable<T>(
    String name,
    Schema schema,
    Map<String, ColumnType> types,
    List<? extends T> things,
    Function<T, List<@Nullable String>> cells)
    implements Table {

  @Override
  public @Nullable ColumnType type(String column) {
    return types.get(column);
  }

  @Override
  public Rows rows() {
    Iterator<? extends T> left = things.iterator();
    return new Rows() {
      private long row;

      @Override
      public @Nullable List<@Nullable String> next() {
        if (!left.hasNext()) {
          return null;
        }
        row++;
        List<@Nullable String> made = cells.apply(left.next());
        if (made.size() != schema.size()) {
          throw new DataException(
              name
                  + ", row "
                  + row
                  + " has "
                  + made.size()
                  + " cells, and there are "
                  + schema.size()
                  + " columns",
              name,
              row,
              null);
        }
        return Collections.unmodifiableList(made);
      }

      @Override
      public void close() {
        // nothing is held open
      }
    };
  }

  @Override
  public String toString() {
    return "HeldTable[" + name + ", " + things.size() + " rows]";
  }
}
