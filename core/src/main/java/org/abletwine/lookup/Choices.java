package org.abletwine.lookup;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.abletwine.index.RowStore;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.lookup.rows.Newest;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.match.index.RuleChain;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;

/**
 * For every set of rows that one key fits, which row is taken. Sets known when the reference is
 * loaded are settled then; sets found while looking, when they are first met. Safe to share between
 * threads: what was settled at first never changes, and what is settled later is immutable.
 *
 * <p>An aggregate of a set known at first is a row of its own, added to the store behind the others
 * and taken for the set. That of a set found later is held as text beside the first of its rows:
 * nothing is added to a store that others read.
 */
final class Choices implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Stands for a set from which no row is taken. */
  static final int DISAGREE = -1;

  private final Finder finder;
  private final RowStore rows;
  private final RowNumbers numbers;
  private final Several.Rule rule;
  private final @Nullable Newest newest;
  private final int plain;
  private final Combined[] aggregates;
  private final int cells;

  /** For each set known at first the place of the row taken, or {@link #DISAGREE}. */
  private final int[] taken;

  private final boolean[] conflicting;
  private final Map<Integer, Choice> later = new ConcurrentHashMap<>();

  /**
   * What was settled for a set found while looking.
   *
   * @param place the place of the row taken, or {@link #DISAGREE}
   * @param conflicting whether the rows disagree
   * @param combined the cells brought where rows are put together; null where one is taken as it is
   */
  private record Choice(int place, boolean conflicting, @Nullable String @Nullable [] combined)
      implements Serializable {
    private static final long serialVersionUID = 1L;
  }

  /**
   * @param finder finds the sets
   * @param rows the rows; brought columns first, the plain before the aggregates
   * @param numbers the rows' numbers in the file
   * @param several the rule
   * @param newest finds the newest row, for that rule
   * @param plain brought columns that are no aggregates
   * @param aggregates the aggregates, in the order of their cells
   * @param cells cells of a row
   */
  Choices(
      Finder finder,
      RowStore rows,
      RowNumbers numbers,
      Several.Rule several,
      @Nullable Newest newest,
      int plain,
      List<Combined> aggregates,
      int cells) {
    this.finder = finder;
    this.rows = rows;
    this.numbers = numbers;
    this.rule = several;
    this.newest = newest;
    this.plain = plain;
    this.aggregates = aggregates.toArray(Combined[]::new);
    this.cells = cells;
    taken = new int[finder.sets().count()];
    conflicting = new boolean[taken.length];
    for (int set = 0; set < taken.length; set++) {
      int[] members = finder.sets().rows(set);
      int row = taken(members);
      boolean agree = agree(members);
      conflicting[set] = !agree;
      boolean combine = agree && this.aggregates.length > 0;
      taken[set] = row < 0 ? DISAGREE : combine ? aggregate(members) : rows.place(row);
    }
  }

  /**
   * An aggregate over cells of the rows.
   *
   * @param aggregate the aggregate
   * @param type the declared type of its column; null for none
   * @param cell the cell of each row that is put together
   */
  record Combined(Aggregate aggregate, @Nullable ColumnType type, int cell)
      implements Serializable {
    private static final long serialVersionUID = 1L;

    @Nullable String of(List<@Nullable String> values) {
      return aggregate.ofAll(values, type);
    }
  }

  /** States which rows stay, as a rule for duplicates has decided for each set. */
  void stay(int[] staying) {
    for (int set = 0; set < staying.length; set++) {
      taken[set] = rows.place(staying[set]);
      conflicting[set] = false;
    }
  }

  /** The place of the row taken, or {@link #DISAGREE}. */
  int place(int set) {
    return set < taken.length ? taken[set] : settled(set).place();
  }

  /** Whether the set's rows disagree, so that one of them was picked, or none. */
  boolean conflicting(int set) {
    return set < taken.length ? conflicting[set] : settled(set).conflicting();
  }

  /** What is brought in place of the cells of the row taken; null where these are brought. */
  @Nullable String @Nullable [] combined(int set) {
    return set < taken.length ? null : settled(set).combined();
  }

  long conflictingCount() {
    long count = later.values().stream().filter(Choice::conflicting).count();
    for (boolean one : conflicting) {
      count += one ? 1 : 0;
    }
    return count;
  }

  private Choice settled(int set) {
    Choice known = later.get(set);
    return known == null ? later.computeIfAbsent(set, this::settle) : known;
  }

  private Choice settle(int set) {
    int[] members = finder.sets().rows(set);
    int row = taken(members);
    boolean agree = agree(members);
    boolean combine = agree && aggregates.length > 0;
    return new Choice(
        row < 0 ? DISAGREE : rows.place(row), !agree, combine ? combined(members) : null);
  }

  private int taken(int[] members) {
    return agree(members) ? members[0] : picked(members);
  }

  /** The cells brought of rows that are put together. */
  private @Nullable String[] combined(int[] members) {
    @Nullable String[] brought = new @Nullable String[plain + aggregates.length];
    for (int cell = 0; cell < brought.length; cell++) {
      brought[cell] =
          cell >= plain
              ? aggregates[cell - plain].of(values(members, aggregates[cell - plain].cell()))
              : rows.get(members[0], cell);
    }
    return brought;
  }

  private boolean agree(int[] members) {
    for (int row : members) {
      if (!rows.agree(members[0], row, plain)) {
        return false;
      }
    }
    return true;
  }

  private int picked(int[] members) {
    return switch (rule) {
      case FLAG -> -1;
      case FIRST, EACH -> members[0];
      case LAST -> members[members.length - 1];
      case NEWEST_BY -> newest == null ? -1 : newest.among(rows, members);
      case LONGEST -> longest(members);
    };
  }

  /** The row with the longest pattern; none when several of the longest disagree. */
  private int longest(int[] members) {
    RuleChain index = finder.rule();
    if (index == null) {
      return -1;
    }
    int most = Arrays.stream(members).map(index::specificity).max().orElse(0);
    int[] best = Arrays.stream(members).filter(row -> index.specificity(row) == most).toArray();
    return agree(best) ? best[0] : -1;
  }

  private int aggregate(int[] members) {
    CellVector[] row = new CellVector[cells];
    @Nullable String[] brought = combined(members);
    for (int cell = 0; cell < cells; cell++) {
      row[cell] = new CellVector();
      row[cell].clear();
      row[cell].append(cell < brought.length ? brought[cell] : rows.get(members[0], cell));
    }
    EncodedKeys none = new EncodedKeys();
    new KeyEncoder(new int[0], List.of()).encode(OneRow.of(), none);
    rows.addUnderKey(row, none, 0);
    numbers.add(numbers.of(members[0]));
    return rows.place(rows.rows() - 1);
  }

  private List<@Nullable String> values(int[] members, int cell) {
    List<@Nullable String> values = new ArrayList<>();
    for (int row : members) {
      values.add(rows.get(row, cell));
    }
    return values;
  }
}
