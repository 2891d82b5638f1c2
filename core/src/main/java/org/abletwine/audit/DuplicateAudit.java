package org.abletwine.audit;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.abletwine.audit.DuplicateReport.Conflict;
import org.abletwine.audit.DuplicateReport.DuplicateKey;
import org.abletwine.index.HashIndex;
import org.abletwine.index.KeyGroups;
import org.abletwine.index.RowStore;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.DuplicateRows;
import org.abletwine.lookup.Duplicates;
import org.abletwine.lookup.RowNumbers;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.DataException;
import org.abletwine.table.ReadAhead;
import org.abletwine.table.Table;

/**
 * Finds the keys of a table that stand on more than one row. The first reading notes keys only, in
 * memory that follows the distinct keys; when there are duplicates, a second one fetches their rows
 * whole. Used by one thread.
 */
public final class DuplicateAudit {
  private final Table table;
  private final int[] keyColumns;
  private final List<List<NormaliseStep>> steps;

  private long rows;
  private long blankRows;
  private long keys;
  private double bytesPerKey;
  private final BitSet duplicateRows = new BitSet();
  private final RowStore store;
  private final HashIndex index;
  private final RowNumbers numbers = new RowNumbers();

  private DuplicateAudit(Table table, int[] keyColumns, List<NormaliseStep> normalise) {
    this.table = table;
    this.keyColumns = keyColumns.clone();
    this.steps = new ArrayList<>();
    for (int part = 0; part < keyColumns.length; part++) {
      steps.add(normalise);
    }
    this.store = new RowStore(table.schema().size());
    this.index = new HashIndex(store);
  }

  /**
   * Reads a table and finds its duplicates.
   *
   * @param table the table
   * @param keyColumns the key's column numbers
   * @param normalise steps applied to each key part for comparing
   * @return the audit, to be asked for its report or for the rows
   * @throws DataException when the table cannot be read
   */
  public static DuplicateAudit of(Table table, int[] keyColumns, List<NormaliseStep> normalise) {
    DuplicateAudit audit = new DuplicateAudit(table, keyColumns, normalise);
    audit.readKeys();
    if (!audit.duplicateRows.isEmpty()) {
      audit.readRows();
    }
    return audit;
  }

  private interface BatchAction {
    void take(Batch batch, EncodedKeys encoded);
  }

  private void forEachBatch(BatchAction action) {
    KeyEncoder encoder = new KeyEncoder(keyColumns, steps);
    EncodedKeys encoded = new EncodedKeys();
    try (ReadAhead reading = new ReadAhead(table)) {
      for (Batch batch = reading.next(); batch != null; batch = reading.next()) {
        encoder.encode(batch, encoded);
        action.take(batch, encoded);
        reading.recycle(batch);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new DataException("reading " + table.name() + " was interrupted", e);
    }
  }

  private void readKeys() {
    RowStore keyStore = new RowStore(0);
    HashIndex keyIndex = new HashIndex(keyStore);
    CellVector[] none = {};
    RowNumbers stored = new RowNumbers();
    forEachBatch(
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            int number = (int) batch.rowNumber(row);
            rows++;
            if (encoded.blankParts[row] != 0) {
              blankRows++;
              continue;
            }
            int known = keyIndex.find(encoded, row);
            if (known == HashIndex.ABSENT) {
              keyStore.add(none, row, encoded);
              keyIndex.add(encoded, row, keyStore.rows() - 1);
              stored.add(number);
            } else {
              duplicateRows.set(stored.of(keyIndex.rowAt(known)));
              duplicateRows.set(number);
            }
          }
        });
    keys = keyIndex.keys();
    bytesPerKey = (double) (keyStore.bytes() + keyIndex.bytes()) / Math.max(1, keys);
  }

  private void readRows() {
    CellVector[] cells = new CellVector[table.schema().size()];
    forEachBatch(
        (batch, encoded) -> {
          for (int column = 0; column < cells.length; column++) {
            cells[column] = batch.column(column);
          }
          for (int row = 0; row < batch.rows(); row++) {
            if (duplicateRows.get((int) batch.rowNumber(row))) {
              int number = store.rows();
              store.add(cells, row, encoded);
              index.add(encoded, row, number);
              numbers.add(batch.rowNumber(row));
            }
          }
        });
  }

  /** Returns the rows whose key stands on more than one, by their number, 1-based. */
  public BitSet duplicateRows() {
    return (BitSet) duplicateRows.clone();
  }

  /**
   * The rows that a rule for duplicates leaves out.
   *
   * @param policy the rule
   * @return their numbers, 1-based
   * @throws DataException when the rule says that such a key ends the run
   */
  public BitSet leftOutBy(Duplicates policy) {
    int column = policy.column() == null ? -1 : table.schema().indexOf(policy.column());
    KeyGroups groups = index.groups();
    int[] stays =
        new DuplicateRows(policy, store, groups, column, numbers)
            .chosen(table.name(), table.schema().size(), keyColumns[0]);
    BitSet leftOut = duplicateRows();
    for (int row : stays) {
      leftOut.clear(numbers.of(row));
    }
    return leftOut;
  }

  /**
   * Sums up.
   *
   * @param mostExamples how many keys to describe
   * @return what was found
   */
  public DuplicateReport report(int mostExamples) {
    KeyGroups groups = index.groups();
    List<DuplicateKey> examples = new ArrayList<>();
    long identical = 0;
    long collisions = 0;
    for (int group = 0; group < groups.count(); group++) {
      int[] members = groups.rows(group);
      if (alike(members)) {
        identical++;
      }
      if (writtenDifferently(members)) {
        collisions++;
      }
      if (examples.size() < mostExamples) {
        examples.add(describe(members));
      }
    }
    UniqueSearch search = new UniqueSearch(table.schema(), keyColumns, store, groups);
    List<List<String>> uniqueWith = groups.count() == 0 ? List.of() : search.find();
    return new DuplicateReport(
        rows,
        blankRows,
        keys,
        groups.count(),
        duplicateRows.cardinality(),
        identical,
        collisions,
        examples,
        uniqueWith,
        search.tried(),
        search.bounded(),
        bytesPerKey);
  }

  private boolean alike(int[] members) {
    for (int row : members) {
      if (!store.agree(members[0], row, table.schema().size())) {
        return false;
      }
    }
    return true;
  }

  private boolean writtenDifferently(int[] members) {
    for (int row : members) {
      for (int column : keyColumns) {
        if (!Objects.equals(store.get(row, column), store.get(members[0], column))) {
          return true;
        }
      }
    }
    return false;
  }

  private DuplicateKey describe(int[] members) {
    List<Integer> rowNumbers = new ArrayList<>();
    for (int row : members) {
      rowNumbers.add(numbers.of(row));
    }
    List<Conflict> conflicts = new ArrayList<>();
    for (int column = 0; column < table.schema().size(); column++) {
      Set<String> values = new LinkedHashSet<>();
      for (int row : members) {
        values.add(String.valueOf(store.get(row, column)));
      }
      if (values.size() > 1) {
        conflicts.add(new Conflict(table.schema().names().get(column), List.copyOf(values)));
      }
    }
    List<String> key = new ArrayList<>();
    for (int column : keyColumns) {
      key.add(String.valueOf(store.get(members[0], column)));
    }
    return new DuplicateKey(String.join(" | ", key), rowNumbers, conflicts);
  }

  @Override
  public String toString() {
    return "DuplicateAudit[" + table.name() + "]";
  }
}
