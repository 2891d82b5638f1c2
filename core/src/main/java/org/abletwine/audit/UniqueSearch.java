package org.abletwine.audit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.index.KeyGroups;
import org.abletwine.index.RowStore;
import org.abletwine.table.Schema;
import org.jspecify.annotations.Nullable;

/**
 * Looks for the fewest further columns that would make a key unique: sets of one column, then of
 * two, then of three, all sets of the smallest size that does it; bounded in the number of sets.
 */
final class UniqueSearch {
  private static final int MOST_COLUMNS = 3;
  private static final int MOST_SETS = 2_000;

  private final Schema schema;
  private final RowStore store;
  private final List<Integer> candidates = new ArrayList<>();
  private final List<int[]> groups = new ArrayList<>();
  private int tried;
  private boolean bounded;

  UniqueSearch(Schema schema, int[] keyColumns, RowStore store, KeyGroups groups) {
    this.schema = schema;
    this.store = store;
    for (int column = 0; column < schema.size(); column++) {
      int at = column;
      if (java.util.Arrays.stream(keyColumns).noneMatch(key -> key == at)) {
        candidates.add(column);
      }
    }
    for (int group = 0; group < groups.count(); group++) {
      this.groups.add(groups.rows(group));
    }
  }

  int tried() {
    return tried;
  }

  boolean bounded() {
    return bounded;
  }

  List<List<String>> find() {
    List<List<String>> found = new ArrayList<>();
    for (int size = 1; size <= MOST_COLUMNS && found.isEmpty() && !bounded; size++) {
      search(size, 0, new ArrayList<>(), found);
    }
    return found;
  }

  private void search(int size, int from, List<Integer> chosen, List<List<String>> found) {
    if (chosen.size() == size) {
      if (tried == MOST_SETS) {
        bounded = true;
        return;
      }
      tried++;
      if (unique(chosen)) {
        found.add(chosen.stream().map(schema.names()::get).toList());
      }
      return;
    }
    for (int i = from; i < candidates.size() && !bounded; i++) {
      chosen.add(candidates.get(i));
      search(size, i + 1, chosen, found);
      chosen.remove(chosen.size() - 1);
    }
  }

  private boolean unique(List<Integer> columns) {
    for (int[] group : groups) {
      Set<List<@Nullable String>> seen = new HashSet<>();
      for (int row : group) {
        List<@Nullable String> values = new ArrayList<>();
        for (int column : columns) {
          values.add(store.get(row, column));
        }
        if (!seen.add(values)) {
          return false;
        }
      }
    }
    return true;
  }
}
