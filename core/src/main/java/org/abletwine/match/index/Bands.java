package org.abletwine.match.index;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.match.BandReport;
import org.abletwine.match.BandReport.Finding;
import org.abletwine.match.BandReport.Kind;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * Looks at a table of bands: overlaps, gaps, reversed and open ends. Bands are taken with their
 * lower end in and their upper end out, so that one may begin where another ends. Holds the bands
 * in memory. Used by one thread.
 */
public final class Bands {
  private final Table table;
  private final int[] keyColumns;
  private final int[] ends;
  private final List<NormaliseStep> normalise;
  private final Map<List<String>, Integer> partitions = new LinkedHashMap<>();
  private final List<Long> numbers = new ArrayList<>();
  private final List<Finding> findings = new ArrayList<>();
  private final RuleRows rows;
  private long read;
  private long blank;

  private Bands(Table table, int[] keyColumns, int[] ends, List<NormaliseStep> normalise) {
    this.table = table;
    this.keyColumns = keyColumns.clone();
    this.ends = ends.clone();
    this.normalise = normalise;
    this.rows = new RuleRows(ends.length);
  }

  /**
   * Looks at the bands of a table.
   *
   * @param table the table
   * @param keyColumns columns that must be equal for bands to belong together; may be none
   * @param ends the column of the lower ends, and that of the upper ends if there is one
   * @param normalise steps applied to key parts and ends
   * @return what was found
   * @throws org.abletwine.table.DataException when the table cannot be read or an end cannot be
   *     ordered
   */
  public static BandReport of(
      Table table, int[] keyColumns, int[] ends, List<NormaliseStep> normalise) {
    Bands bands = new Bands(table, keyColumns, ends, normalise);
    bands.read();
    bands.sweep();
    return new BandReport(bands.read, bands.partitions.size(), bands.blank, bands.findings);
  }

  private void read() {
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        CellVector[] keys = normalised(batch, keyColumns);
        CellVector[] values = normalised(batch, ends);
        for (int row = 0; row < batch.rows(); row++) {
          read++;
          List<String> key = key(keys, row);
          if (key == null || ends.length == 1 && values[0].starts[row] >= values[0].ends[row]) {
            blank++;
            continue;
          }
          int partition = partitions.computeIfAbsent(key, k -> partitions.size());
          rows.add(values, row, partition, 0, numbers.size());
          numbers.add(batch.rowNumber(row));
        }
      }
    }
  }

  private CellVector[] normalised(Batch batch, int[] columns) {
    CellVector[] cells = new CellVector[columns.length];
    for (int i = 0; i < columns.length; i++) {
      cells[i] = new CellVector();
      batch.copySlices(cells[i], columns[i]);
      for (NormaliseStep step : normalise) {
        CellsStep.apply(step, cells[i], batch.rows());
      }
    }
    return cells;
  }

  private static @Nullable List<String> key(CellVector[] keys, int row) {
    List<String> parts = new ArrayList<>();
    for (CellVector cells : keys) {
      String part = cells.get(row);
      if (part == null || part.isEmpty()) {
        return null;
      }
      parts.add(part);
    }
    return parts;
  }

  private void sweep() {
    String fromName = table.schema().names().get(ends[0]);
    ColumnType declared = table.type(fromName);
    Domain domain =
        Domains.of(
            rows,
            MatchRule.of(ends.length == 2 ? MatchRule.Kind.BETWEEN : MatchRule.Kind.AT_OR_BELOW),
            declared,
            table.name() + ", column \"" + fromName + "\"",
            row -> numbers.get(row));
    Integer[] order = new Integer[rows.rows()];
    Arrays.setAll(order, i -> i);
    Arrays.sort(
        order,
        Comparator.<Integer>comparingInt(rows::partition)
            .thenComparingLong(row -> low(domain, row)));
    List<String> names =
        partitions.keySet().stream().map(parts -> String.join(" | ", parts)).toList();
    int at = 0;
    while (at < order.length) {
      int end = at;
      while (end < order.length && rows.partition(order[end]) == rows.partition(order[at])) {
        end++;
      }
      partition(domain, Arrays.copyOfRange(order, at, end), names.get(rows.partition(order[at])));
      at = end;
    }
  }

  private long low(Domain domain, int row) {
    return coordinate(domain, row, 0, Long.MIN_VALUE);
  }

  private long high(Domain domain, int row) {
    return coordinate(domain, row, 1, Long.MAX_VALUE);
  }

  private long coordinate(Domain domain, int row, int end, long open) {
    return rows.isNull(row, end)
        ? open
        : domain.coordinate(rows.text(), rows.start(row, end), rows.end(row, end));
  }

  private void partition(Domain domain, Integer[] order, String name) {
    if (ends.length == 1) {
      for (int i = 1; i < order.length; i++) {
        if (low(domain, order[i]) == low(domain, order[i - 1])) {
          note(Kind.SAME_START, name, text(order[i], 0), "", order[i - 1], order[i]);
        }
      }
      return;
    }
    int farthest = -1;
    for (int row : order) {
      long low = low(domain, row);
      long high = high(domain, row);
      if (low > high) {
        note(Kind.REVERSED, name, text(row, 0), text(row, 1), row);
        continue;
      }
      if (low == Long.MIN_VALUE || high == Long.MAX_VALUE) {
        note(Kind.OPEN, name, text(row, 0), text(row, 1), row);
      }
      if (farthest >= 0) {
        long reached = high(domain, farthest);
        if (low < reached) {
          int nearer = high < reached ? row : farthest;
          note(Kind.OVERLAP, name, text(row, 0), text(nearer, 1), farthest, row);
        } else if (low > reached) {
          note(Kind.GAP, name, text(farthest, 1), text(row, 0), farthest, row);
        }
      }
      farthest = farthest < 0 || high >= high(domain, farthest) ? row : farthest;
    }
  }

  private String text(int row, int end) {
    String value = rows.value(row, end);
    return value == null ? "" : value;
  }

  private void note(Kind kind, String partition, String from, String to, int... concerned) {
    List<Long> file = new ArrayList<>();
    for (int row : concerned) {
      file.add(numbers.get(rows.number(row)));
    }
    findings.add(new Finding(kind, partition, from, to, file));
  }
}
