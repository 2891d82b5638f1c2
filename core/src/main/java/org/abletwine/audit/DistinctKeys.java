package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.output.StoredBytes;
import org.abletwine.table.spill.Head;
import org.abletwine.table.spill.MemoryBytes;
import org.abletwine.table.spill.OrderedRuns;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;
import org.abletwine.table.spill.Stored;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * The distinct keys of a table as written, with how many rows have each: as a table of their own,
 * in memory or on disk, numbered from 0 in the order of their first row. Those that do not fit in
 * memory are told apart in parts, divided by their hash. Immutable once read.
 */
final class DistinctKeys {
  private static final int BLOCK = 1 << 20;

  private final int parts;
  private final boolean[] hidden;
  private final Stored keys;
  private final Table table;
  private final boolean onDisk;
  private final Counts counts;

  /**
   * What was counted while the keys were read.
   *
   * @param rows all rows
   * @param blank rows with a blank key
   * @param notNumbers values of the measure that are no numbers, and so are left out of the totals
   */
  record Counts(long rows, long blank, long notNumbers) {}

  private DistinctKeys(boolean[] hidden, Stored keys, boolean onDisk, Counts counts) {
    this.parts = hidden.length;
    this.hidden = hidden.clone();
    this.keys = keys;
    this.onDisk = onDisk;
    this.counts = counts;
    List<String> names = new ArrayList<>();
    for (int part = 0; part < parts; part++) {
      names.add("part " + part);
    }
    names.addAll(List.of("rows", "first row", "measure"));
    table =
        new SpilledTable(
            keys, new Head("keys", new Schema(names)), IntStream.range(0, names.size()).toArray());
  }

  /**
   * Reads a table: once, or twice where its keys do not fit in memory.
   *
   * @param columns the key columns
   * @param measure a column to total by key, or -1
   * @param hidden for each part whether its values are private
   * @param spill how much may be in memory
   */
  static DistinctKeys read(Table table, int[] columns, int measure, boolean[] hidden, Spill spill) {
    table.readAgain();
    KeysGathered gathered = new KeysGathered(columns, measure);
    long[] seen = new long[2];
    boolean[] fits = {true};
    eachRow(
        table,
        columns,
        measure,
        (batch, encoded) -> {
          gathered.take(batch, encoded);
          count(seen, batch, encoded.blankParts);
          // once more as much as bytes, which is what stays
          fits[0] = 2 * gathered.bytes() <= spill.left();
          return fits[0];
        });
    if (!fits[0]) {
      return inParts(table, columns, measure, hidden, spill);
    }
    MemoryBytes into = new MemoryBytes();
    RowBytes pending = new RowBytes();
    for (int key = 0; key < gathered.size(); key++) {
      pending.number(key + 1L);
      gathered.write(key, pending);
      putOut(pending, into, key + 1 == gathered.size());
    }
    spill.hold(into.size());
    return new DistinctKeys(
        hidden,
        new Stored(into, gathered.size()),
        false,
        new Counts(seen[0], seen[1], gathered.notNumbers()));
  }

  private static void count(long[] seen, Batch batch, int[] blankParts) {
    seen[0] += batch.rows();
    for (int row = 0; row < batch.rows(); row++) {
      seen[1] += blankParts[row] != 0 ? 1 : 0;
    }
  }

  private static void putOut(RowBytes pending, StoredBytes into, boolean all) {
    if (all || pending.used() > BLOCK) {
      into.append(pending.bytes(), pending.used());
      pending.clear();
    }
  }

  private static DistinctKeys inParts(
      Table table, int[] columns, int measure, boolean[] hidden, Spill spill) {
    table.readAgain();
    spill.requireRoom(table.sizeInBytes(), "the keys of " + table.name());
    PartedRows rows = new PartedRows(spill, spill.partsFor(table.sizeInBytes()));
    PartedRows.Gathered divided = rows.new Gathered();
    long[] seen = new long[2];
    eachRow(
        table,
        columns,
        measure,
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            if (encoded.blankParts[row] == 0) {
              int part = PartedRows.partOf(encoded.hashes[row], rows.parts());
              RowBytes into = divided.row(part, batch.rowNumber(row));
              for (int column : columns) {
                into.cell(batch.column(column), row);
              }
              into.text(measure < 0 ? null : batch.column(measure).get(row));
            }
          }
          divided.putOut();
          count(seen, batch, encoded.blankParts);
          return true;
        });
    List<String> names = new ArrayList<>();
    for (int cell = 0; cell <= columns.length; cell++) {
      names.add("cell " + cell);
    }
    Head head = new Head(table.name(), new Schema(names));
    int[] all = IntStream.rangeClosed(0, columns.length).toArray();
    List<SpillFile> files = new ArrayList<>();
    long notNumbers = 0;
    for (int part = 0; part < rows.parts(); part++) {
      files.add(spill.file());
      notNumbers +=
          gathered(
              new SpilledTable(rows.stored(part), head, all),
              columns.length,
              measure >= 0,
              files.get(part));
      rows.done(part);
    }
    Stored keys = numbered(files, spill, table);
    files.forEach(SpillFile::close);
    return new DistinctKeys(hidden, keys, true, new Counts(seen[0], seen[1], notNumbers));
  }

  /** Tells the keys of one part apart; returns values of the measure that are no numbers. */
  private static long gathered(SpilledTable rows, int parts, boolean measured, SpillFile into) {
    int[] columns = IntStream.range(0, parts).toArray();
    KeysGathered gathered = new KeysGathered(columns, measured ? parts : -1);
    eachRow(
        rows,
        columns,
        parts,
        (batch, encoded) -> {
          gathered.take(batch, encoded);
          return true;
        });
    RowBytes pending = new RowBytes();
    RowBytes key = new RowBytes();
    for (int at = 0; at < gathered.size(); at++) {
      key.clear();
      gathered.write(at, key);
      pending.number(gathered.firstRow(at));
      pending.number(0);
      pending.cell(key.bytes(), 0, key.used());
      putOut(pending, into, at + 1 == gathered.size());
    }
    return gathered.notNumbers();
  }

  /** Puts the keys of all parts into the order of their first rows. */
  private static Stored numbered(List<SpillFile> files, Spill spill, Table table) {
    SpillFile into = spill.file();
    RowBytes pending = new RowBytes();
    long[] number = new long[1];
    OrderedRuns.merge(
        files,
        (first, rest) -> {
          int start = rest.cell();
          pending.number(++number[0]);
          pending.add(rest.bytes(), start, start + rest.length());
          putOut(pending, into, false);
        });
    putOut(pending, into, true);
    if (number[0] > Integer.MAX_VALUE) {
      throw new DataException(
          table.name() + ": more than " + Integer.MAX_VALUE + " keys; divide the table");
    }
    return new Stored(into, number[0]);
  }

  /** Goes through the rows of a table, with their keys as written. */
  private static void eachRow(Table table, int[] columns, int measure, KeyedRows.Action to) {
    List<List<NormaliseStep>> none = Collections.nCopies(columns.length, List.of());
    KeyedRows.each(table, columns, none, measure + 1, null, to);
  }

  /** How many there are. */
  int size() {
    return (int) keys.rows();
  }

  /** How many parts each has. */
  int parts() {
    return parts;
  }

  /** Whether they did not fit in memory. */
  boolean onDisk() {
    return onDisk;
  }

  /** The bytes that they take, in memory or on disk. */
  long bytes() {
    return keys.bytes().size();
  }

  /** What was counted while they were read. */
  Counts counts() {
    return counts;
  }

  /**
   * Goes through all keys in their order.
   *
   * @param steps applied to each part of the keys that are given beside them
   * @param to takes them, until it does not want more
   */
  void each(List<NormaliseStep> steps, KeyedRows.Action to) {
    int[] columns = IntStream.range(0, parts).toArray();
    KeyedRows.each(table, columns, Collections.nCopies(parts, steps), parts + 3, null, to);
  }

  /** The number of a key of a batch. */
  static int number(Batch batch, int row) {
    return (int) batch.rowNumber(row) - 1;
  }

  /** How many rows have a key of a batch. */
  long count(Batch batch, int row) {
    return number(batch.column(parts), row);
  }

  /** The first row of the table that has it, 1-based. */
  long firstRow(Batch batch, int row) {
    return number(batch.column(parts + 1), row);
  }

  /** The number in a cell. */
  static long number(CellVector cells, int row) {
    long number = 0;
    for (int at = cells.starts[row]; at < cells.ends[row]; at++) {
      number = 10 * number + cells.text[at] - '0';
    }
    return number;
  }

  /** The measure's total over its rows, exact; null when nothing is measured. */
  @Nullable BigDecimal sum(Batch batch, int row) {
    String sum = batch.column(parts + 2).get(row);
    return sum == null ? null : new BigDecimal(sum);
  }

  /** A part of it, as written. */
  static String part(Batch batch, int row, int part) {
    return String.valueOf(batch.column(part).get(row));
  }

  /** The key as a reader is shown it. */
  String shown(Batch batch, int row) {
    StringBuilder text = new StringBuilder();
    for (int part = 0; part < parts; part++) {
      String value = Veil.over(hidden[part], batch.column(part).get(row));
      text.append(part == 0 ? "" : " | ").append(value);
    }
    return text.toString();
  }
}
