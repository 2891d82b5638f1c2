package org.abletwine.audit;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.Stored;

/**
 * The texts of keys of one part, spaces around them aside, each once and in no order. In memory
 * where the keys are; else in parts on disk, of which one at a time is in memory.
 */
final class DistinctTexts {
  /** How many times its bytes a text takes in a set. */
  private static final int TEXT_GROWTH = 6;

  private final List<Set<String>> held;
  private final List<Stored> parts;

  private DistinctTexts(List<Set<String>> held, List<Stored> parts) {
    this.held = held;
    this.parts = parts;
  }

  /** The texts of keys. */
  static DistinctTexts of(DistinctKeys keys, Spill spill) {
    if (!keys.onDisk()) {
      Set<String> all = new HashSet<>();
      each(keys, (batch, row, text) -> all.add(text));
      return new DistinctTexts(List.of(all), List.of());
    }
    PartedRows rows = new PartedRows(spill, spill.partsFor(TEXT_GROWTH * keys.bytes()));
    PartedRows.Gathered gathered = rows.new Gathered();
    each(
        keys,
        (batch, row, text) -> {
          int part = PartedRows.partOf(text.hashCode(), rows.parts());
          RowBytes into = gathered.row(part, 0);
          into.text(text);
          if (row + 1 == batch.rows()) {
            gathered.putOut();
          }
        });
    return new DistinctTexts(
        List.of(), IntStream.range(0, rows.parts()).mapToObj(rows::stored).toList());
  }

  private interface Taker {
    void take(Batch batch, int row, String text);
  }

  private static void each(DistinctKeys keys, Taker taker) {
    keys.each(
        List.of(),
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            taker.take(batch, row, Spaces.trimmed(DistinctKeys.part(batch, row, 0)).toString());
          }
          return true;
        });
  }

  /** Goes through all of them. */
  void each(Consumer<String> taker) {
    held.forEach(all -> all.forEach(taker));
    for (Stored part : parts) {
      Set<String> all = new HashSet<>();
      ByteCursor cursor = new ByteCursor(part.bytes());
      for (long row = 0; row < part.rows(); row++) {
        cursor.number();
        String text = cursor.text();
        if (all.add(text)) {
          taker.accept(text);
        }
      }
    }
  }
}
