package org.abletwine.plan.drift;

import com.fasterxml.jackson.databind.JsonNode;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Keys of one lookup that one record names and the other does not. */
final class KeyChanges {
  private static final int MOST_EXAMPLES = 20;

  private final String lookup;
  private final JsonNode before;
  private final JsonNode after;
  private final String measure;
  private final Limits limits;
  private final List<Change> changes = new ArrayList<>();

  private KeyChanges(
      String lookup, JsonNode before, JsonNode after, String measure, Limits limits) {
    this.lookup = lookup;
    this.before = before;
    this.after = after;
    this.measure = measure;
    this.limits = limits;
  }

  static List<Change> of(
      String lookup, JsonNode before, JsonNode after, String measure, Limits limits) {
    KeyChanges keys = new KeyChanges(lookup, before, after, measure, limits);
    keys.unmatched();
    keys.several();
    return keys.changes;
  }

  /**
   * Whether unmatched keys are named: not where they are expected, nor in an older record. What
   * stands for a private key is another in each run, so those cannot be compared.
   */
  private static boolean names(JsonNode lookup) {
    return lookup.has("unmatched_keys") && !lookup.path("private_key").asBoolean()
        || lookup.path("unmatched").asLong() == 0;
  }

  private void unmatched() {
    if (!names(before) || !names(after)) {
      return;
    }
    Map<String, JsonNode> old = Recorded.byName(before, "unmatched_keys", "key");
    Map<String, JsonNode> now = Recorded.byName(after, "unmatched_keys", "key");
    long oldCount = before.path("distinct_unmatched_keys").asLong();
    long nowCount = after.path("distinct_unmatched_keys").asLong();
    if (oldCount > old.size() || nowCount > now.size()) {
      if (oldCount != nowCount) {
        Change change =
            new Change(
                lookup,
                "unmatched keys",
                Long.toString(oldCount),
                Long.toString(nowCount),
                signed(nowCount - oldCount) + "; too many to be told one by one",
                share(Math.max(0, nowCount - oldCount)));
        changes.add(
            limits.judge(
                Limits.Figure.UNMATCHED_KEYS,
                change,
                BigDecimal.valueOf(Math.max(0, nowCount - oldCount))));
      }
      return;
    }
    List<JsonNode> fresh = only(now, old);
    if (!fresh.isEmpty()) {
      long rows = fresh.stream().mapToLong(key -> key.path("rows").asLong()).sum();
      BigDecimal total = BigDecimal.ZERO;
      for (JsonNode key : fresh) {
        total = total.add(number(key.path("measure")));
      }
      Change change =
          new Change(
                  lookup,
                  "new unmatched keys",
                  "",
                  Integer.toString(fresh.size()),
                  rows
                      + (rows == 1 ? " row" : " rows")
                      + (measure.isEmpty() ? "" : ", " + measure + " " + total.toPlainString()),
                  share(rows))
              .with(examples(fresh));
      changes.add(
          limits.judge(Limits.Figure.UNMATCHED_KEYS, change, BigDecimal.valueOf(fresh.size())));
    }
    List<JsonNode> gone = only(old, now);
    if (!gone.isEmpty()) {
      changes.add(
          new Change(
                  lookup,
                  "unmatched keys no more",
                  Integer.toString(gone.size()),
                  "",
                  "found now, or gone from the transactions",
                  share(gone.stream().mapToLong(key -> key.path("rows").asLong()).sum()) / 4)
              .with(examples(gone)));
    }
  }

  private void several() {
    Map<String, JsonNode> old = Recorded.byName(before, "several_rows", "key");
    Map<String, JsonNode> now = Recorded.byName(after, "several_rows", "key");
    long oldCount = before.path("keys_on_several_rows").asLong();
    long nowCount = after.path("keys_on_several_rows").asLong();
    if (after.path("by_rule").asBoolean()) {
      return; // there the figure counts places, not keys
    }
    boolean hidden =
        before.path("private_key").asBoolean() || after.path("private_key").asBoolean();
    boolean all = !hidden && oldCount == old.size() && nowCount == now.size();
    List<JsonNode> fresh = all ? only(now, old) : List.of();
    long more = all ? fresh.size() : Math.max(0, nowCount - oldCount);
    if (more > 0) {
      long conflicting = fresh.stream().filter(key -> key.path("conflicting").asBoolean()).count();
      Change change =
          new Change(
                  lookup,
                  "new keys on several rows",
                  Long.toString(oldCount),
                  Long.toString(nowCount),
                  all
                      ? more
                          + " new"
                          + (conflicting == 0 ? "" : ", " + conflicting + " conflicting")
                      : signed(nowCount - oldCount),
                  0.02 + (double) more / Math.max(1, after.path("reference_keys").asLong()))
              .with(examples(fresh));
      changes.add(limits.judge(Limits.Figure.DUPLICATES, change, BigDecimal.valueOf(more)));
    }
    long gone = all ? only(old, now).size() : Math.max(0, oldCount - nowCount);
    if (gone > 0) {
      changes.add(
          new Change(
              lookup,
              "keys on several rows no more",
              Long.toString(oldCount),
              Long.toString(nowCount),
              gone + (gone == 1 ? " key" : " keys"),
              0.005));
    }
  }

  private double share(long rows) {
    return (double) rows / Math.max(1, after.path("rows").asLong());
  }

  private static List<JsonNode> only(Map<String, JsonNode> in, Map<String, JsonNode> notIn) {
    return in.entrySet().stream()
        .filter(entry -> !notIn.containsKey(entry.getKey()))
        .map(Map.Entry::getValue)
        .toList();
  }

  private static List<String> examples(List<JsonNode> keys) {
    return keys.stream().limit(MOST_EXAMPLES).map(key -> key.path("key").asText()).toList();
  }

  static BigDecimal number(JsonNode node) {
    try {
      return node.isNumber()
          ? node.decimalValue()
          : node.isTextual() ? new BigDecimal(node.asText()) : BigDecimal.ZERO;
    } catch (NumberFormatException e) {
      return BigDecimal.ZERO; // a record that somebody has written in
    }
  }

  static String signed(long number) {
    return (number > 0 ? "+" : "") + number;
  }
}
