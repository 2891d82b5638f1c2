package org.abletwine.lookup;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.index.HashIndex;
import org.abletwine.index.KeyGroups;
import org.abletwine.index.RowStore;

/**
 * A reference in memory: its rows (attributes brought first, then the key as written), the index,
 * and for every key on several rows which one is taken. Immutable; safe to share between threads.
 *
 * @param name the reference
 * @param rows its rows
 * @param index from key to row or group
 * @param numbers the rows' numbers in the file
 * @param chosen for each group the place of the row taken, or {@link #DISAGREE}
 * @param conflicting for each group whether its rows disagree and no rule of the reference settles
 *     it
 * @param blankKeys rows that no key can find
 * @param leftOut rows that the reference's condition left out
 * @param duplicatesDropped rows that the reference's rule for duplicates left out
 * @param collisions groups whose keys are written differently
 * @param collisionExamples some of them
 */
record LoadedReference(
    String name,
    RowStore rows,
    HashIndex index,
    RowNumbers numbers,
    int[] chosen,
    boolean[] conflicting,
    long blankKeys,
    LeftOut leftOut,
    long duplicatesDropped,
    long collisions,
    List<String> collisionExamples)
    implements Serializable {
  /** Stands for a group from which no row is taken. */
  static final int DISAGREE = -1;

  private static final int EXAMPLES = 5;
  private static final long serialVersionUID = 1L;

  /** Rows left out by a condition, and their keys. */
  record LeftOut(RowStore rows, HashIndex index) implements Serializable {
    static LeftOut none() {
      RowStore rows = new RowStore(0);
      return new LeftOut(rows, new HashIndex(rows));
    }
  }

  static LoadedReference of(
      Lookup lookup,
      RowStore rows,
      HashIndex index,
      long blankKeys,
      LeftOut leftOut,
      int[] kept,
      RowNumbers numbers) {
    KeyGroups groups = index.groups();
    int brought = lookup.bring.size();
    int parts = lookup.key.size();
    boolean settled = lookup.duplicates.rule() != Duplicates.Rule.KEEP;
    int[] stays =
        settled
            ? new DuplicateRows(lookup.duplicates, rows, groups, kept.length - 1, numbers)
                .chosen(lookup.reference.name(), kept.length, brought)
            : new int[0];
    int[] chosen = new int[groups.count()];
    boolean[] conflicting = new boolean[groups.count()];
    long dropped = 0;
    long collisions = 0;
    List<String> examples = new ArrayList<>();
    for (int group = 0; group < chosen.length; group++) {
      int[] members = groups.rows(group);
      Set<String> written = written(rows, members, brought, parts);
      if (written.size() > 1) {
        if (collisions++ < EXAMPLES) {
          examples.add(String.join(" = ", written) + " (rows " + numbers.list(members) + ")");
        }
      }
      if (settled) {
        chosen[group] = rows.place(stays[group]);
        dropped += members.length - 1;
        continue;
      }
      conflicting[group] = !agree(rows, members, brought);
      chosen[group] =
          switch (lookup.several) {
            case FLAG -> conflicting[group] ? DISAGREE : rows.place(members[0]);
            case FIRST -> rows.place(members[0]);
            case LAST -> rows.place(members[members.length - 1]);
          };
    }
    return new LoadedReference(
        lookup.reference.name(),
        rows,
        index,
        numbers,
        chosen,
        conflicting,
        blankKeys,
        leftOut,
        dropped,
        collisions,
        List.copyOf(examples));
  }

  private static boolean agree(RowStore rows, int[] members, int brought) {
    for (int row : members) {
      if (!rows.agree(members[0], row, brought)) {
        return false;
      }
    }
    return true;
  }

  private static Set<String> written(RowStore rows, int[] members, int brought, int parts) {
    Set<String> written = new LinkedHashSet<>();
    for (int row : members) {
      StringBuilder key = new StringBuilder();
      for (int part = 0; part < parts; part++) {
        key.append(part == 0 ? "\"" : ", \"").append(rows.get(row, brought + part)).append('"');
      }
      written.add(key.toString());
      if (written.size() > EXAMPLES) {
        break;
      }
    }
    return written;
  }

  long conflictingKeys() {
    long count = 0;
    for (boolean conflict : conflicting) {
      count += conflict ? 1 : 0;
    }
    return count;
  }
}
