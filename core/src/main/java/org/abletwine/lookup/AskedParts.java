package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.abletwine.compute.Expression;
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
  /** So many values of a part are told apart; of those beyond, nothing is said. */
  private static final int MOST = 1_000_000;

  private final Lookup lookup;
  private final List<Set<String>> asked = new ArrayList<>();

  AskedParts(Lookup lookup) {
    super(lookup, List.of());
    this.lookup = lookup;
    lookup.key.forEach(part -> asked.add(ConcurrentHashMap.newKeySet()));
  }

  @Override
  String of(Batch batch, int row, int[] keyColumns) {
    for (int part = 0; part < keyColumns.length; part++) {
      if (asked.get(part).size() < MOST) {
        asked.get(part).add(compared(batch.column(keyColumns[part]).get(row), part));
      }
    }
    return "";
  }

  /** Goes through the reference for what was asked. */
  KnownParts found(LargeReference large) {
    List<Set<String>> known = new ArrayList<>();
    asked.forEach(values -> known.add(new HashSet<>()));
    boolean any = asked.stream().anyMatch(values -> !values.isEmpty());
    for (int part = 0; part < large.parts().parts() && any; part++) {
      look(large, part, known);
    }
    return new KnownParts(lookup, known);
  }

  private void look(LargeReference large, int part, List<Set<String>> known) {
    @Nullable Expression where = lookup.where == null ? null : lookup.where.start();
    CellVector[] cells = new CellVector[asked.size()];
    try (BatchReader reader = new BatchReader(large.part(part))) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        if (where != null) {
          where.over(batch);
        }
        for (int p = 0; p < cells.length; p++) {
          cells[p] = batch.column(large.table().schema().indexOf(lookup.key.get(p).theirs()));
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
