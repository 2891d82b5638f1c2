package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.plan.GroupedKeys.Group;
import org.abletwine.plan.GroupedKeys.Keys;
import org.abletwine.step.Exceptions;
import org.jspecify.annotations.Nullable;

/** The keys that need a person, for the record, the report and the draft of corrections. */
final class AttentionKeys implements Exceptions {
  private static final String UNMATCHED = "unmatched";

  private final GroupedKeys groups = new GroupedKeys();

  @Override
  public void found(Found found) {
    groups.found(found);
  }

  /** The unmatched keys of one lookup, in the order of their first rows. */
  Map<String, Stake> unmatched(String step) {
    Map<String, Stake> stakes = new LinkedHashMap<>();
    groups.forEach(
        (of, keys) -> {
          if (of.step().equals(step) && of.kind().equals(UNMATCHED)) {
            keys.byKey().forEach((key, group) -> stakes.putIfAbsent(key, group.stake()));
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
                                    one.getValue().stake().rows(),
                                    measure(one.getValue())))
                        .toList(),
                    keys.byKey().size() + (keys.others() == null ? 0 : 1)));
          }
        });
    return told;
  }

  private static List<Map.Entry<String, Group>> sorted(Keys keys) {
    List<Map.Entry<String, Group>> all = new ArrayList<>(keys.byKey().entrySet());
    all.sort(
        (one, other) -> {
          int largest = Group.largestFirst(one.getValue(), other.getValue());
          return largest != 0 ? largest : one.getKey().compareTo(other.getKey());
        });
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
                    keys.rows(),
                    keys.byKey().size(),
                    keys.others() != null,
                    sorted(keys).stream()
                        .limit(most)
                        .map(
                            one ->
                                new ReportMaterial.Key(
                                    one.getKey(),
                                    one.getValue().stake().rows(),
                                    measure(one.getValue()),
                                    one.getValue().first().row(),
                                    one.getValue().first().detail()))
                        .toList())));
    return told;
  }

  private static @Nullable String measure(Group group) {
    BigDecimal measure = group.stake().measure();
    return measure == null ? null : measure.toPlainString();
  }
}
