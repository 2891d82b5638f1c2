package org.abletwine.lookup.rows;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.lookup.Duplicates;
import org.abletwine.table.DataException;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Chooses the row of each key that stays, by a rule for duplicates. Stateless between calls. */
public final class DuplicateRows {
  private static final int SHOWN = 5;

  private final Duplicates policy;
  private final RowStore rows;
  private final RowSets groups;
  private final @Nullable Newest newest;
  private final RowNumbers numbers;
  private final boolean hiddenKey;

  /**
   * @param policy the rule
   * @param rows the rows; all columns of the reference for rules that compare or count them
   * @param groups the keys on several rows
   * @param newest finds the newest row of a key, for that rule
   * @param numbers the rows' numbers in the file
   * @param hiddenKey whether messages must not show the key
   */
  public DuplicateRows(
      Duplicates policy,
      RowStore rows,
      RowSets groups,
      @Nullable Newest newest,
      RowNumbers numbers,
      boolean hiddenKey) {
    this.policy = policy;
    this.rows = rows;
    this.groups = groups;
    this.newest = newest;
    this.numbers = numbers;
    this.hiddenKey = hiddenKey;
  }

  /**
   * What was chosen.
   *
   * @param stays for each group the row that stays, a row number of the store
   * @param failures the keys that the rule does not allow
   */
  public record Chosen(int[] stays, Failures failures) {
    /**
     * Returns for each group the row that stays.
     *
     * @throws DataException when the rule says that such a key ends the run
     */
    public int[] allowed() {
      failures.throwIfAny();
      return stays;
    }
  }

  /**
   * Keys that the rule does not allow.
   *
   * @param reference the table, for messages
   * @param differ whether only those are meant whose rows differ
   * @param policy the rule, in words
   * @param count how many there are
   * @param first the first of them
   */
  public record Failures(
      String reference, boolean differ, String policy, long count, List<Failure> first) {

    /** A key that stands on several rows, and the number of the second of these. */
    public record Failure(long second, String told) {}

    /** Returns these and others of the same table. */
    public Failures and(Failures others) {
      List<Failure> all = new ArrayList<>(first);
      all.addAll(others.first);
      all.sort((a, b) -> Long.compare(a.second(), b.second()));
      return new Failures(
          reference,
          differ,
          policy,
          count + others.count,
          all.subList(0, Math.min(SHOWN, all.size())));
    }

    /** Carries what was met to another process, or takes it from there in place of nothing. */
    public static Failures carried(@Nullable Failures held, Carrier carrier) {
      Failures met = held == null ? new Failures("", false, "", 0, List.of()) : held;
      return new Failures(
          carrier.words(met.reference),
          carrier.flag(met.differ),
          carrier.words(met.policy),
          carrier.number(met.count),
          carrier.all(
              met.first,
              new Failure(0, ""),
              one -> new Failure(carrier.number(one.second), carrier.words(one.told))));
    }

    /**
     * Ends the run when there are any.
     *
     * @throws DataException then
     */
    public void throwIfAny() {
      if (count > 0) {
        throw new DataException(
            reference
                + ": "
                + count
                + (count == 1 ? " key stands" : " keys stand")
                + " on several rows"
                + (differ ? " that differ" : "")
                + ", and its rule is duplicates: "
                + policy
                + ": "
                + first.stream().map(Failure::told).collect(Collectors.joining("; "))
                + (count > SHOWN ? " and " + (count - SHOWN) + " more" : "")
                + ". Correct the table, or choose first, last, newest-by or fullest");
      }
    }
  }

  /**
   * For each group the row that stays.
   *
   * @param reference the table, for messages
   * @param tableCells the first of the cells that hold the columns of the table, each once, for
   *     rules that count or compare them
   * @param allCells where these end, exclusive
   * @param keyCell the cell that holds the key, for messages
   */
  public Chosen chosen(String reference, int tableCells, int allCells, int keyCell) {
    int[] chosen = new int[groups.count()];
    List<Failures.Failure> failures = new ArrayList<>();
    long failed = 0;
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
        String key = Veil.over(hiddenKey, rows.get(members[0], keyCell));
        failures.add(
            new Failures.Failure(
                numbers.of(members[1]), "\"" + key + "\" on rows " + numbers.list(members)));
      }
    }
    return new Chosen(
        chosen,
        new Failures(
            reference, policy.rule() != Duplicates.Rule.FAIL, policy.toString(), failed, failures));
  }

  private boolean alike(int[] members, int allCells) {
    for (int row : members) {
      if (!rows.agree(members[0], row, allCells)) {
        return false;
      }
    }
    return true;
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
