package org.abletwine.plan.drift;

import com.fasterxml.jackson.databind.JsonNode;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What changed in the figures of the lookups. */
final class LookupChanges {
  private static final List<String> OTHERS = List.of("ambiguous", "blank_key", "not_asked");

  private final Recorded before;
  private final Recorded after;
  private final Limits limits;
  private final List<Change> changes = new ArrayList<>();

  private LookupChanges(Recorded before, Recorded after, Limits limits) {
    this.before = before;
    this.after = after;
    this.limits = limits;
  }

  static List<Change> of(Recorded before, Recorded after, Limits limits) {
    LookupChanges changes = new LookupChanges(before, after, limits);
    changes.all();
    return changes.changes;
  }

  private void all() {
    Map<String, JsonNode> old = before.byName("lookups", "name");
    Map<String, JsonNode> now = after.byName("lookups", "name");
    for (String name : Recorded.names(old, now)) {
      JsonNode was = old.get(name);
      JsonNode is = now.get(name);
      if (was == null || is == null) {
        boolean fresh = was == null;
        changes.add(
            new Change(
                name,
                "lookup",
                fresh ? "" : "there",
                fresh ? "there" : "",
                fresh ? "new" : "gone",
                fresh ? 1 : 2));
      } else {
        rates(name, was, is);
        changes.addAll(KeyChanges.of(name, was, is, after.text("measure"), limits));
        steps(name, was, is);
        attributes(was, is);
        constants(name, was, is);
      }
    }
  }

  private void rates(String name, JsonNode was, JsonNode is) {
    Share old = matched(was);
    Share now = matched(is);
    BigDecimal points = now.pointsFrom(old);
    Change matched =
        new Change(
            name,
            "matched",
            old.told(),
            now.told(),
            Share.points(points),
            2 * Share.weight(points.negate()));
    Change judged = limits.judge(Limits.Figure.MATCHED, matched, points.negate());
    if (Share.shows(points) || !judged.beyond().isEmpty()) {
      changes.add(judged);
    }
    for (String outcome : OTHERS) {
      Share first = new Share(was.path(outcome).asLong(), was.path("rows").asLong());
      Share second = new Share(is.path(outcome).asLong(), is.path("rows").asLong());
      BigDecimal more = second.pointsFrom(first);
      if (Share.shows(more)) {
        changes.add(
            new Change(
                name,
                outcome.replace('_', ' '),
                first.told(),
                second.told(),
                Share.points(more),
                Share.weight(more)));
      }
    }
  }

  /** Of the rows that it is asked for. */
  private static Share matched(JsonNode lookup) {
    return new Share(
        lookup.path("matched").asLong(),
        lookup.path("rows").asLong() - lookup.path("not_asked").asLong());
  }

  /** Rows that match only thanks to a step: keys are written in another way than they were. */
  private void steps(String name, JsonNode was, JsonNode is) {
    Map<String, JsonNode> old = Recorded.byName(was, "matched_by", "step");
    Map<String, JsonNode> now = Recorded.byName(is, "matched_by", "step");
    for (String step : now.keySet()) {
      JsonNode first = old.get(step);
      JsonNode second = now.get(step);
      if (step.equals("as written") || first == null || second == null) {
        continue;
      }
      Share one = new Share(first.path("rows").asLong(), was.path("rows").asLong());
      Share two = new Share(second.path("rows").asLong(), is.path("rows").asLong());
      BigDecimal points = two.pointsFrom(one);
      if (points.abs().compareTo(BigDecimal.ONE) >= 0) {
        changes.add(
            new Change(
                name,
                "matched by " + step,
                one.told(),
                two.told(),
                Share.points(points),
                Share.weight(points) * 0.3));
      }
    }
  }

  /** Nulls of attributes, where more of them are empty, or they are beyond their limit. */
  private void attributes(JsonNode was, JsonNode is) {
    Map<String, JsonNode> old = Recorded.byName(was, "attributes", "column");
    Map<String, JsonNode> now = Recorded.byName(is, "attributes", "column");
    now.forEach(
        (column, second) -> {
          JsonNode first = old.get(column);
          if (first == null) {
            return;
          }
          Share one = new Share(first.path("nulls").asLong(), was.path("rows").asLong());
          Share two = new Share(second.path("nulls").asLong(), is.path("rows").asLong());
          BigDecimal points = two.pointsFrom(one);
          BigDecimal empty =
              new Share(second.path("empty").asLong(), is.path("rows").asLong())
                  .pointsFrom(new Share(first.path("empty").asLong(), was.path("rows").asLong()));
          Change change =
              limits.judge(
                  Limits.Figure.NULLS,
                  new Change(
                      column,
                      "null",
                      one.told(),
                      two.told(),
                      Share.points(points),
                      Share.weight(points)),
                  points);
          if (Share.shows(points) && Share.shows(empty) || !change.beyond().isEmpty()) {
            changes.add(change);
          }
        });
  }

  private void constants(String name, JsonNode was, JsonNode is) {
    List<String> old = new ArrayList<>();
    was.path("constant_attributes").forEach(one -> old.add(one.asText()));
    for (JsonNode one : is.path("constant_attributes")) {
      if (!old.contains(one.asText())) {
        changes.add(
            new Change(name, "the same on every row", "", one.asText(), "not so before", 0.5));
      }
    }
  }
}
