package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * The cells by which the newest of several reference rows is found, where rows whose cell cannot be
 * read are to be left out: what a cell must be is what its column is declared to hold, so that each
 * row is decided by itself. Without a declared type only all values together tell, and nothing is
 * left out. Immutable; safe to share between threads.
 */
final class OrderedCells {
  private record Ordered(int cell, ValueOrder order) {}

  private final Ordered[] cells;

  OrderedCells(Lookup lookup, KeptColumns kept) {
    List<Ordered> ordered = new ArrayList<>();
    if (lookup.leavesOutUnreadable) {
      add(ordered, lookup, lookup.several.column(), kept.newestCell());
      add(ordered, lookup, lookup.duplicates.column(), kept.duplicatesCell());
    }
    cells = ordered.toArray(Ordered[]::new);
  }

  private static void add(List<Ordered> ordered, Lookup lookup, @Nullable String column, int cell) {
    ColumnType type = column == null ? null : lookup.reference.type(column);
    if (type != null) {
      ordered.add(new Ordered(cell, ValueOrder.of(type)));
    }
  }

  /**
   * Whether all of a row's cells can be read; null can.
   *
   * @param kept the cells that are kept of a batch
   * @param row the row in the batch
   */
  boolean readable(CellVector[] kept, int row) {
    for (Ordered one : cells) {
      String value = kept[one.cell].get(row);
      if (value != null && !one.order.fits(value)) {
        return false;
      }
    }
    return true;
  }
}
