package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Outcome;
import org.abletwine.table.Destination;
import org.jspecify.annotations.Nullable;

/** What a run writes beside the enriched rows: told to a person, and accounted for. */
final class WrittenOutputs {
  private final PlanPaths paths;
  private final List<String> told = new ArrayList<>();
  private final List<Noted> noted = new ArrayList<>();

  /** Something written, not yet measured. */
  private record Noted(String what, String place, @Nullable Path file, long rows) {}

  WrittenOutputs(PlanPaths paths) {
    this.paths = paths;
  }

  /**
   * Notes a table that was written.
   *
   * @param what what is in it
   * @param place where it is
   * @param rows its rows
   * @param words what is in it, told to a person; null for not at all
   */
  void add(String what, Destination place, long rows, @Nullable String words) {
    noted.add(new Noted(what, paths.told(place), place.file(), rows));
    if (words != null) {
      told.add(place + "  (" + words + ")");
    }
  }

  /** Notes a file that was written, as {@link #add(String, Destination, long, String)}. */
  void add(String what, Path file, long rows, String words) {
    noted.add(new Noted(what, paths.told(file), file, rows));
    told.add(file + "  (" + words + ")");
  }

  /** Tells a person of a file that the account does not name, since it is in it. */
  void tell(Path file, String words) {
    told.add(file + "  (" + words + ")");
  }

  /** Notes the rollups that are written. */
  void rollups(RunRecord figures, Plan.Outputs outputs) {
    Map<String, Destination> places = new LinkedHashMap<>();
    outputs
        .rollups()
        .forEach(
            rollup -> {
              if (rollup.file() != null) {
                places.put(rollup.file().toString(), rollup.file());
              }
            });
    for (StepFigures.RolledUp rollup : figures.of(StepFigures.RolledUp.class)) {
      Destination place = places.get(rollup.file());
      if (place != null) {
        boolean total = !rollup.grandTotal().isEmpty() && !rollup.by().isEmpty();
        add("rollup", place, rollup.groups().size() + (total ? 1 : 0), told(rollup));
      }
    }
  }

  private static String told(StepFigures.RolledUp rollup) {
    if (rollup.by().isEmpty()) {
      return "totals of all rows";
    }
    long groups = rollup.groups().size();
    return "totals by "
        + String.join(", ", rollup.by())
        + ", "
        + groups
        + (groups == rollup.allGroups() ? "" : " of " + rollup.allGroups())
        + " groups";
  }

  /** Notes the rows that lookups and filters set apart. */
  void apart(RunRecord figures, Map<String, Lookup> lookups, List<Plan.StepSpec> steps) {
    for (LookupFigures lookup : figures.lookups()) {
      Map<Destination, List<Outcome>> outcomes = new LinkedHashMap<>();
      Lookup step = lookups.get(lookup.name());
      if (step != null) {
        step.treatments()
            .forEach(
                (outcome, treatment) -> {
                  if (treatment.apart() != null) {
                    outcomes
                        .computeIfAbsent(treatment.apart(), place -> new ArrayList<>())
                        .add(outcome);
                  }
                });
      }
      outcomes.forEach(
          (place, of) ->
              add(
                  "set apart",
                  place,
                  of.stream().mapToLong(outcome -> rows(lookup, outcome)).sum(),
                  "the rows of lookup "
                      + lookup.name()
                      + " that are "
                      + String.join(" or ", of.stream().map(Outcome::label).toList())));
    }
    for (StepFigures.Kept keep : figures.of(StepFigures.Kept.class)) {
      for (Plan.StepSpec step : steps) {
        Destination place = step instanceof Plan.KeepSpec spec ? spec.leftOut() : null;
        if (place != null && place.toString().equals(keep.file())) {
          add("left out", place, keep.leftOut(), keep.leftOut() + " rows left out by keep");
          break;
        }
      }
    }
  }

  private static long rows(LookupFigures lookup, Outcome outcome) {
    return switch (outcome) {
      case MATCHED -> lookup.matched();
      case UNMATCHED -> lookup.unmatched();
      case AMBIGUOUS -> lookup.ambiguous();
      case BLANK_KEY -> lookup.blankKey();
      case NOT_ASKED -> lookup.notAsked();
    };
  }

  /** {@return what to tell a person, a line each} */
  List<String> told() {
    return List.copyOf(told);
  }

  /**
   * What was written, with the checksums of the files.
   *
   * @param beside for each target the file that will be there
   */
  List<RunAccount.Written> account(Map<Path, Path> beside) {
    Map<Path, FileFacts> facts = new java.util.concurrent.ConcurrentHashMap<>();
    noted.stream()
        .map(Noted::file)
        .filter(file -> file != null && beside.containsKey(absolute(file)))
        .distinct()
        .parallel()
        .forEach(
            file -> {
              Path at = beside.get(absolute(file));
              if (at != null) {
                facts.put(file, FileFacts.of(paths.told(file), at));
              }
            });
    return noted.stream()
        .map(
            one ->
                new RunAccount.Written(
                    one.what(),
                    one.place(),
                    one.rows(),
                    one.file() == null ? null : facts.get(one.file())))
        .toList();
  }

  private static Path absolute(Path file) {
    return file.toAbsolutePath().normalize();
  }
}
