package org.abletwine.plan;

import java.nio.file.Path;
import org.abletwine.table.Destination;

/**
 * How paths are told in an account: from the plan's folder on, so that it reads the same wherever
 * the plan is run from.
 *
 * @param folder the plan's folder; empty for the working folder
 */
record PlanPaths(Path folder) {

  static PlanPaths of(Path plan) {
    Path parent = plan.getParent();
    return new PlanPaths(parent == null ? Path.of("") : parent);
  }

  /** A path, from the plan's folder on where it is in it. */
  String told(Path path) {
    boolean within = !folder.toString().isEmpty() && path.startsWith(folder);
    return (within ? folder.relativize(path) : path).toString();
  }

  /** A place, its file from the plan's folder on. */
  String told(Destination place) {
    Path file = place.file();
    String text = place.toString();
    return file == null || !text.startsWith(file.toString())
        ? text
        : told(file) + text.substring(file.toString().length());
  }
}
