package org.abletwine.plan.drift;

import com.fasterxml.jackson.databind.JsonNode;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** What changed in rows, controls, totals, computed columns and rollups. */
final class FigureChanges {
  private static final int MOST_EXAMPLES = 20;

  private final Recorded before;
  private final Recorded after;
  private final Limits limits;
  private final List<Change> changes = new ArrayList<>();

  private FigureChanges(Recorded before, Recorded after, Limits limits) {
    this.before = before;
    this.after = after;
    this.limits = limits;
  }

  static List<Change> of(Recorded before, Recorded after, Limits limits) {
    FigureChanges changes = new FigureChanges(before, after, limits);
    changes.controls();
    changes.rows();
    changes.columns();
    changes.totals();
    changes.nulls();
    changes.corrections();
    changes.groups();
    return changes.changes;
  }

  private void controls() {
    Map<String, JsonNode> old = before.byName("controls", "what");
    Map<String, JsonNode> now = after.byName("controls", "what");
    long broken = 0;
    List<Change> fallen = new ArrayList<>();
    for (String what : Recorded.names(old, now)) {
      JsonNode was = old.get(what);
      JsonNode is = now.get(what);
      if (is == null) {
        changes.add(new Change("controls", what, "there", "", "not asked for any more", 1.5));
        continue;
      }
      boolean holds = is.path("holds").asBoolean();
      boolean held = was == null || was.path("holds").asBoolean();
      if (holds != held) {
        broken += holds ? 0 : 1;
        fallen.add(
            new Change(
                "controls",
                what,
                was == null ? "" : was.path("figure").asText(),
                is.path("figure").asText(),
                holds ? "holds again" : "does not hold: expected " + is.path("limit").asText(),
                holds ? 0.2 : 10));
      }
    }
    for (Change change : fallen) {
      boolean mended = change.weight() < 1;
      changes.add(
          mended
              ? change
              : limits.judge(Limits.Figure.CONTROLS, change, BigDecimal.valueOf(broken)));
    }
  }

  private void rows() {
    BigDecimal old = BigDecimal.valueOf(before.rowsIn());
    BigDecimal now = BigDecimal.valueOf(after.rowsIn());
    BigDecimal growth = Share.growth(old, now);
    if (growth.signum() != 0) {
      changes.add(
          limits.judge(
              Limits.Figure.ROWS,
              new Change(
                  "transactions",
                  "rows",
                  old.toPlainString(),
                  now.toPlainString(),
                  Share.percent(growth),
                  Math.min(1, Math.abs(growth.doubleValue())) * 0.3),
              growth.abs().movePointRight(2)));
    }
    Share out = left(before);
    Share outNow = left(after);
    BigDecimal points = outNow.pointsFrom(out);
    if (Share.shows(points)) {
      changes.add(
          new Change(
              "transactions",
              "left out",
              out.told(),
              outNow.told(),
              Share.points(points),
              Share.weight(points)));
    }
  }

  private static Share left(Recorded record) {
    long in = record.rowsIn();
    return new Share(Math.max(0, in - record.root().path("rows_out").asLong()), in);
  }

  private void columns() {
    List<String> old = texts(before.root().path("columns"));
    List<String> now = texts(after.root().path("columns"));
    List<String> gone = old.stream().filter(column -> !now.contains(column)).toList();
    List<String> fresh = now.stream().filter(column -> !old.contains(column)).toList();
    if (!gone.isEmpty()) {
      changes.add(
          new Change("columns", "gone", Integer.toString(gone.size()), "", "", 2).with(gone));
    }
    if (!fresh.isEmpty()) {
      changes.add(
          new Change("columns", "new", "", Integer.toString(fresh.size()), "", 0.4).with(fresh));
    }
  }

  private static List<String> texts(JsonNode list) {
    List<String> texts = new ArrayList<>();
    list.forEach(one -> texts.add(one.asText()));
    return texts;
  }

  /** Totals, compared for each row: a month has more rows than another. */
  private void totals() {
    Map<String, JsonNode> old = totals(before);
    totals(after)
        .forEach(
            (column, is) -> {
              JsonNode was = old.get(column);
              if (was == null) {
                return;
              }
              BigDecimal first = KeyChanges.number(was.path("total"));
              BigDecimal second = KeyChanges.number(is.path("total"));
              BigDecimal each =
                  Share.growth(perRow(first, before.rowsIn()), perRow(second, after.rowsIn()));
              if (first.compareTo(second) == 0) {
                return;
              }
              Change change =
                  new Change(
                      column,
                      "total",
                      first.toPlainString(),
                      second.toPlainString(),
                      Share.percent(Share.growth(first, second))
                          + ", for each row "
                          + Share.percent(each),
                      Math.min(1, Math.abs(each.doubleValue())));
              changes.add(limits.judge(Limits.Figure.TOTALS, change, each.abs().movePointRight(2)));
            });
  }

  private static BigDecimal perRow(BigDecimal total, long rows) {
    return total.divide(BigDecimal.valueOf(Math.max(1, rows)), MathContext.DECIMAL64);
  }

  /** Controlled totals at the end, and the grand totals of rollups, by what they total. */
  private static Map<String, JsonNode> totals(Recorded record) {
    Map<String, JsonNode> totals = new LinkedHashMap<>();
    for (JsonNode one : record.root().path("control_totals")) {
      if (one.path("when").asText().equals("after")) {
        totals.put(one.path("column").asText(), one);
      }
    }
    return totals;
  }

  private void nulls() {
    for (String kind : List.of("coalesced", "computed")) {
      Map<String, JsonNode> old = before.byName(kind, "column");
      after
          .byName(kind, "column")
          .forEach(
              (column, is) -> {
                JsonNode was = old.get(column);
                if (was != null) {
                  share(column, "null", was, is, "nulls", true);
                  share(column, "could not be computed", was, is, "errors", false);
                }
              });
    }
    Map<String, JsonNode> old = before.byName("formatted", "column");
    after
        .byName("formatted", "column")
        .forEach(
            (column, is) -> {
              JsonNode was = old.get(column);
              if (was != null) {
                share(column, "could not be written so", was, is, "errors", false);
              }
            });
  }

  private void share(
      String area, String what, JsonNode was, JsonNode is, String figure, boolean limited) {
    Share one = new Share(was.path(figure).asLong(), was.path("rows").asLong());
    Share two = new Share(is.path(figure).asLong(), is.path("rows").asLong());
    BigDecimal points = two.pointsFrom(one);
    Change change =
        new Change(area, what, one.told(), two.told(), Share.points(points), Share.weight(points));
    Change judged = limited ? limits.judge(Limits.Figure.NULLS, change, points) : change;
    if (Share.shows(points) || !judged.beyond().isEmpty()) {
      changes.add(judged);
    }
  }

  private void corrections() {
    Map<String, JsonNode> old = before.byName("corrections", "column");
    after
        .byName("corrections", "column")
        .forEach(
            (column, is) -> {
              JsonNode was = old.get(column);
              if (was != null) {
                share(column, "corrected", was, is, "changed", false);
              }
            });
  }

  /** Groups of rollups that are there in one record only. */
  private void groups() {
    Map<String, Groups> old = groups(before);
    groups(after)
        .forEach(
            (by, now) -> {
              Groups was = old.get(by);
              if (was == null) {
                return;
              }
              if (now.allNamed() && was.allNamed()) {
                groups(by, "new groups", now.named(), was.named(), 0.05);
                groups(by, "groups gone", was.named(), now.named(), 0.1);
              } else if (now.count() != was.count()) {
                changes.add(
                    new Change(
                        "totals by " + by,
                        "groups",
                        Long.toString(was.count()),
                        Long.toString(now.count()),
                        "too many to name those that are new or gone",
                        0.05));
              }
            });
  }

  /**
   * The groups of a rollup.
   *
   * @param named those that the record names
   * @param count how many there are
   */
  private record Groups(Set<String> named, long count) {
    boolean allNamed() {
      return named.size() >= count;
    }
  }

  private void groups(String by, String what, Set<String> in, Set<String> notIn, double weight) {
    List<String> only = in.stream().filter(group -> !notIn.contains(group)).toList();
    if (!only.isEmpty()) {
      boolean fresh = what.startsWith("new");
      changes.add(
          new Change(
                  "totals by " + by,
                  what,
                  fresh ? "" : Integer.toString(only.size()),
                  fresh ? Integer.toString(only.size()) : "",
                  "",
                  weight)
              .with(only.stream().limit(MOST_EXAMPLES).toList()));
    }
  }

  private static Map<String, Groups> groups(Recorded record) {
    Map<String, Groups> groups = new LinkedHashMap<>();
    for (JsonNode rollup : record.root().path("rollups")) {
      List<String> by = texts(rollup.path("by"));
      if (by.stream().anyMatch(texts(record.root().path("private_columns"))::contains)) {
        continue; // what stands for a private group is another in each run
      }
      Set<String> names = new LinkedHashSet<>();
      for (JsonNode group : rollup.path("groups")) {
        names.add(texts(group).stream().limit(by.size()).collect(Collectors.joining(" | ")));
      }
      long count = rollup.path("groups_wanted").asLong(rollup.path("groups").size());
      boolean all = rollup.path("groups").size() >= count;
      groups.putIfAbsent(String.join(", ", by), new Groups(names, all ? names.size() : count));
    }
    return groups;
  }
}
