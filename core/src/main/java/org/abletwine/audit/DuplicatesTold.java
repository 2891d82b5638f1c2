package org.abletwine.audit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.audit.DuplicateAudit.Conflict;
import org.abletwine.audit.DuplicateAudit.DuplicateKey;
import org.abletwine.index.RowStore;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.table.Table;
import org.abletwine.table.text.Veil;

/**
 * Tells how the rows of a key that stands on several differ. Used by one thread.
 *
 * @param table the table
 * @param keyColumns the key's column numbers
 * @param store the rows, as held
 * @param numbers the rows' numbers in the table
 */
record DuplicatesTold(Table table, int[] keyColumns, RowStore store, RowNumbers numbers) {
  /** {@return whether rows of one key are alike in every column} */
  boolean alike(int[] members) {
    for (int row : members) {
      if (!store.agree(members[0], row, table.schema().size())) {
        return false;
      }
    }
    return true;
  }

  /** {@return whether rows of one key write it differently} */
  boolean writtenDifferently(int[] members) {
    for (int row : members) {
      for (int column : keyColumns) {
        if (!store.agree(members[0], row, column, column + 1)) {
          return true;
        }
      }
    }
    return false;
  }

  /** {@return a key with its rows and what they differ in} */
  DuplicateKey describe(int[] members) {
    List<Integer> rowNumbers = new ArrayList<>();
    for (int row : members) {
      rowNumbers.add(numbers.of(row));
    }
    List<Conflict> conflicts = new ArrayList<>();
    for (int column = 0; column < table.schema().size(); column++) {
      Set<String> values = new LinkedHashSet<>();
      for (int row : members) {
        values.add(shown(row, column));
      }
      if (values.size() > 1) {
        conflicts.add(new Conflict(table.schema().names().get(column), List.copyOf(values)));
      }
    }
    List<String> key = new ArrayList<>();
    for (int column : keyColumns) {
      key.add(shown(members[0], column));
    }
    return new DuplicateKey(String.join(" | ", key), rowNumbers, conflicts);
  }

  private String shown(int row, int column) {
    boolean hidden = table.isPrivate(table.schema().names().get(column));
    return String.valueOf(Veil.over(hidden, store.get(row, column)));
  }
}
