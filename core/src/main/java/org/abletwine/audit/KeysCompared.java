package org.abletwine.audit;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.spill.Head;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;

/**
 * Which keys of two tables are equal once steps are applied. Where those of the reference do not
 * fit in memory, both sides are divided by the hash of what the steps leave of them, and compared
 * part by part. For one thread.
 */
final class KeysCompared {
  private final DistinctKeys ours;
  private final BitSet matched = new BitSet();
  private final BitSet used = new BitSet();
  private long rows;
  private long collisions;

  private KeysCompared(DistinctKeys ours) {
    this.ours = ours;
  }

  /** Compares two tables' keys. */
  static KeysCompared of(
      DistinctKeys ours, DistinctKeys theirs, List<NormaliseStep> steps, Spill spill) {
    KeysCompared compared = new KeysCompared(ours);
    if (theirs.onDisk()) {
      compared.inParts(theirs, steps, spill);
    } else {
      Part part = compared.new Part();
      theirs.each(steps, part::add);
      ours.each(steps, (batch, keys) -> part.probe(batch, keys, ours::count));
    }
    return compared;
  }

  /** Our keys that are there, by number. */
  BitSet matched() {
    return matched;
  }

  /** Their keys that some of ours find, by number. */
  BitSet used() {
    return used;
  }

  /** Our rows whose key is there. */
  long rows() {
    return rows;
  }

  /** Their keys that the steps make equal to one before. */
  long collisions() {
    return collisions;
  }

  private void inParts(DistinctKeys theirs, List<NormaliseStep> steps, Spill spill) {
    int count = spill.partsFor(2 * theirs.bytes());
    PartedRows our = divided(ours, steps, count, spill);
    PartedRows their = divided(theirs, steps, count, spill);
    for (int at = 0; at < count; at++) {
      Part part = new Part();
      each(their, at, part::add);
      each(our, at, (batch, keys) -> part.probe(batch, keys, KeysCompared::count));
      their.done(at);
      our.done(at);
    }
  }

  private static PartedRows divided(
      DistinctKeys keys, List<NormaliseStep> steps, int count, Spill spill) {
    PartedRows parts = new PartedRows(spill, count);
    PartedRows.Gathered gathered = parts.new Gathered();
    keys.each(
        steps,
        (batch, encoded) -> {
          CellVector counts = batch.column(keys.parts());
          for (int row = 0; row < batch.rows(); row++) {
            if (encoded.blankParts[row] == 0) {
              int part = PartedRows.partOf(encoded.hashes[row], count);
              RowBytes into = gathered.row(part, batch.rowNumber(row));
              into.cell(encoded.bytes, encoded.ends[row], encoded.ends[row + 1]);
              into.cell(counts, row);
            }
          }
          gathered.putOut();
          return true;
        });
    return parts;
  }

  /** Goes through the keys of a part: what the steps have left of them, and their rows. */
  private static void each(PartedRows parts, int part, KeyedRows.Action to) {
    Table table =
        new SpilledTable(
            parts.stored(part),
            new Head("keys", new Schema(List.of("key", "rows"))),
            IntStream.range(0, 2).toArray());
    KeyedRows.each(table, new int[] {0}, List.of(List.of()), 2, null, to);
  }

  private static long count(Batch batch, int row) {
    return DistinctKeys.number(batch.column(1), row);
  }

  /** How many rows have a key. */
  private interface Count {
    long of(Batch batch, int row);
  }

  /** The keys of the reference that are in memory. */
  private final class Part {
    private final RowStore store = new RowStore(0);
    private final HashIndex index = new HashIndex(store);
    private int[] numbers = new int[64];
    private int[] found = new int[0];

    boolean add(Batch batch, EncodedKeys keys) {
      for (int row = 0; row < batch.rows(); row++) {
        if (keys.blankParts[row] != 0) {
          continue;
        }
        int at = store.rows();
        if (at == numbers.length) {
          numbers = Arrays.copyOf(numbers, 2 * at);
        }
        numbers[at] = DistinctKeys.number(batch, row);
        store.add(new CellVector[0], row, keys);
        collisions += index.add(keys, row, at) != HashIndex.ABSENT ? 1 : 0;
      }
      return true;
    }

    boolean probe(Batch batch, EncodedKeys keys, Count count) {
      if (found.length < batch.rows()) {
        found = new int[batch.rows()];
      }
      index.probe(keys, found);
      for (int row = 0; row < batch.rows(); row++) {
        int at = found[row];
        if (at != HashIndex.ABSENT) {
          matched.set(DistinctKeys.number(batch, row));
          rows += count.of(batch, row);
          used.set(numbers[at >= 0 ? index.rowAt(at) : index.groups().firstRow(~at)]);
        }
      }
      return true;
    }
  }
}
