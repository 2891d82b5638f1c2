package org.abletwine.plan.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.audit.OverlapAudit;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.plan.draft.FoundKey.Kind;
import org.abletwine.plan.draft.FoundKey.Pair;
import org.abletwine.plan.tell.Words;
import org.jspecify.annotations.Nullable;

/**
 * Finds the steps of a draft, round by round: what joins the columns there are, then what joins the
 * columns that were fetched, until nothing more is found. Corrections come first, since they change
 * what the others compare.
 */
final class Drafter {
  /** Below this share of matches a lookup is only a second one for rows that another left. */
  private static final double FEW = 0.3;

  private static final double WINS = 0.001;

  private final SampleTable rows;
  private final Map<String, SampleTable> tables;
  private final Map<String, SampleTable> open;
  private final List<DraftedStep> steps = new ArrayList<>();
  private final Set<String> names = new LinkedHashSet<>();

  /**
   * @param rows the transactions; fetched columns are added to them
   * @param references the references by name
   */
  Drafter(SampleTable rows, Map<String, SampleTable> references) {
    this.rows = rows;
    this.tables = references;
    this.open = new LinkedHashMap<>(references);
    rows.columns().forEach(column -> names.add(column.name()));
  }

  List<DraftedStep> steps() {
    corrections();
    List<DraftedStep> weak = new ArrayList<>();
    for (boolean more = true; more; ) {
      more = false;
      for (String name : List.copyOf(open.keySet())) {
        SampleTable reference = open.get(name);
        if (reference == null) {
          continue;
        }
        FoundKey again = again(reference);
        FoundKey key = again == null ? new KeySearch(rows, reference).find() : again;
        if (key == null) {
          continue;
        }
        open.remove(name);
        DraftedStep step = step(name, reference, key);
        if (key.kind() == Kind.EQUAL && key.matched() < FEW) {
          weak.add(step);
          continue;
        }
        DraftedStep named = named(step);
        steps.add(named);
        fetch(named, reference);
        more = true;
      }
    }
    weak.forEach(this::place);
    return steps;
  }

  /**
   * The key of a lookup there is, where a reference has the same key and something in common with
   * it, and holds keys that the lookup does not find: whoever left, or another's list.
   */
  private @Nullable FoundKey again(SampleTable reference) {
    for (DraftedStep main : steps) {
      boolean alike =
          main.key().kind() == Kind.EQUAL
              && main.key().equal().stream().allMatch(pair -> reference.has(pair.theirs()))
              && main.bring().keySet().stream().anyMatch(reference::has);
      if (!alike) {
        continue;
      }
      Set<String> known = keys(columns(main.key(), tables.get(main.reference())));
      Set<String> here = keys(columns(main.key(), reference));
      List<SampleColumn> mine =
          main.key().equal().stream().map(pair -> rows.column(pair.ours())).toList();
      int found = 0;
      for (int row = 0; row < rows.count(); row++) {
        String key = KeySearch.key(mine, row);
        found += key != null && !known.contains(key) && here.contains(key) ? 1 : 0;
      }
      if (found > 0) {
        double share = (double) found / rows.count();
        return new FoundKey(Kind.EQUAL, main.key().equal(), null, null, null, share, 1);
      }
    }
    return null;
  }

  private static List<SampleColumn> columns(FoundKey key, @Nullable SampleTable reference) {
    return reference == null
        ? List.of()
        : key.equal().stream().map(pair -> reference.column(pair.theirs())).toList();
  }

  private static Set<String> keys(List<SampleColumn> columns) {
    Set<String> keys = new HashSet<>();
    int count = columns.isEmpty() ? 0 : columns.get(0).rows();
    for (int row = 0; row < count; row++) {
      String key = KeySearch.key(columns, row);
      if (key != null) {
        keys.add(key);
      }
    }
    return keys;
  }

  /** References that joined nothing. */
  Set<String> unused() {
    return open.keySet();
  }

  private void corrections() {
    tables.forEach(
        (name, reference) -> {
          FoundKey key = new KeySearch(rows, reference).correction();
          if (key != null) {
            open.remove(name);
            steps.add(step(name, reference, key));
          }
        });
  }

  /**
   * A lookup that few rows match: tried for those that another by the same key left, or its own.
   */
  private void place(DraftedStep step) {
    for (int i = 0; i < steps.size(); i++) {
      DraftedStep main = steps.get(i);
      boolean same =
          main.key().kind() == Kind.EQUAL
              && main.otherwise() == null
              && ours(main.key()).equals(ours(step.key()));
      if (same) {
        Map<String, String> common = new LinkedHashMap<>();
        step.bring()
            .forEach(
                (column, as) -> {
                  if (main.bring().containsKey(column)) {
                    common.put(column, main.bring().get(column));
                  }
                });
        if (!common.isEmpty()) {
          steps.set(
              i,
              main.otherwise(
                  new DraftedStep(
                      step.reference(),
                      step.key(),
                      step.steps(),
                      common,
                      null,
                      step.newestBy(),
                      step.doubts())));
          return;
        }
      }
    }
    steps.add(named(step));
  }

  /** The step, what it fetches called by names that no column has yet. */
  private DraftedStep named(DraftedStep step) {
    Map<String, String> bring = new LinkedHashMap<>();
    for (String column : step.bring().keySet()) {
      String name = as(step.reference(), column);
      names.add(name);
      bring.put(column, name);
    }
    return new DraftedStep(
        step.reference(), step.key(), step.steps(), bring, null, step.newestBy(), step.doubts());
  }

  private static List<String> ours(FoundKey key) {
    return key.equal().stream().map(Pair::ours).toList();
  }

  private DraftedStep step(String name, SampleTable reference, FoundKey key) {
    List<String> doubts = new ArrayList<>();
    String duplicates = newestBy(reference, key, doubts);
    Map<String, String> bring = new LinkedHashMap<>();
    if (key.kind() != Kind.CORRECTION) {
      List<String> taken = key.theirColumns();
      for (SampleColumn column : reference.columns()) {
        boolean decides = duplicates.equals(column.name());
        if (!taken.contains(column.name()) && !decides) {
          bring.put(column.name(), column.name());
        }
      }
    }
    return new DraftedStep(name, key, normalise(reference, key), bring, null, duplicates, doubts);
  }

  /** A name that no column has yet. */
  private String as(String reference, String column) {
    String own = Names.singular(reference.replaceAll("^.*[^\\p{L}\\p{N}]", ""));
    boolean apart = Names.isGeneral(column) || names.contains(column);
    String name = apart ? own + "_" + column : column;
    for (int more = 2; names.contains(name); more++) {
      name = own + "_" + column + "_" + more;
    }
    return name;
  }

  /** The column that says which of several rows of a key is the newest; empty where none does. */
  private static String newestBy(SampleTable reference, FoundKey key, List<String> doubts) {
    if (key.kind() != Kind.EQUAL) {
      return "";
    }
    List<SampleColumn> columns =
        key.equal().stream().map(pair -> reference.column(pair.theirs())).toList();
    Map<String, Integer> first = new HashMap<>();
    Set<String> several = new HashSet<>();
    Set<String> conflicting = new HashSet<>();
    for (int row = 0; row < reference.count(); row++) {
      String at = KeySearch.key(columns, row);
      Integer before = at == null ? null : first.putIfAbsent(at, row);
      if (at != null && before != null) {
        several.add(at);
        for (SampleColumn column : reference.columns()) {
          if (column.id(row) != column.id(before)) {
            conflicting.add(at);
          }
        }
      }
    }
    if (several.isEmpty()) {
      return "";
    }
    String told =
        Words.keys(several.size())
            + " of "
            + reference.name()
            + (several.size() == 1 ? " stands" : " stand")
            + " on several rows, "
            + (conflicting.isEmpty() ? "all alike" : conflicting.size() + " that differ");
    for (SampleColumn column : reference.columns()) {
      boolean changes =
          Names.has(
              column.name(),
              "updated",
              "changed",
              "modified",
              "valid",
              "since",
              "effective",
              "date",
              "revised");
      if (!conflicting.isEmpty() && column.kind() == SampleColumn.Kind.DATE && changes) {
        doubts.add(told + ": the newest by " + column.name() + " is taken. Is it the right one?");
        return column.name();
      }
    }
    doubts.add(
        told
            + (conflicting.isEmpty()
                ? "."
                : ": nothing is fetched where they disagree. Which one counts?"));
    return "";
  }

  /** Steps that win rows, as the audit of two keys finds them. */
  private List<String> normalise(SampleTable reference, FoundKey key) {
    if (key.equal().isEmpty()) {
      return List.of();
    }
    OverlapAudit.Report report =
        OverlapAudit.compare(
            rows,
            key.equal().stream().mapToInt(pair -> rows.schema().indexOf(pair.ours())).toArray(),
            reference,
            key.equal().stream()
                .mapToInt(pair -> reference.schema().indexOf(pair.theirs()))
                .toArray(),
            -1,
            List.of("trim"),
            0);
    long least = Math.max(1, Math.round(WINS * report.rows()));
    List<String> won = new ArrayList<>(List.of("trim"));
    for (String step : report.steps()) {
      boolean wins =
          report.best().stream().anyMatch(gain -> gain.step().equals(step) && gain.rows() >= least);
      if (wins) {
        won.add(step);
      }
    }
    return won.size() == 1 ? List.of() : won;
  }

  /** Adds what a lookup fetches to the rows, so that others may join it. */
  private void fetch(DraftedStep step, SampleTable reference) {
    if (step.key().kind() != Kind.EQUAL) {
      return;
    }
    List<SampleColumn> theirs =
        step.key().equal().stream().map(pair -> reference.column(pair.theirs())).toList();
    List<SampleColumn> mine =
        step.key().equal().stream().map(pair -> rows.column(pair.ours())).toList();
    List<NormaliseStep> by =
        Normalise.parse(step.steps().isEmpty() ? List.of("trim") : step.steps());
    List<List<String>> there = theirs.stream().map(column -> compared(column, by)).toList();
    List<List<String>> here = mine.stream().map(column -> compared(column, by)).toList();
    Map<String, Integer> place = new HashMap<>();
    for (int row = 0; row < reference.count(); row++) {
      String at = key(theirs, there, row);
      if (at != null) {
        place.putIfAbsent(at, row);
      }
    }
    step.bring()
        .forEach(
            (column, as) -> {
              SampleColumn from = reference.column(column);
              SampleColumn fetched = new SampleColumn(as);
              for (int row = 0; row < rows.count(); row++) {
                @Nullable String at = key(mine, here, row);
                Integer found = at == null ? null : place.get(at);
                fetched.add(found == null ? null : from.value(found));
              }
              rows.add(fetched);
            });
  }

  /** Each value as it is compared. */
  private static List<String> compared(SampleColumn column, List<NormaliseStep> steps) {
    List<String> compared = new ArrayList<>();
    for (int id = 0; id < column.distinct(); id++) {
      String text = column.valueOf(id);
      for (NormaliseStep step : steps) {
        text = step.apply(text);
      }
      compared.add(text);
    }
    return compared;
  }

  private static @Nullable String key(
      List<SampleColumn> columns, List<List<String>> compared, int row) {
    StringBuilder key = new StringBuilder();
    for (int part = 0; part < columns.size(); part++) {
      int id = columns.get(part).id(row);
      if (id == SampleColumn.NULL) {
        return null;
      }
      key.append(compared.get(part).get(id)).append('\n');
    }
    return key.toString();
  }
}
