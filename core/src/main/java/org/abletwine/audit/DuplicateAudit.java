package org.abletwine.audit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Objects;
import java.util.stream.IntStream;
import org.abletwine.index.HashIndex;
import org.abletwine.index.KeyGroups;
import org.abletwine.index.RowStore;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.lookup.Duplicates;
import org.abletwine.lookup.rows.DuplicateRows;
import org.abletwine.lookup.rows.Newest;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.lookup.rows.ValuesCompared;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.spill.Head;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;
import org.jspecify.annotations.Nullable;

/**
 * Finds the keys of a table that stand on more than one row. One reading notes the keys, in memory
 * that follows the distinct keys, looks into the key columns only, and keeps rows whose key was
 * there before. Only when the first row of such a key was read long before is there a second
 * reading, to fetch it. Used by one thread.
 */
public final class DuplicateAudit {
  private static final CellVector[] NONE = {};

  /** Keys whose places in the index are brought near together. */
  private static final int AT_ONCE = 512;

  /** Rows kept at hand for those after them. */
  private static final int AT_HAND = 64;

  private final Table table;
  private final int[] keyColumns;
  private final List<List<NormaliseStep>> steps;
  private final boolean byColumn;

  private long rows;
  private long blankRows;
  private long keys;
  private double bytesPerKey;
  private final BitSet duplicateRows = new BitSet();
  private final BitSet caught = new BitSet();
  private boolean inOrder = true;

  /**
   * The last rows before those looked at: many tables are sorted, and equal keys are neighbours.
   */
  private final Batch last;

  private final CellVector[] cells;
  private final RowStore store;
  private final HashIndex index;
  private final RowNumbers numbers = new RowNumbers();
  private KeyGroups groups;

  @SuppressWarnings("unused") // keeps the loads it stands for
  private long touched;

  private DuplicateAudit(Table table, int[] keyColumns, List<NormaliseStep> normalise) {
    this.table = table;
    this.keyColumns = keyColumns.clone();
    this.byColumn = BatchTable.of(table).byColumn();
    this.steps = new ArrayList<>();
    for (int part = 0; part < keyColumns.length; part++) {
      steps.add(normalise);
    }
    this.cells = new CellVector[table.schema().size()];
    Arrays.setAll(cells, column -> new CellVector());
    this.last = new Batch(cells.length);
    this.store = new RowStore(cells.length);
    this.index = new HashIndex(store);
    this.groups = index.groups();
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
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(keyColumns, "keyColumns");
    Objects.requireNonNull(normalise, "normalise");
    try (Spill spill = new Spill(0, null)) {
      return of(table, keyColumns, normalise, spill);
    }
  }

  /**
   * The same, with a stated amount of memory for the keys; those that do not fit are kept in parts
   * on disk meanwhile, divided by their hash, and looked at one part after the other.
   *
   * @param table the table
   * @param keyColumns the key's column numbers, from 0
   * @param normalise steps applied to each key part for comparing
   * @param spill how much may be in memory
   * @return the audit, to be asked for its report or for the rows
   */
  @SuppressWarnings("exports") // for the command line
  public static DuplicateAudit of(
      Table table, int[] keyColumns, List<NormaliseStep> normalise, Spill spill) {
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(keyColumns, "keyColumns");
    Objects.requireNonNull(normalise, "normalise");
    Objects.requireNonNull(spill, "spill");
    table.readAgain();
    DuplicateAudit audit = new DuplicateAudit(table, keyColumns, normalise);
    if (!audit.readKeys(spill)) {
      audit = new DuplicateAudit(table, keyColumns, normalise);
      audit.readKeysInParts(spill);
    }
    if (audit.caught.cardinality() < audit.duplicateRows.cardinality()) {
      audit.readMissing();
    }
    KeyGroups found = audit.index.groups();
    audit.groups = audit.inOrder ? found : found.inOrder(audit.numbers::of);
    return audit;
  }

  /** Notes all keys; returns whether they fit in memory. */
  private boolean readKeys(Spill spill) {
    boolean[] fits = {true};
    RowStore keyStore = new RowStore(0);
    HashIndex keyIndex = new HashIndex(keyStore);
    RowNumbers stored = new RowNumbers();
    KeyedRows.each(
        table,
        keyColumns,
        steps,
        0,
        null,
        (batch, encoded) -> {
          if (rows == 0 && batch.rows() > 0) {
            long characters = Math.max(1, batch.used() / batch.rows());
            keyIndex.expect(Math.min(table.sizeInBytes() / characters, spill.left() / 64));
          }
          for (int row = 0; row < batch.rows(); row++) {
            if (row % AT_ONCE == 0) {
              touched = keyIndex.touch(encoded, row, Math.min(row + AT_ONCE, batch.rows()));
            }
            takeKey(batch, encoded, row, keyStore, keyIndex, stored);
          }
          rows += batch.rows();
          if (!byColumn) {
            keepLast(batch);
          }
          fits[0] = keyStore.bytes() + keyIndex.bytes() + stored.bytes() <= spill.left();
          return fits[0];
        });
    keys = keyIndex.keys();
    bytesPerKey =
        (double) (keyStore.bytes() + keyIndex.bytes() + stored.bytes()) / Math.max(1, keys);
    return fits[0];
  }

  /** Notes which rows have a key that others have, one part of the keys after the other. */
  private void readKeysInParts(Spill spill) {
    spill.requireRoom(table.sizeInBytes(), "the keys of " + table.name());
    PartedRows parts = new PartedRows(spill, spill.partsFor(table.sizeInBytes()));
    PartedRows.Gathered gathered = parts.new Gathered();
    KeyedRows.each(
        table,
        keyColumns,
        steps,
        0,
        null,
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            if (encoded.blankParts[row] != 0) {
              blankRows++;
              continue;
            }
            int part = PartedRows.partOf(encoded.hashes[row], parts.parts());
            RowBytes into = gathered.row(part, batch.rowNumber(row));
            for (int column : keyColumns) {
              into.cell(batch.column(column), row);
            }
          }
          rows += batch.rows();
          gathered.putOut();
          return true;
        });
    List<String> names = new ArrayList<>();
    for (int part = 0; part < keyColumns.length; part++) {
      names.add("part " + part);
    }
    Head head = new Head(table.name(), new Schema(names));
    int[] all = IntStream.range(0, keyColumns.length).toArray();
    long bytes = 0;
    for (int part = 0; part < parts.parts(); part++) {
      bytes += notePart(new SpilledTable(parts.stored(part), head, all), all);
      parts.done(part);
    }
    bytesPerKey = (double) bytes / Math.max(1, keys);
    inOrder = false; // rows will be kept in their order, and groups found by their second rows
  }

  /** Notes the rows of one part that have a key of others; returns the memory that it took. */
  private long notePart(Table part, int[] columns) {
    RowStore keyStore = new RowStore(0);
    HashIndex keyIndex = new HashIndex(keyStore);
    RowNumbers stored = new RowNumbers();
    KeyedRows.each(
        part,
        columns,
        steps,
        0,
        null,
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            int found = keyIndex.find(encoded, row);
            if (found == HashIndex.ABSENT) {
              keyStore.add(NONE, row, encoded);
              stored.add(numbered(batch.rowNumber(row)));
              keyIndex.add(encoded, row, keyStore.rows() - 1);
            } else {
              duplicateRows.set(stored.of(keyIndex.rowAt(found)));
              duplicateRows.set((int) numbered(batch.rowNumber(row)));
            }
          }
          return true;
        });
    keys += keyIndex.keys();
    return keyStore.bytes() + keyIndex.bytes() + stored.bytes();
  }

  private long numbered(long number) {
    if (number > Integer.MAX_VALUE) {
      throw new DataException(
          table.name() + ": more than " + Integer.MAX_VALUE + " rows; divide the table");
    }
    return number;
  }

  private void takeKey(
      Batch batch,
      EncodedKeys encoded,
      int row,
      RowStore keyStore,
      HashIndex keyIndex,
      RowNumbers stored) {
    if (encoded.blankParts[row] != 0) {
      blankRows++;
      return;
    }
    int found = keyIndex.find(encoded, row);
    if (found == HashIndex.ABSENT) {
      keyStore.add(NONE, row, encoded);
      stored.add(numbered(batch.rowNumber(row)));
      keyIndex.add(encoded, row, keyStore.rows() - 1);
      return;
    }
    int first = stored.of(keyIndex.rowAt(found));
    duplicateRows.set(first);
    duplicateRows.set((int) batch.rowNumber(row));
    if (byColumn) {
      inOrder = false; // what else the rows hold was not read: a second reading fetches it
      return;
    }
    // The first row of the key is often still at hand; if not, a second reading fetches it.
    if (first >= batch.firstRow()) {
      keep(batch, (int) (first - batch.firstRow()), encoded, row, first);
    } else if (last.rows() > 0 && first >= last.firstRow()) {
      keep(last, (int) (first - last.firstRow()), encoded, row, first);
    }
    keep(batch, row, encoded, row, (int) batch.rowNumber(row));
  }

  /** Keeps the last rows of a batch at hand for the next one. */
  private void keepLast(Batch batch) {
    int from = Math.max(0, batch.rows() - AT_HAND);
    last.clear(batch.firstRow() + from, '\0');
    for (int row = from; row < batch.rows(); row++) {
      batch.complete(row);
      for (int column = 0; column < cells.length; column++) {
        batch.cell(row, column, cells[column]);
        last.addCell(cells[column].get(0));
      }
      last.endRow();
    }
  }

  private void noteCaught(int number, EncodedKeys encoded, int key) {
    index.add(encoded, key, store.rows() - 1);
    inOrder &= caught.length() <= number;
    caught.set(number);
    numbers.add(number);
  }

  /** Keeps a row of a batch under a key, unless it is kept already. */
  private void keep(Batch batch, int row, EncodedKeys encoded, int key, int number) {
    if (caught.get(number)) {
      return;
    }
    batch.complete(row);
    for (int column = 0; column < cells.length; column++) {
      batch.cell(row, column, cells[column]);
    }
    store.addUnderKey(cells, encoded, key);
    noteCaught(number, encoded, key);
  }

  private void readMissing() {
    BitSet missing = duplicateRows();
    missing.andNot(caught);
    KeyedRows.each(
        table,
        keyColumns,
        steps,
        cells.length,
        missing,
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            keep(batch, row, encoded, row, (int) batch.rowNumber(row));
          }
          return true;
        });
  }

  /** {@return the rows whose key stands on more than one, by their number, 1-based} */
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
    Objects.requireNonNull(policy, "policy");
    int[] stays =
        new DuplicateRows(
                policy, store, groups, newest(policy.column()), numbers, hidden(keyColumns[0]))
            .chosen(table.name(), 0, table.schema().size(), keyColumns[0])
            .allowed();
    BitSet leftOut = duplicateRows();
    for (int row : stays) {
      leftOut.clear(numbers.of(row));
    }
    return leftOut;
  }

  private @Nullable Newest newest(@Nullable String decides) {
    if (decides == null) {
      return null;
    }
    ValuesCompared values =
        new ValuesCompared(
            new ValuesCompared.Place(table.name(), decides, table.isPrivate(decides)),
            table.type(decides));
    int column = table.schema().indexOf(decides);
    Newest newest = Newest.by(store, column, groups, new BitSet(), numbers, values);
    values.throwIfAny();
    return newest;
  }

  /**
   * Sums up.
   *
   * @param mostExamples how many keys to describe
   * @return what was found
   */
  public Report report(int mostExamples) {
    DuplicatesTold told = new DuplicatesTold(table, keyColumns, store, numbers);
    List<DuplicateKey> examples = new ArrayList<>();
    long identical = 0;
    long collisions = 0;
    for (int group = 0; group < groups.count(); group++) {
      int[] members = groups.rows(group);
      if (told.alike(members)) {
        identical++;
      }
      if (told.writtenDifferently(members)) {
        collisions++;
      }
      if (examples.size() < mostExamples) {
        examples.add(told.describe(members));
      }
    }
    UniqueSearch search = new UniqueSearch(table.schema(), keyColumns, store, groups);
    List<List<String>> uniqueWith = groups.count() == 0 ? List.of() : search.find();
    return new Report(
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

  private boolean hidden(int column) {
    return table.isPrivate(table.schema().names().get(column));
  }

  @Override
  public String toString() {
    return "DuplicateAudit[" + table.name() + "]";
  }

  /**
   * Where a key stands on more than one row.
   *
   * @param rows rows of the table
   * @param blankRows rows with a null or blank key part, which no key can find
   * @param keys distinct keys, as compared
   * @param duplicateKeys keys on more than one row
   * @param duplicateRows rows that have one of these keys
   * @param identicalKeys of the duplicate keys, those whose rows are alike in every column
   * @param collisions of the duplicate keys, those written differently that normalising made equal
   * @param examples the duplicate keys in file order, as many as asked for
   * @param uniqueWith the smallest sets of further columns that would make the key unique
   * @param setsTried how many sets of columns were tried
   * @param searchBounded whether the search stopped at its bound before all sets were tried
   * @param bytesPerKey memory of the index, in bytes per distinct key
   */
  public record Report(
      long rows,
      long blankRows,
      long keys,
      long duplicateKeys,
      long duplicateRows,
      long identicalKeys,
      long collisions,
      List<DuplicateKey> examples,
      List<List<String>> uniqueWith,
      int setsTried,
      boolean searchBounded,
      double bytesPerKey) {

    /** Copies the lists. */
    public Report {
      examples = List.copyOf(examples);
      uniqueWith = List.copyOf(uniqueWith);
    }
  }

  /**
   * A key on more than one row.
   *
   * @param key the key as its first row writes it
   * @param rows its rows, 1-based
   * @param conflicts the columns in which they differ, with the values; empty when they are alike
   */
  public record DuplicateKey(String key, List<Integer> rows, List<Conflict> conflicts) {
    /** Copies the lists. */
    public DuplicateKey {
      rows = List.copyOf(rows);
      conflicts = List.copyOf(conflicts);
    }
  }

  /**
   * A column in which rows of one key differ.
   *
   * @param column the column
   * @param values its distinct values in row order, "null" for null
   */
  public record Conflict(String column, List<String> values) {
    /** Copies the list. */
    public Conflict {
      values = List.copyOf(values);
    }
  }
}
