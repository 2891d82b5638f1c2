package org.abletwine.plan.drift;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.text.diff.CommandVisitor;
import org.apache.commons.text.diff.StringsComparator;

/** The lines in which two plans differ. */
final class PlanChanges implements CommandVisitor<Character> {
  private static final int MOST_LINES = 4_000;

  private final List<String> lines;
  private final List<String> changed = new ArrayList<>();
  private final List<String> fresh = new ArrayList<>();

  private PlanChanges(List<String> lines) {
    this.lines = lines;
  }

  /**
   * The lines that are gone, each after a minus sign, and those that are new, after a plus sign, in
   * their order; spaces at their ends do not matter. Found by the shortest edit script (Myers
   * 1986), over one character for each different line.
   */
  static List<String> of(String before, String after) {
    List<String> old = before.lines().map(String::stripTrailing).toList();
    List<String> now = after.lines().map(String::stripTrailing).toList();
    if (old.size() + now.size() > MOST_LINES) {
      return List.of();
    }
    Map<String, Character> letters = new HashMap<>();
    List<String> lines = new ArrayList<>();
    String one = spelt(old, letters, lines);
    String other = spelt(now, letters, lines);
    PlanChanges changes = new PlanChanges(lines);
    new StringsComparator(one, other).getScript().visit(changes);
    changes.end();
    return changes.changed;
  }

  private static String spelt(
      List<String> text, Map<String, Character> letters, List<String> lines) {
    StringBuilder spelt = new StringBuilder();
    for (String line : text) {
      Character letter = letters.get(line);
      if (letter == null) {
        letter = (char) lines.size();
        letters.put(line, letter);
        lines.add(line);
      }
      spelt.append(letter);
    }
    return spelt.toString();
  }

  @Override
  public void visitDeleteCommand(Character line) {
    note("- ", line, changed);
  }

  @Override
  public void visitInsertCommand(Character line) {
    note("+ ", line, fresh);
  }

  @Override
  public void visitKeepCommand(Character line) {
    end();
  }

  /** Ends a part that is not as it was: the new lines stand after those they take the place of. */
  private void end() {
    changed.addAll(fresh);
    fresh.clear();
  }

  private void note(String sign, char line, List<String> to) {
    if (!lines.get(line).isBlank()) {
      to.add(sign + lines.get(line));
    }
  }
}
