package org.abletwine.lookup;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/** Chooses the row of each key that stays, by a rule for duplicates. Stateless between calls. */
public final class DuplicateRows {
  private static final int SHOWN = 5;

  private final Duplicates policy;
  private final RowStore rows;
  private final RowSets groups;
  private final int column;
  private final RowNumbers numbers;

  /**
   * @param policy the rule
   * @param rows the rows; all columns of the reference for rules that compare or count them
   * @param groups the keys on several rows
   * @param column cell that decides, or -1
   * @param numbers the rows' numbers in the file
   */
  public DuplicateRows(
      Duplicates policy, RowStore rows, RowSets groups, int column, RowNumbers numbers) {
    this.numbers = numbers;
    this.policy = policy;
    this.rows = rows;
    this.groups = groups;
    this.column = column;
  }

  /**
   * For each group the row that stays.
   *
   * @param reference the table, for messages
   * @param allCells how many cells make two rows alike
   * @param keyCell the cell that holds the key, for messages
   * @return a row number of the store per group
   * @throws DataException when the rule says that such a key ends the run
   */
  public int[] chosen(String reference, int allCells, int keyCell) {
    int[] chosen = new int[groups.count()];
    List<String> failures = new ArrayList<>();
    long failed = 0;
    for (int group = 0; group < chosen.length; group++) {
      int[] members = groups.rows(group);
      chosen[group] =
          switch (policy.rule()) {
            case LAST -> members[members.length - 1];
            case NEWEST_BY -> newest(rows, members, column);
            case FULLEST -> fullest(members);
            default -> members[0];
          };
      boolean fails =
          policy.rule() == Duplicates.Rule.FAIL
              || policy.rule() == Duplicates.Rule.IDENTICAL && !alike(members, allCells);
      if (fails && failed++ < SHOWN) {
        failures.add("\"" + rows.get(members[0], keyCell) + "\" on rows " + numbers.list(members));
      }
    }
    if (failed > 0) {
      throw new DataException(
          reference
              + ": "
              + failed
              + (failed == 1 ? " key stands" : " keys stand")
              + " on several rows"
              + (policy.rule() == Duplicates.Rule.FAIL ? "" : " that differ")
              + ", and its rule is duplicates: "
              + policy
              + ": "
              + String.join("; ", failures)
              + (failed > SHOWN ? " and " + (failed - SHOWN) + " more" : "")
              + ". Correct the table, or choose first, last, newest-by or fullest");
    }
    return chosen;
  }

  private boolean alike(int[] members, int allCells) {
    for (int row : members) {
      if (!rows.agree(members[0], row, allCells)) {
        return false;
      }
    }
    return true;
  }

  /** The row with the greatest value in a cell; the first of equals. */
  static int newest(RowStore rows, int[] members, int column) {
    int best = members[0];
    for (int row : members) {
      if (newer(rows.get(row, column), rows.get(best, column))) {
        best = row;
      }
    }
    return best;
  }

  private static boolean newer(@Nullable String one, @Nullable String other) {
    if (one == null || other == null) {
      return other == null && one != null;
    }
    BigDecimal a = number(one);
    BigDecimal b = number(other);
    return (a != null && b != null ? a.compareTo(b) : one.strip().compareTo(other.strip())) > 0;
  }

  private static @Nullable BigDecimal number(String text) {
    try {
      return new BigDecimal(text.strip());
    } catch (NumberFormatException e) {
      return null;
    }
  }

  private int fullest(int[] members) {
    int best = members[0];
    for (int row : members) {
      if (rows.nulls(row) < rows.nulls(best)) {
        best = row;
      }
    }
    return best;
  }
}
