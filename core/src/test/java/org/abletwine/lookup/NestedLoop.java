package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.MemoryTable;
import org.jspecify.annotations.Nullable;

/** The oracle: one lookup by looking at every reference row for every transaction. */
public final class NestedLoop {
  /** What it found for one transaction. */
  public record Found(Outcome outcome, List<Integer> rows) {}

  private NestedLoop() {}

  public static Found find(
      MemoryTable ours, int row, int[] ourKey, MemoryTable theirs, int[] theirKey, int[] brought) {
    for (int column : ourKey) {
      if (blank(ours.cell(row, column))) {
        return new Found(Outcome.BLANK_KEY, List.of());
      }
    }
    List<Integer> rows = new ArrayList<>();
    for (int other = 0; other < theirs.rowCount(); other++) {
      boolean same = true;
      for (int part = 0; part < ourKey.length; part++) {
        String value = theirs.cell(other, theirKey[part]);
        String wanted = ours.cell(row, ourKey[part]);
        same &= value != null && wanted != null && value.strip().equals(wanted.strip());
      }
      if (same) {
        rows.add(other);
      }
    }
    if (rows.isEmpty()) {
      return new Found(Outcome.UNMATCHED, rows);
    }
    return new Found(agree(theirs, rows, brought) ? Outcome.MATCHED : Outcome.AMBIGUOUS, rows);
  }

  private static boolean blank(@Nullable String value) {
    return value == null || value.strip().isEmpty();
  }

  private static boolean agree(MemoryTable theirs, List<Integer> rows, int[] brought) {
    for (int row : rows) {
      for (int column : brought) {
        if (!java.util.Objects.equals(theirs.cell(rows.get(0), column), theirs.cell(row, column))) {
          return false;
        }
      }
    }
    return true;
  }
}
