package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.abletwine.compute.Expression;
import org.abletwine.step.run.Exchanging;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * Notes which parts of keys will be asked for, of rows that a part of a large reference does not
 * match; the reference is gone through for them once all are noted. Safe for use by several
 * threads.
 */
final class AskedParts extends KnownParts {
  private final Lookup lookup;
  private final int most;
  private final List<Set<String>> asked = new ArrayList<>();

  AskedParts(Lookup lookup) {
    this(lookup, Exchanging.MOST_ASKED);
  }

  /**
   * @param most how many values of a part are told apart
   */
  AskedParts(Lookup lookup, int most) {
    super(lookup, List.of());
    this.lookup = lookup;
    this.most = most;
    lookup.key.forEach(part -> asked.add(ConcurrentHashMap.newKeySet()));
  }

  /**
   * @param asked for each part of the key what was asked for
   */
  AskedParts(Lookup lookup, List<Set<String>> asked) {
    this(lookup);
    for (int part = 0; part < asked.size(); part++) {
      this.asked.get(part).addAll(asked.get(part));
    }
  }

  @Override
  String of(Batch batch, int row, int[] keyColumns) {
    for (int part = 0; part < keyColumns.length; part++) {
      if (asked.get(part).size() <= most) {
        asked.get(part).add(compared(batch.column(keyColumns[part]).get(row), part));
      }
    }
    return "";
  }

  /** For each part of the key what was asked for; null when there are too many values of one. */
  @Nullable List<Set<String>> asked() {
    return asked.stream().anyMatch(values -> values.size() > most) ? null : asked;
  }

  /** Goes through the reference for what was asked. */
  KnownParts found(LargeReference large) {
    return new KnownParts(lookup, asked() == null ? null : in(large.parts()));
  }

  /** For each part of the key which of the values asked for rows of the reference have. */
  List<Set<String>> in(List<Table> rows) {
    List<Set<String>> known = new ArrayList<>();
    asked.forEach(values -> known.add(new HashSet<>()));
    boolean any = asked.stream().anyMatch(values -> !values.isEmpty());
    for (Table some : any ? rows : List.<Table>of()) {
      look(some, known);
    }
    return known;
  }

  private void look(Table rows, List<Set<String>> known) {
    @Nullable Expression where = lookup.where == null ? null : lookup.where.start();
    CellVector[] cells = new CellVector[asked.size()];
    try (BatchReader reader = new BatchReader(rows)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        if (where != null) {
          where.over(batch);
        }
        for (int p = 0; p < cells.length; p++) {
          cells[p] = batch.column(rows.schema().indexOf(lookup.key.get(p).theirs()));
        }
        for (int row = 0; row < batch.rows(); row++) {
          if (where != null && !where.isTrue(row)) {
            continue;
          }
          for (int p = 0; p < cells.length; p++) {
            String value = compared(cells[p].get(row), p);
            if (asked.get(p).contains(value)) {
              known.get(p).add(value);
            }
          }
        }
      }
    }
  }
}
