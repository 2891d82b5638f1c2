package org.abletwine.plan;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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

  private static boolean same(Path one, Path other) {
    if (one.toAbsolutePath().normalize().equals(other.toAbsolutePath().normalize())) {
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
    Plan.Outputs outputs = plan.outputs();
    all.add(outputs.enriched());
    all.add(outputs.exceptions());
    all.add(outputs.corrections());
    all.add(outputs.record());
    outputs.rollups().forEach(rollup -> all.add(rollup.file()));
    for (Plan.StepSpec step : plan.steps()) {
      if (step instanceof Plan.KeepSpec keep) {
        all.add(keep.leftOut());
      }
    }
    all.removeIf(java.util.Objects::isNull);
    return all;
  }
}
