package org.abletwine.plan;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.abletwine.lookup.Treatment;
import org.abletwine.table.Destination;
import org.jspecify.annotations.Nullable;

/** Keeps outputs off the inputs and off each other. */
public final class OutputPaths {
  private OutputPaths() {}

  /**
   * What is wrong with an output path.
   *
   * @param output the path; {@code -} is standard output
   * @param inputs files that are read
   * @param outputs other files that are written
   * @return a message, or null when nothing is wrong
   */
  public static @Nullable String problem(Path output, List<Path> inputs, List<Path> outputs) {
    if (output.toString().equals("-")) {
      return null;
    }
    for (Path input : inputs) {
      if (same(output, input)) {
        return output + " is also an input; source tables are never changed, so write elsewhere";
      }
    }
    for (Path other : outputs) {
      if (same(output, other)) {
        return output + " is written twice; give each output its own file";
      }
    }
    return null;
  }

  /** Whether a path is one that can be read only once: standard input, or a pipe. */
  static boolean readOnce(Path path) {
    return path.toString().equals("-")
        || Files.exists(path) && !Files.isRegularFile(path) && !Files.isDirectory(path);
  }

  /** Where a path leads, links of folders followed as far as there are any. */
  private static Path real(Path path) {
    Path absolute = path.toAbsolutePath().normalize();
    for (Path known = absolute; known != null; known = known.getParent()) {
      try {
        return known.toRealPath().resolve(known.relativize(absolute)).normalize();
      } catch (IOException e) {
        continue; // not there yet: the folder it will be in may be
      }
    }
    return absolute;
  }

  private static boolean same(Path one, Path other) {
    if (real(one).equals(real(other))) {
      return true;
    }
    try {
      return Files.exists(one) && Files.exists(other) && Files.isSameFile(one, other);
    } catch (IOException e) {
      return false; // opening them says what is wrong
    }
  }

  /** Every file a plan writes. */
  static List<Path> of(Plan plan) {
    List<Path> all = new ArrayList<>();
    places(plan).forEach(place -> all.add(place.file()));
    all.add(plan.outputs().corrections());
    all.add(plan.outputs().report());
    all.add(plan.outputs().record());
    all.removeIf(Objects::isNull);
    return all;
  }

  /** Every place that a plan writes a table to. */
  static List<Destination> places(Plan plan) {
    List<Destination> all = new ArrayList<>();
    all.add(plan.outputs().enriched());
    Plan.ExceptionSpec exceptions = plan.outputs().exceptions();
    all.add(exceptions == null ? null : exceptions.place());
    plan.outputs().rollups().forEach(rollup -> all.add(rollup.file()));
    for (Plan.StepSpec step : plan.steps()) {
      if (step instanceof Plan.KeepSpec keep) {
        all.add(keep.leftOut());
      }
      if (step instanceof Plan.LookupSpec lookup) {
        all.addAll(lookup.treatments().values().stream().map(Treatment::apart).distinct().toList());
      }
    }
    all.removeIf(Objects::isNull);
    return all;
  }
}
