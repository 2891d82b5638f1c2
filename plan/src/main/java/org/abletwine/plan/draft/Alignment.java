package org.abletwine.plan.draft;

import java.util.HashMap;
import java.util.Map;
import org.abletwine.table.DataException;

/** Which row of a table made by hand is which transaction. */
final class Alignment {
  private static final double MOSTLY = 0.8;

  private Alignment() {}

  /**
   * For each transaction its row in the other table, -1 for none: by a column of both whose values
   * stand once, else by their order where both have as many rows.
   *
   * @throws DataException when neither can be
   */
  static int[] of(SampleTable rows, SampleTable made) {
    for (SampleColumn column : rows.columns()) {
      boolean key = column.distinct() == rows.count() && made.has(column.name());
      SampleColumn other = key ? made.column(column.name()) : column;
      if (key && other.distinct() == other.rows()) {
        Map<String, Integer> place = new HashMap<>();
        for (int row = 0; row < made.count(); row++) {
          place.put(other.value(row), row);
        }
        int[] found = new int[rows.count()];
        int all = 0;
        for (int row = 0; row < found.length; row++) {
          found[row] = place.getOrDefault(column.value(row), -1);
          all += found[row] < 0 ? 0 : 1;
        }
        if (all >= MOSTLY * Math.min(rows.count(), made.count())) {
          return found;
        }
      }
    }
    if (rows.count() != made.count()) {
      throw new DataException(
          made.name()
              + " has "
              + made.count()
              + " rows and "
              + rows.name()
              + " "
              + rows.count()
              + ", and no column of both tells which row is which; keep a column such as a ticket"
              + " number in it");
    }
    int[] same = new int[rows.count()];
    java.util.Arrays.setAll(same, row -> row);
    return same;
  }
}
