package org.abletwine.lookup;

import java.math.BigDecimal;
import java.util.Map;
import java.util.TreeMap;
import org.abletwine.compute.Expression;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * What an aggregate comes to over all rows of a reference together, compared with a value: without
 * having all rows, or a text of all of them, in memory. For one thread.
 */
final class AllRows {
  private final Source source;

  /** The rows of a reference, or of its parts in any order. */
  interface Source {
    void each(Taker taker);
  }

  /** Takes what each row comes to alone. */
  interface Taker {
    /**
     * @param row its number, for an order
     * @param value what it comes to; null for nothing
     */
    void take(long row, @Nullable String value);
  }

  AllRows(Source source) {
    this.source = source;
  }

  /** The rows of a reference in memory. */
  static AllRows of(Lookup lookup, Attribute attribute, LoadedReference reference) {
    int cell = KeptColumns.inCellOrder(lookup.bring).indexOf(attribute);
    return new AllRows(
        taker -> {
          for (int row = 0; row < reference.read(); row++) {
            taker.take(row, reference.rows().get(row, cell));
          }
        });
  }

  /** The rows of a reference on disk that its condition lets pass. */
  static AllRows of(Lookup lookup, Attribute attribute, Aggregate aggregate, LargeReference large) {
    return new AllRows(
        taker -> {
          for (int part = 0; part < large.parts().size(); part++) {
            each(lookup, attribute, aggregate, large, part, taker);
          }
        });
  }

  private static void each(
      Lookup lookup,
      Attribute attribute,
      Aggregate aggregate,
      LargeReference large,
      int part,
      Taker taker) {
    boolean rows = attribute.ofRows();
    int column = rows ? 0 : large.table().schema().indexOf(attribute.source());
    Expression where = lookup.where == null ? null : lookup.where.start();
    try (BatchReader reader = new BatchReader(large.parts().get(part))) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        CellVector cells = batch.column(column);
        if (where != null) {
          where.over(batch);
        }
        for (int row = 0; row < batch.rows(); row++) {
          if (where == null || where.isTrue(row)) {
            String value = rows ? null : cells.get(row);
            taker.take(batch.rowNumber(row), aggregate.ofOne(value, rows));
          }
        }
      }
    }
  }

  /**
   * Whether all rows together come to a value.
   *
   * @param type the stated type of the column, or null
   */
  boolean comeTo(Aggregate aggregate, @Nullable ColumnType type, String value) {
    return switch (aggregate.function()) {
      case SUM, COUNT, AVG -> value.equals(number(aggregate));
      case MIN -> value.equals(extreme(type, -1));
      case MAX -> value.equals(extreme(type, 1));
      case LISTAGG -> isList(aggregate, value);
      case COUNT_DISTINCT -> false; // what each row comes to alone does not say
    };
  }

  private @Nullable String number(Aggregate aggregate) {
    BigDecimal[] sum = {BigDecimal.ZERO};
    long[] count = {0};
    source.each(
        (row, one) -> {
          sum[0] = one == null ? sum[0] : sum[0].add(new BigDecimal(one));
          count[0] += one == null ? 0 : 1;
        });
    if (count[0] == 0) {
      return null;
    }
    return aggregate.function() == Aggregate.Function.AVG
        ? Aggregate.average(sum[0], count[0])
        : sum[0].toPlainString();
  }

  private @Nullable String extreme(@Nullable ColumnType type, int sign) {
    ValueOrder.Finder finder = new ValueOrder.Finder();
    source.each(
        (row, one) -> {
          if (one != null && type == null) {
            finder.look(one);
          }
        });
    ValueOrder order = type == null ? finder.order() : ValueOrder.of(type);
    @Nullable String[] best = {null};
    long[] bestRow = {0};
    source.each(
        (row, one) -> {
          String held = best[0];
          int better = one == null ? -1 : held == null ? 1 : order.compare(one, held) * sign;
          if (better > 0 || better == 0 && row < bestRow[0]) {
            best[0] = one;
            bestRow[0] = row;
          }
        });
    return best[0];
  }

  /** Looks at the length first: hardly ever is it the same. */
  private boolean isList(Aggregate aggregate, String value) {
    long[] length = {-aggregate.separator().length()};
    source.each(
        (row, one) -> length[0] += one == null ? 0 : one.length() + aggregate.separator().length());
    if (length[0] != value.length()) {
      return false;
    }
    Map<Long, String> inOrder = new TreeMap<>();
    source.each(
        (row, one) -> {
          if (one != null) {
            inOrder.put(row, one);
          }
        });
    return value.equals(String.join(aggregate.separator(), inOrder.values()));
  }
}
