package org.abletwine.plan.drift;

import com.fasterxml.jackson.databind.JsonNode;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.plan.RunAccount;
import org.abletwine.plan.RunJson;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;

/**
 * What changed between two runs. Immutable.
 *
 * @param title what the later run is called
 * @param before when the earlier run began, in ISO 8601
 * @param after when the later one did
 * @param inputs the tables of both runs, those that changed first
 * @param plan lines of the plan that are gone or new, each after its sign; empty when the plan is
 *     the same
 * @param parameters values that plan was given, where they differ
 * @param changes what came out differently: first what is beyond its limit, then by weight
 */
public record Drift(
    String title,
    String before,
    String after,
    List<Table> inputs,
    List<String> plan,
    List<Change> parameters,
    List<Change> changes) {

  /** Copies the lists. */
  public Drift {
    inputs = List.copyOf(inputs);
    plan = List.copyOf(plan);
    parameters = List.copyOf(parameters);
    changes = List.copyOf(changes);
  }

  /**
   * A table in both runs.
   *
   * @param name {@code transactions}, or the reference
   * @param place where it was in the later run, else in the earlier
   * @param state {@code same}, {@code changed}, {@code new}, {@code gone}, or {@code unknown} where
   *     there is no checksum to compare
   * @param rowsBefore rows in the earlier run; -1 when not known
   * @param rowsAfter rows in the later run; -1 when not known
   */
  public record Table(String name, String place, String state, long rowsBefore, long rowsAfter) {}

  /**
   * Compares two records.
   *
   * @param before the record of the earlier run
   * @param after that of the later
   * @param limits what may change
   * @throws DataException when a file is no record
   * @throws SettingException when a limit is stated for what is in neither
   */
  public static Drift between(Path before, Path after, Limits limits) {
    return between(Recorded.read(before), Recorded.read(after), limits);
  }

  /** An earlier run, read before a later one replaces its record. Immutable. */
  public static final class Since {
    private final Recorded before;

    private Since(Recorded before) {
      this.before = before;
    }

    /**
     * Compares a later run with it.
     *
     * @param account the later run
     */
    public Drift to(RunAccount account) {
      return between(before, new Recorded(RunJson.of(account)), Limits.NONE);
    }

    @Override
    public String toString() {
      return "Since[" + before.text("started") + "]";
    }
  }

  /**
   * Reads the record of an earlier run.
   *
   * @param record the file
   * @throws DataException when it is no record
   */
  public static Since since(Path record) {
    return new Since(Recorded.read(record));
  }

  private static Drift between(Recorded before, Recorded after, Limits limits) {
    limits.check(areas(before, after));
    List<String> plan =
        PlanChanges.of(
            before.root().path("plan").path("text").asText(),
            after.root().path("plan").path("text").asText());
    List<Change> changes = new ArrayList<>();
    changes.addAll(FigureChanges.of(before, after, limits));
    changes.addAll(LookupChanges.of(before, after, limits));
    if (!plan.isEmpty()) {
      Change change =
          new Change("plan", "lines", "", Integer.toString(plan.size()), "gone or new", 0);
      Change judged = limits.judge(Limits.Figure.PLAN, change, BigDecimal.valueOf(plan.size()));
      if (!judged.beyond().isEmpty()) {
        changes.add(judged);
      }
    }
    changes.sort(
        Comparator.comparing((Change change) -> change.beyond().isEmpty())
            .thenComparing(Change::weight, Comparator.reverseOrder()));
    return new Drift(
        after.text("title"),
        before.text("started"),
        after.text("started"),
        inputs(before, after),
        plan,
        parameters(before, after),
        changes);
  }

  private static Set<String> areas(Recorded before, Recorded after) {
    Set<String> areas = new LinkedHashSet<>(List.of("transactions"));
    for (Recorded record : List.of(after, before)) {
      areas.addAll(record.byName("lookups", "name").keySet());
      for (JsonNode lookup : record.root().path("lookups")) {
        areas.addAll(Recorded.byName(lookup, "attributes", "column").keySet());
      }
      areas.addAll(record.byName("computed", "column").keySet());
      areas.addAll(record.byName("coalesced", "column").keySet());
      areas.addAll(record.byName("control_totals", "column").keySet());
    }
    return areas;
  }

  private static List<Table> inputs(Recorded before, Recorded after) {
    Map<String, JsonNode> old = before.byName("inputs", "name");
    Map<String, JsonNode> now = after.byName("inputs", "name");
    List<Table> tables = new ArrayList<>();
    for (String name : Recorded.names(old, now)) {
      JsonNode was = old.get(name);
      JsonNode is = now.get(name);
      JsonNode there = is == null ? was : is;
      tables.add(
          new Table(
              name,
              there == null ? "" : there.path("place").asText(),
              was == null ? "new" : is == null ? "gone" : state(was, is),
              was == null ? -1 : was.path("rows").asLong(-1),
              is == null ? -1 : is.path("rows").asLong(-1)));
    }
    tables.sort(Comparator.comparing(table -> table.state().equals("same")));
    return tables;
  }

  private static String state(JsonNode was, JsonNode is) {
    List<String> old = sums(was);
    List<String> now = sums(is);
    if (old.contains("") || now.contains("") || old.isEmpty() || now.isEmpty()) {
      return "unknown";
    }
    return old.equals(now) ? "same" : "changed";
  }

  private static List<String> sums(JsonNode input) {
    List<String> sums = new ArrayList<>();
    input.path("files").forEach(file -> sums.add(file.path("sha256").asText("")));
    sums.replaceAll(sum -> sum.equals("null") ? "" : sum);
    return sums;
  }

  private static List<Change> parameters(Recorded before, Recorded after) {
    JsonNode old = before.root().path("parameters");
    JsonNode now = after.root().path("parameters");
    Set<String> names = new LinkedHashSet<>();
    now.fieldNames().forEachRemaining(names::add);
    old.fieldNames().forEachRemaining(names::add);
    List<Change> changes = new ArrayList<>();
    for (String name : names) {
      String was = old.path(name).asText("");
      String is = now.path(name).asText("");
      if (!was.equals(is)) {
        changes.add(new Change("parameters", name, was, is, "", 0));
      }
    }
    return changes;
  }

  /** {@return whether nothing is beyond its limit} */
  public boolean holds() {
    return changes.stream().allMatch(change -> change.beyond().isEmpty());
  }
}
