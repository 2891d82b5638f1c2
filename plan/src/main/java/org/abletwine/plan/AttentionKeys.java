package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.step.Exceptions;
import org.jspecify.annotations.Nullable;

/**
 * Gathers the keys that need a person, by what met them and why, with what their rows come to. Of
 * each, the first keys are told apart, and all beyond them counted together. Not safe for use by
 * several threads.
 */
final class AttentionKeys implements Exceptions {
  private static final int MOST_KEYS = RunAccount.Unmatched.MOST_COUNTED;
  private static final String UNMATCHED = "unmatched";

  private final Map<Of, Keys> groups = new LinkedHashMap<>();

  /** What met a key, and why it needs a person. */
  private record Of(String step, String kind, String table) {}

  /** The keys of one step and kind. */
  private static final class Keys {
    private final Map<String, Group> byKey = new LinkedHashMap<>();
    private long beyond;
    private long rows;
  }

  /** A key, and what its rows come to. */
  private static final class Group {
    private final Stake stake = new Stake();
    private final long first;
    private final String detail;

    Group(Found found) {
      first = found.row();
      detail = found.detail();
    }

    BigDecimal size() {
      @Nullable BigDecimal measure = stake.measure();
      return measure == null ? BigDecimal.ZERO : measure.abs(); // a credit is at stake too
    }

    @Nullable String measure() {
      @Nullable BigDecimal measure = stake.measure();
      return measure == null ? null : measure.toPlainString();
    }
  }

  @Override
  public void found(Found found) {
    Keys keys =
        groups.computeIfAbsent(new Of(found.step(), found.kind(), found.table()), of -> new Keys());
    keys.rows++;
    Group group = keys.byKey.get(found.key());
    if (group == null && keys.byKey.size() == MOST_KEYS) {
      keys.beyond++;
      return;
    }
    if (group == null) {
      group = new Group(found);
      keys.byKey.put(found.key(), group);
    }
    group.stake.add(found.measure());
  }

  /** The unmatched keys of one lookup, in the order of their first rows. */
  Map<String, Stake> unmatched(String step) {
    Map<String, Stake> stakes = new LinkedHashMap<>();
    groups.forEach(
        (of, keys) -> {
          if (of.step().equals(step) && of.kind().equals(UNMATCHED)) {
            keys.byKey.forEach((key, group) -> stakes.putIfAbsent(key, group.stake));
          }
        });
    return stakes;
  }

  /** All unmatched keys by lookup, for the account. */
  Map<String, RunAccount.Unmatched> unmatched() {
    Map<String, RunAccount.Unmatched> told = new LinkedHashMap<>();
    groups.forEach(
        (of, keys) -> {
          if (of.kind().equals(UNMATCHED)) {
            told.put(
                of.step(),
                new RunAccount.Unmatched(
                    sorted(keys).stream()
                        .limit(RunAccount.Unmatched.MOST)
                        .map(
                            one ->
                                new RunAccount.UnmatchedKey(
                                    one.getKey(),
                                    one.getValue().stake.rows(),
                                    one.getValue().measure()))
                        .toList(),
                    keys.byKey.size() + (keys.beyond > 0 ? 1 : 0)));
          }
        });
    return told;
  }

  private static List<Map.Entry<String, Group>> sorted(Keys keys) {
    List<Map.Entry<String, Group>> all = new ArrayList<>(keys.byKey.entrySet());
    all.sort(
        Comparator.comparing(
                (Map.Entry<String, Group> one) -> one.getValue().size(), Comparator.reverseOrder())
            .thenComparing(one -> one.getValue().stake.rows(), Comparator.reverseOrder())
            .thenComparing(Map.Entry::getKey));
    return all;
  }

  /**
   * How many rows and keys need a person, by what met them and why, each with its worst keys.
   *
   * @param most how many keys of each are named
   */
  List<ReportMaterial.Attention> worst(int most) {
    List<ReportMaterial.Attention> told = new ArrayList<>();
    groups.forEach(
        (of, keys) ->
            told.add(
                new ReportMaterial.Attention(
                    of.step(),
                    of.kind(),
                    of.table(),
                    keys.rows,
                    keys.byKey.size(),
                    keys.beyond > 0,
                    sorted(keys).stream()
                        .limit(most)
                        .map(
                            one ->
                                new ReportMaterial.Key(
                                    one.getKey(),
                                    one.getValue().stake.rows(),
                                    one.getValue().measure(),
                                    one.getValue().first,
                                    one.getValue().detail))
                        .toList())));
    return told;
  }
}
