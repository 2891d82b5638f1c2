package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.step.Exceptions;
import org.jspecify.annotations.Nullable;

/**
 * Gathers the keys that lookups do not find, with what their rows come to. Not safe for use by
 * several threads at once.
 */
final class UnmatchedKeys implements Exceptions {
  private static final int MOST_KEYS = RunAccount.Unmatched.MOST_COUNTED;

  private final Map<String, Map<String, Stake>> byStep = new LinkedHashMap<>();
  private final Map<String, Long> beyond = new LinkedHashMap<>();

  @Override
  public void found(Found found) {
    if (!found.kind().equals("unmatched")) {
      return;
    }
    Map<String, Stake> keys = byStep.computeIfAbsent(found.step(), step -> new LinkedHashMap<>());
    Stake stake = keys.get(found.key());
    if (stake == null && keys.size() == MOST_KEYS) {
      beyond.put(found.step(), 1L);
      return;
    }
    if (stake == null) {
      stake = new Stake();
      keys.put(found.key(), stake);
    }
    stake.add(found.measure());
  }

  /** The keys of one lookup, in the order of their first rows. */
  Map<String, Stake> of(String step) {
    return byStep.getOrDefault(step, Map.of());
  }

  /** All keys by lookup, for the account. */
  Map<String, RunAccount.Unmatched> told() {
    Map<String, RunAccount.Unmatched> told = new LinkedHashMap<>();
    byStep.forEach((step, keys) -> told.put(step, told(keys, beyond.getOrDefault(step, 0L))));
    return told;
  }

  private static RunAccount.Unmatched told(Map<String, Stake> keys, long more) {
    List<RunAccount.UnmatchedKey> named =
        keys.entrySet().stream()
            .sorted(
                Comparator.comparing(
                        (Map.Entry<String, Stake> one) -> size(one.getValue()),
                        Comparator.reverseOrder())
                    .thenComparing(one -> one.getValue().rows(), Comparator.reverseOrder())
                    .thenComparing(Map.Entry::getKey))
            .limit(RunAccount.Unmatched.MOST)
            .map(UnmatchedKeys::key)
            .toList();
    return new RunAccount.Unmatched(named, keys.size() + more);
  }

  private static BigDecimal size(Stake stake) {
    @Nullable BigDecimal measure = stake.measure();
    return measure == null ? BigDecimal.ZERO : measure.abs();
  }

  private static RunAccount.UnmatchedKey key(Map.Entry<String, Stake> entry) {
    @Nullable BigDecimal measure = entry.getValue().measure();
    return new RunAccount.UnmatchedKey(
        entry.getKey(), entry.getValue().rows(), measure == null ? null : measure.toPlainString());
  }
}
