package org.abletwine.lookup.rows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.lookup.Duplicates;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Chooses the row of each key that stays, by a rule for duplicates. Stateless between calls. */
public final class DuplicateRows {
  private static final int SHOWN = 5;

  private final Duplicates policy;
  private final RowStore rows;
  private final RowSets groups;
  private final int column;
  private final @Nullable ColumnType type;
  private final RowNumbers numbers;
  private final Hidden hidden;

  /**
   * @param policy the rule
   * @param rows the rows; all columns of the reference for rules that compare or count them
   * @param groups the keys on several rows
   * @param column cell that decides, or -1
   * @param type the declared type of its column; null for none
   * @param numbers the rows' numbers in the file
   * @param hidden what messages must not show
   */
  public DuplicateRows(
      Duplicates policy,
      RowStore rows,
      RowSets groups,
      int column,
      @Nullable ColumnType type,
      RowNumbers numbers,
      Hidden hidden) {
    this.hidden = hidden;
    this.type = type;
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
   * @param tableCells the first of the cells that hold the columns of the table, each once, for
   *     rules that count or compare them
   * @param allCells where these end, exclusive
   * @param keyCell the cell that holds the key, for messages
   * @return a row number of the store per group
   * @throws DataException when the rule says that such a key ends the run
   */
  public int[] chosen(String reference, int tableCells, int allCells, int keyCell) {
    int[] chosen = new int[groups.count()];
    List<String> failures = new ArrayList<>();
    long failed = 0;
    Newest newest = newest(reference);
    for (int group = 0; group < chosen.length; group++) {
      int[] members = groups.rows(group);
      chosen[group] =
          switch (policy.rule()) {
            case LAST -> members[members.length - 1];
            case NEWEST_BY -> newest == null ? members[0] : newest.among(rows, members);
            case FULLEST -> fullest(members, tableCells, allCells);
            default -> members[0];
          };
      boolean fails =
          policy.rule() == Duplicates.Rule.FAIL
              || policy.rule() == Duplicates.Rule.IDENTICAL && !alike(members, allCells);
      if (fails && failed++ < SHOWN) {
        String key = Veil.over(hidden.key(), rows.get(members[0], keyCell));
        failures.add("\"" + key + "\" on rows " + numbers.list(members));
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

  /**
   * What messages must not show.
   *
   * @param key the key
   * @param decides the column that decides
   */
  public record Hidden(boolean key, boolean decides) {
    /** All may be shown. */
    public static final Hidden NOTHING = new Hidden(false, false);
  }

  private boolean alike(int[] members, int allCells) {
    for (int row : members) {
      if (!rows.agree(members[0], row, allCells)) {
        return false;
      }
    }
    return true;
  }

  private @Nullable Newest newest(String reference) {
    String decides = policy.column();
    return decides == null
        ? null
        : Newest.by(
            rows,
            column,
            IntStream.range(0, groups.count()).flatMap(group -> Arrays.stream(groups.rows(group))),
            type,
            new Newest.Place(reference, decides, hidden.decides()),
            numbers);
  }

  /** The row with the fewest nulls; the first of equals. */
  private int fullest(int[] members, int from, int to) {
    int best = members[0];
    int fewest = rows.nulls(best, from, to);
    for (int row : members) {
      int nulls = rows.nulls(row, from, to);
      if (nulls < fewest) {
        best = row;
        fewest = nulls;
      }
    }
    return best;
  }
}
