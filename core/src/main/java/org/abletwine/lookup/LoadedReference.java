package org.abletwine.lookup;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.index.RowStore;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.table.text.Veil;

/**
 * A reference in memory: its rows (attributes brought first, then the key as written), how to find
 * them, and which is taken when a key fits several. Safe to share between threads.
 *
 * @param name the reference
 * @param rows its rows
 * @param finder from keys to rows
 * @param numbers the rows' numbers in the file
 * @param choices for each set of rows which one is taken
 * @param read rows of the reference that its condition let pass
 * @param blankKeys rows that no key can find
 * @param leftOut finds rows that the reference's condition left out
 * @param leftOutRows how many those are
 * @param duplicates rows that the reference's rule for duplicates left out, and which stays
 * @param unreadable rows left out because an ordered cell of theirs cannot be read
 * @param collisions groups whose keys are written differently
 * @param collisionExamples some of them
 * @param bytes memory held by rows and index
 */
record LoadedReference(
    String name,
    RowStore rows,
    Finder finder,
    RowNumbers numbers,
    Choices choices,
    long read,
    long blankKeys,
    Finder leftOut,
    long leftOutRows,
    List<LeftOutDuplicate> duplicates,
    int[] unreadable,
    long collisions,
    List<Example> collisionExamples,
    long bytes)
    implements Held, Serializable {
  /** So many keys written differently are shown. */
  static final int EXAMPLES = 5;

  private static final long serialVersionUID = 1L;

  /** The store's number of the row at a place. */
  int rowAt(int place) {
    int field = rows.numberAt(place);
    return field >= 0 ? field : finder.sets().rows(~field)[0];
  }

  /** A row that gave way to another of its key, and the second row of that key: 0-based. */
  record LeftOutDuplicate(int row, int stays, int second) implements Serializable {}

  /** A key that is written differently, and the number of the second of its rows. */
  record Example(long second, String told) implements Serializable {}

  /** Keys written differently that became equal only by normalising. */
  record Collisions(long count, List<Example> examples) {
    static Collisions of(
        Finder finder, RowStore rows, RowNumbers numbers, int from, boolean[] hidden) {
      int parts = hidden.length;
      if (finder.rule() != null) {
        return new Collisions(0, List.of());
      }
      long collisions = 0;
      List<Example> examples = new ArrayList<>();
      for (int group = 0; group < finder.sets().count(); group++) {
        int[] members = finder.sets().rows(group);
        if (!writtenAlike(rows, members, from, from + parts) && collisions++ < EXAMPLES) {
          Set<String> written = written(rows, members, from, hidden);
          examples.add(
              new Example(
                  numbers.of(members[1]),
                  String.join(" = ", written) + " (rows " + numbers.list(members) + ")"));
        }
      }
      return new Collisions(collisions, List.copyOf(examples));
    }

    private static boolean writtenAlike(RowStore rows, int[] members, int from, int to) {
      for (int row : members) {
        if (!rows.agree(members[0], row, from, to)) {
          return false;
        }
      }
      return true;
    }

    private static Set<String> written(RowStore rows, int[] members, int from, boolean[] hidden) {
      Set<String> written = new LinkedHashSet<>();
      for (int row : members) {
        StringBuilder key = new StringBuilder();
        for (int part = 0; part < hidden.length; part++) {
          String value = Veil.over(hidden[part], rows.get(row, from + part));
          key.append(part == 0 ? "\"" : ", \"").append(value).append('"');
        }
        written.add(key.toString());
        if (written.size() > EXAMPLES) {
          break;
        }
      }
      return written;
    }
  }
}
