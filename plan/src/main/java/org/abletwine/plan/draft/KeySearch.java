package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.abletwine.audit.OverlapAudit;
import org.abletwine.plan.draft.FoundKey.Kind;
import org.abletwine.plan.draft.FoundKey.Pair;
import org.jspecify.annotations.Nullable;

/**
 * Finds how a reference joins the rows so far: first pairs of columns that share values, then the
 * fewest of them under which its rows are told apart; failing that with a date in force, or a band,
 * or by patterns; or it is a list of corrections.
 */
final class KeySearch {
  /** So much of our rows must be there for a pair that its names do not speak for. */
  private static final double MOST_MATCH = 0.5;

  private static final double SOME_MATCH = 0.004;
  private static final double NAMES_AGREE = 0.7;
  private static final double UNIQUE = 0.9;
  private static final double MOSTLY = 0.8;
  private static final int FEW_VALUES = 3;
  private static final int FEW_TWICE = 2;
  private static final double MOST_TWICE = 0.7;
  private static final int MOST_PARTS = 3;

  private final SampleTable ours;
  private final SampleTable theirs;
  private List<Pair> pairs = List.of();

  KeySearch(SampleTable ours, SampleTable theirs) {
    this.ours = ours;
    this.theirs = theirs;
  }

  /** How they join, where the reference is no list of corrections; null where nothing was found. */
  @Nullable FoundKey find() {
    pairs = pairs();
    FoundKey patterns = patterns();
    if (patterns != null) {
      return patterns;
    }
    FoundKey banded = banded();
    if (banded != null) {
      return banded;
    }
    FoundKey equal = equal();
    return equal != null && equal.equal().size() == 1 ? equal : first(dated(), equal);
  }

  private static @Nullable FoundKey first(@Nullable FoundKey one, @Nullable FoundKey other) {
    return one == null ? other : one;
  }

  private List<Pair> pairs() {
    List<Pair> found = new ArrayList<>();
    for (SampleColumn mine : ours.columns()) {
      for (SampleColumn other : theirs.columns()) {
        double likeness = Names.likeness(mine.name(), other.name());
        if (mine.kind() != other.kind() && likeness < NAMES_AGREE) {
          continue;
        }
        boolean measures =
            mine.kind() != SampleColumn.Kind.TEXT && other.kind() != SampleColumn.Kind.TEXT;
        double matched = matched(mine, other);
        if (!measures && likeness >= NAMES_AGREE && matched < MOST_MATCH) {
          matched = Math.max(matched, withSteps(mine, other));
        }
        boolean speaks = likeness >= NAMES_AGREE && matched > SOME_MATCH;
        boolean holds = matched >= MOST_MATCH && !measures && shared(mine, other) >= FEW_VALUES;
        if (speaks || holds) {
          found.add(new Pair(mine.name(), other.name(), matched, likeness));
        }
      }
    }
    found.sort(Comparator.comparingDouble(Pair::score).reversed());
    return found;
  }

  /** The share of our rows with a value whose value is there. */
  private static double matched(SampleColumn mine, SampleColumn other) {
    Set<String> there = other.foldedSet();
    long[] counts = mine.counts();
    long all = 0;
    long found = 0;
    for (int id = 0; id < counts.length; id++) {
      all += counts[id];
      found += there.contains(mine.folded().get(id)) ? counts[id] : 0;
    }
    return all == 0 ? 0 : (double) found / all;
  }

  /** The same after the steps that would win most, such as an ending left out. */
  private double withSteps(SampleColumn mine, SampleColumn other) {
    OverlapAudit.Report report =
        OverlapAudit.compare(
            ours,
            new int[] {ours.schema().indexOf(mine.name())},
            theirs,
            new int[] {theirs.schema().indexOf(other.name())},
            -1,
            List.of("trim"),
            0);
    long keyed = report.rows() - report.blankRows();
    return keyed == 0 ? 0 : (double) report.bestMatchedRows() / keyed;
  }

  private static int shared(SampleColumn mine, SampleColumn other) {
    Set<String> common = new HashSet<>(mine.foldedSet());
    common.retainAll(other.foldedSet());
    return common.size();
  }

  /** The fewest equal columns that tell the reference's rows apart, best matching first. */
  private @Nullable FoundKey equal() {
    for (int parts = 1; parts <= MOST_PARTS; parts++) {
      FoundKey best = null;
      for (List<Pair> some : sets(parts)) {
        double unique = unique(some, List.of());
        if (unique < UNIQUE) {
          continue;
        }
        double matched = some.stream().mapToDouble(Pair::matched).min().orElse(0);
        FoundKey key = new FoundKey(Kind.EQUAL, some, null, null, null, matched, unique);
        if (best == null || score(key) > score(best)) {
          best = key;
        }
      }
      if (best != null) {
        return best;
      }
    }
    return null;
  }

  private static double score(FoundKey key) {
    return key.equal().stream().mapToDouble(Pair::score).sum() / key.equal().size();
  }

  /** Sets of pairs in which no column stands twice. */
  private List<List<Pair>> sets(int parts) {
    List<List<Pair>> sets = new ArrayList<>();
    sets(parts, 0, new ArrayList<>(), sets);
    return sets;
  }

  private void sets(int parts, int from, List<Pair> chosen, List<List<Pair>> sets) {
    if (chosen.size() == parts) {
      sets.add(List.copyOf(chosen));
      return;
    }
    for (int i = from; i < pairs.size(); i++) {
      Pair next = pairs.get(i);
      boolean again =
          chosen.stream()
              .anyMatch(
                  one -> one.ours().equals(next.ours()) || one.theirs().equals(next.theirs()));
      boolean part = parts == 1 || next.matched() >= MOST_MATCH;
      if (!again && part) {
        chosen.add(next);
        sets(parts, i + 1, chosen, sets);
        chosen.remove(chosen.size() - 1);
      }
    }
  }

  /** The share of the reference's rows with keys that stand once. */
  private double unique(List<Pair> some, List<SampleColumn> more) {
    List<SampleColumn> columns = new ArrayList<>(more);
    some.forEach(pair -> columns.add(theirs.column(pair.theirs())));
    Set<String> seen = new HashSet<>();
    int rows = 0;
    for (int row = 0; row < theirs.count(); row++) {
      String key = key(columns, row);
      if (key != null) {
        rows++;
        seen.add(key);
      }
    }
    // In a small table one key that stands twice must not hide that it is the key.
    boolean few = rows - seen.size() <= FEW_TWICE && seen.size() >= MOST_TWICE * rows;
    return rows == 0
        ? 0
        : few ? Math.max(UNIQUE, (double) seen.size() / rows) : (double) seen.size() / rows;
  }

  static @Nullable String key(List<SampleColumn> columns, int row) {
    StringBuilder key = new StringBuilder();
    for (SampleColumn column : columns) {
      int id = column.id(row);
      if (id == SampleColumn.NULL) {
        return null;
      }
      key.append(column.folded().get(id)).append('\n');
    }
    return key.toString();
  }

  /** A date from which on a row holds, among rows that are alike in some columns. */
  private @Nullable FoundKey dated() {
    for (SampleColumn since : theirs.columns()) {
      if (since.kind() != SampleColumn.Kind.DATE) {
        continue;
      }
      SampleColumn mine = dateOfOurs(since);
      if (mine == null) {
        continue;
      }
      int fewest = pairs.isEmpty() && begins(mine, since) ? 0 : 1;
      for (int parts = fewest; parts <= MOST_PARTS; parts++) {
        for (List<Pair> some : sets(parts)) {
          boolean apart = some.stream().noneMatch(pair -> pair.theirs().equals(since.name()));
          boolean several = unique(some, List.of()) < UNIQUE;
          if (apart && several && unique(some, List.of(since)) >= 0.99) {
            double matched = some.stream().mapToDouble(Pair::matched).min().orElse(1);
            return new FoundKey(
                Kind.AT_OR_BELOW, some, mine.name(), since.name(), null, matched, 1);
          }
        }
      }
    }
    return null;
  }

  /** Whether most of our dates are not before the first of theirs: a table for all rows alike. */
  private static boolean begins(SampleColumn mine, SampleColumn since) {
    String least = end(since, -1);
    long in = 0;
    for (int id = 0; id < mine.distinct(); id++) {
      in += least != null && mine.valueOf(id).strip().compareTo(least.strip()) >= 0 ? 1 : 0;
    }
    return in >= MOSTLY * mine.distinct();
  }

  /** Our date whose name is most like theirs; the first of equals. */
  private @Nullable SampleColumn dateOfOurs(SampleColumn since) {
    return ours.columns().stream()
        .filter(column -> column.kind() == SampleColumn.Kind.DATE)
        .max(
            Comparator.comparingDouble(
                column ->
                    Names.likeness(column.name(), since.name()) + (column.nulls() == 0 ? 1 : 0)))
        .orElse(null);
  }

  /** Two columns of numbers of which the first is never above the second. */
  private @Nullable FoundKey banded() {
    for (SampleColumn from : theirs.columns()) {
      for (SampleColumn to : theirs.columns()) {
        if (from == to || !band(from, to)) {
          continue;
        }
        SampleColumn mine = within(from, to);
        if (mine == null) {
          continue;
        }
        List<Pair> some = List.of();
        for (Pair pair : pairs) {
          boolean apart =
              !pair.theirs().equals(from.name())
                  && !pair.theirs().equals(to.name())
                  && !pair.ours().equals(mine.name())
                  && pair.matched() >= MOST_MATCH;
          if (apart && unique(List.of(pair), List.of()) < UNIQUE) {
            some = List.of(pair);
            break;
          }
        }
        double matched = some.isEmpty() ? 1 : some.get(0).matched();
        return new FoundKey(Kind.BETWEEN, some, mine.name(), from.name(), to.name(), matched, 1);
      }
    }
    return null;
  }

  private boolean band(SampleColumn from, SampleColumn to) {
    if (from.kind() != to.kind()
        || from.kind() != SampleColumn.Kind.NUMBER && from.kind() != SampleColumn.Kind.DATE) {
      return false;
    }
    int both = 0;
    int neither = 0;
    for (int row = 0; row < theirs.count(); row++) {
      String low = from.value(row);
      String high = to.value(row);
      neither += low == null && high == null ? 1 : 0;
      if (low != null && high != null) {
        both++;
        if (compare(from.kind(), low, high) > 0) {
          return false;
        }
      }
    }
    boolean told =
        Names.has(from.name(), "from", "min", "lower", "low", "start", "since", "begin")
            && Names.has(to.name(), "to", "max", "upper", "high", "end", "until", "till");
    return told && both * 4 >= theirs.count() && neither * 10 <= theirs.count();
  }

  private static int compare(SampleColumn.Kind kind, String one, String other) {
    if (kind == SampleColumn.Kind.DATE) {
      return one.strip().compareTo(other.strip());
    }
    BigDecimal a = org.abletwine.table.text.DecimalText.read(one.strip());
    BigDecimal b = org.abletwine.table.text.DecimalText.read(other.strip());
    return a == null || b == null ? 0 : a.compareTo(b);
  }

  /** Our column whose name is most like those of the band and its table, and lies in it. */
  private @Nullable SampleColumn within(SampleColumn from, SampleColumn to) {
    SampleColumn best = null;
    double bestScore = 0;
    for (SampleColumn mine : ours.columns()) {
      if (mine.kind() != from.kind()) {
        continue;
      }
      double score =
          Names.likeness(mine.name(), theirs.name())
              + Names.likeness(mine.name(), from.name())
              + Names.likeness(mine.name(), to.name())
              + inside(mine, from, to) / 2;
      if (inside(mine, from, to) >= MOSTLY && score > bestScore) {
        best = mine;
        bestScore = score;
      }
    }
    return best;
  }

  /** The share of our values between the least lower end and the greatest upper end. */
  private static double inside(SampleColumn mine, SampleColumn from, SampleColumn to) {
    String least = end(from, -1);
    String greatest = end(to, 1);
    long in = 0;
    for (int id = 0; id < mine.distinct(); id++) {
      String value = mine.valueOf(id);
      boolean above = from.nulls() > 0 || least == null || compare(mine.kind(), value, least) >= 0;
      boolean below =
          to.nulls() > 0 || greatest == null || compare(mine.kind(), value, greatest) <= 0;
      in += above && below ? 1 : 0;
    }
    return mine.distinct() == 0 ? 0 : (double) in / mine.distinct();
  }

  private static @Nullable String end(SampleColumn column, int sign) {
    String end = null;
    for (int id = 0; id < column.distinct(); id++) {
      String value = column.valueOf(id);
      end = end == null || compare(column.kind(), value, end) * sign > 0 ? value : end;
    }
    return end;
  }

  /** A column of patterns in which * stands for anything. */
  private @Nullable FoundKey patterns() {
    for (SampleColumn column : theirs.columns()) {
      long starred = 0;
      for (int id = 0; id < column.distinct(); id++) {
        starred += column.valueOf(id).indexOf('*') >= 0 ? 1 : 0;
      }
      if (column.distinct() < 2 || starred < MOSTLY * column.distinct()) {
        continue;
      }
      Pattern any = anyOf(column);
      SampleColumn best = null;
      double bestShare = 0;
      for (SampleColumn mine : ours.columns()) {
        double share = mine.kind() == SampleColumn.Kind.TEXT ? fits(mine, any) : 0;
        if (share > bestShare) {
          best = mine;
          bestShare = share;
        }
      }
      if (best != null) {
        return new FoundKey(
            Kind.WILDCARD, List.of(), best.name(), column.name(), null, bestShare, 1);
      }
    }
    return null;
  }

  private static Pattern anyOf(SampleColumn patterns) {
    StringBuilder any = new StringBuilder();
    for (int id = 0; id < patterns.distinct(); id++) {
      StringBuilder one = new StringBuilder();
      for (char c : patterns.valueOf(id).toCharArray()) {
        one.append(c == '*' ? ".*" : c == '?' ? "." : Pattern.quote(String.valueOf(c)));
      }
      any.append(any.length() == 0 ? "" : "|").append(one);
    }
    return Pattern.compile(any.toString(), Pattern.DOTALL | Pattern.CASE_INSENSITIVE);
  }

  private static double fits(SampleColumn mine, Pattern any) {
    long[] counts = mine.counts();
    long all = 0;
    long found = 0;
    for (int id = 0; id < counts.length; id++) {
      all += counts[id];
      found += any.matcher(mine.valueOf(id)).matches() ? counts[id] : 0;
    }
    return all == 0 ? 0 : (double) found / all;
  }

  /**
   * A list of corrections: some of our values are in its first column, few of them, and what stands
   * beside them is what the rest of our values are.
   */
  @Nullable FoundKey correction() {
    for (SampleColumn written : theirs.columns()) {
      if (written.kind() != SampleColumn.Kind.TEXT || !once(written)) {
        continue;
      }
      for (SampleColumn mine : ours.columns()) {
        double wrong = exactly(mine, written);
        if (wrong <= SOME_MATCH || wrong >= 1 - MOSTLY) {
          continue;
        }
        for (SampleColumn meant : theirs.columns()) {
          boolean listed =
              written != meant
                  && meant.kind() == SampleColumn.Kind.TEXT
                  && exactly(meant, mine) >= 0.6
                  && exactly(written, meant) == 0;
          if (listed) {
            return new FoundKey(
                Kind.CORRECTION, List.of(), mine.name(), written.name(), meant.name(), wrong, 1);
          }
        }
      }
    }
    return null;
  }

  /** Whether no value stands twice, case aside: a list of corrections contradicts itself else. */
  private static boolean once(SampleColumn column) {
    long rows = column.rows() - column.nulls();
    return column.foldedSet().size() == rows;
  }

  /** The share of the rows of one whose values, but for outer spaces, stand in the other. */
  private static double exactly(SampleColumn one, SampleColumn other) {
    Set<String> there = other.strippedSet();
    long[] counts = one.counts();
    long all = 0;
    long found = 0;
    for (int id = 0; id < counts.length; id++) {
      all += counts[id];
      found += there.contains(one.valueOf(id).strip()) ? counts[id] : 0;
    }
    return all == 0 ? 0 : (double) found / all;
  }
}
