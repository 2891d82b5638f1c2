package org.abletwine.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.abletwine.table.SettingException;
import org.snakeyaml.engine.v2.exceptions.Mark;

/** Collects what is wrong with a plan, so that all of it can be told at once. */
final class Mistakes {
  private record Mistake(int line, int column, String text) {}

  private final String file;
  private final List<Mistake> found = new ArrayList<>();

  Mistakes(String file) {
    this.file = file;
  }

  void add(Optional<Mark> mark, String text) {
    int line = mark.map(m -> m.getLine() + 1).orElse(0);
    int column = mark.map(m -> m.getColumn() + 1).orElse(0);
    found.add(new Mistake(line, column, text));
  }

  boolean none() {
    return found.isEmpty();
  }

  /** The mistakes, top to bottom, each with its place. */
  List<String> list() {
    return found.stream()
        .sorted(java.util.Comparator.comparingInt(Mistake::line).thenComparingInt(Mistake::column))
        .map(
            m ->
                m.line() == 0
                    ? file + ": " + m.text()
                    : file + " line " + m.line() + ", column " + m.column() + ": " + m.text())
        .distinct()
        .toList();
  }

  /** Throws when anything was found. */
  void throwIfAny() {
    if (!found.isEmpty()) {
      throw new SettingException(String.join("\n", list()));
    }
  }
}
