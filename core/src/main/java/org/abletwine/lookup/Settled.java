package org.abletwine.lookup;

import java.util.Arrays;
import org.abletwine.compute.Expression;
import org.abletwine.index.HashIndex;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.jspecify.annotations.Nullable;

/**
 * What has become of each row of a batch: found first in the lookup's own reference, then, where
 * that has none, in those tried otherwise; and repeated at last where the rule says so. Whoever
 * tells, traces or gathers reads it. Reused; belongs to one thread.
 *
 * <p>Invariant: of a row that is matched, {@code place} is where its reference row is held; of one
 * that is not, why there is none. {@code set} is the set its key fits, of its source, or {@link
 * #NO_SET}.
 */
final class Settled {
  static final byte MATCHED = (byte) Outcome.MATCHED.ordinal();
  static final byte UNMATCHED = (byte) Outcome.UNMATCHED.ordinal();
  static final byte AMBIGUOUS = (byte) Outcome.AMBIGUOUS.ordinal();
  static final byte BLANK_KEY = (byte) Outcome.BLANK_KEY.ordinal();
  static final byte NOT_ASKED = (byte) Outcome.NOT_ASKED.ordinal();
  static final int NO_SET = -1;

  /** Rows that one batch may become: all of them are in memory at once. */
  static final int MOST_ADDED = 10_000_000;

  private static final int[] ITSELF = {0};

  private final String lookup;
  private final Source[] sources;
  private final LookupCounts counts;
  private final @Nullable Expression asked;

  /** Whether sets of rows are found while looking. */
  private final boolean ruled;

  /** How many rows there are. */
  int count;

  int[] place = new int[0];
  byte[] outcome = new byte[0];
  byte[] source = new byte[0];
  int[] set = new int[0];
  private int[] tried = new int[0];

  /**
   * @param asked whether a row is asked for; null for all
   */
  Settled(String lookup, Source[] sources, LookupCounts counts, @Nullable Expression asked) {
    this.lookup = lookup;
    this.sources = sources.clone();
    this.counts = counts;
    this.asked = asked == null ? null : asked.another();
    this.ruled = sources[0].reference.finder().rule() != null;
  }

  /** Settles what the lookup's own reference has to say. */
  void find(Batch batch) {
    count = batch.rows();
    if (place.length < count) {
      place = new int[count];
      outcome = new byte[count];
      source = new byte[count];
      set = new int[count];
      tried = new int[count];
    }
    Source own = sources[0];
    if (asked != null) {
      asked.over(batch);
    }
    own.find(batch, place, asked);
    for (int row = 0; row < count; row++) {
      source[row] = 0;
      set[row] = NO_SET;
      int at = place[row];
      if (asked != null && !asked.isTrue(row)) {
        place[row] = HashIndex.ABSENT;
        outcome[row] = NOT_ASKED;
        counts.unknown += asked.isNull(row) ? 1 : 0;
      } else if (at >= 0) {
        outcome[row] = MATCHED;
      } else if (at > RuleIndex.LAST_MISS) {
        outcome[row] = fromSet(0, row, ~at);
      } else {
        boolean blank = own.probe.blankParts(row) != 0 || at == RuleIndex.UNFIT;
        outcome[row] = blank ? BLANK_KEY : UNMATCHED;
      }
    }
    counts.rows += count;
  }

  /** Takes a row of a set, by the rule of its source. */
  private byte fromSet(int from, int row, int of) {
    Choices choices = sources[from].reference.choices();
    counts.adding += sources[from].reference.finder().sets().size(of) - 1;
    set[row] = of;
    if (from == 0 && ruled) {
      counts.sets.met(of);
    }
    place[row] = choices.place(of);
    if (place[row] == Choices.DISAGREE) {
      return AMBIGUOUS;
    }
    counts.picked += choices.conflicting(of) ? 1 : 0;
    return MATCHED;
  }

  /** Whether no reference so far has a row. */
  boolean open(int row) {
    return outcome[row] == UNMATCHED || outcome[row] == BLANK_KEY;
  }

  /** Tries the further references, in turn, for rows still without one. */
  void tryFurther(Batch batch) {
    for (int further = 1; further < sources.length; further++) {
      boolean any = false;
      for (int row = 0; row < count && !any; row++) {
        any = open(row);
      }
      if (any) {
        tryFurther(batch, further);
      }
    }
  }

  private void tryFurther(Batch batch, int further) {
    sources[further].find(batch, tried, null);
    for (int row = 0; row < count; row++) {
      int at = tried[row];
      boolean hit = at >= 0 || at > RuleIndex.LAST_MISS;
      if (hit && open(row)) {
        source[row] = (byte) further;
        place[row] = at;
        outcome[row] = at >= 0 ? MATCHED : fromSet(further, row, ~at);
        sources[further].matched += outcome[row] == MATCHED ? 1 : 0;
      }
    }
  }

  Source sourceOf(int row) {
    return sources[source[row]];
  }

  /**
   * Repeats each row whose key fits rows that disagree, once for each of them, where the rule of
   * the reference that had them says so.
   */
  void addRows(Batch batch) {
    Settled more = new Settled(lookup, sources, counts, null);
    int[] rows = new int[count];
    more.room(count);
    for (int row = 0; row < count; row++) {
      Source at = sourceOf(row);
      boolean several =
          set[row] != NO_SET && at.each && at.reference.choices().conflicting(set[row]);
      int[] members = several ? at.reference.finder().sets().rows(set[row]) : ITSELF;
      if (more.count + members.length > MOST_ADDED) {
        throw tooMany(lookup, batch, row, members.length);
      }
      if (more.count + members.length > rows.length) {
        rows = Arrays.copyOf(rows, Math.max(more.count + members.length, rows.length * 2));
        more.room(rows.length);
      }
      for (int member : members) {
        rows[more.count] = row;
        more.place[more.count] = several ? at.reference.rows().place(member) : place[row];
        more.source[more.count] = source[row];
        more.set[more.count] = several ? NO_SET : set[row];
        more.outcome[more.count++] = outcome[row];
      }
    }
    if (more.count > count) {
      batch.pick(rows, more.count);
      counts.added += more.count - count;
      take(more);
    }
  }

  private void room(int rows) {
    place = Arrays.copyOf(place, rows);
    outcome = Arrays.copyOf(outcome, rows);
    source = Arrays.copyOf(source, rows);
    set = Arrays.copyOf(set, rows);
  }

  private void take(Settled other) {
    count = other.count;
    place = other.place;
    outcome = other.outcome;
    source = other.source;
    set = other.set;
    tried = new int[place.length];
  }

  /** Says that a batch becomes more rows than can be held. */
  static DataException tooMany(String lookup, Batch batch, int row, int members) {
    return new DataException(
        "lookup "
            + lookup
            + ", several: each: rows "
            + batch.rowNumber(0)
            + " to "
            + batch.rowNumber(row)
            + " alone become more than "
            + MOST_ADDED
            + " rows (row "
            + batch.rowNumber(row)
            + " fits "
            + members
            + "); add a part to the key that tells those rows apart, or bring an aggregate such as"
            + " sum(...)");
  }
}
