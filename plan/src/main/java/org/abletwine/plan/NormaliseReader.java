package org.abletwine.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/** Reads normalise steps: names, and names with an argument. */
final class NormaliseReader {
  private NormaliseReader() {}

  static List<NormaliseStep> read(PlanNode node) {
    List<NormaliseStep> steps = new ArrayList<>();
    List<PlanNode> items = node.items();
    for (PlanNode item : items) {
      try {
        if (item.isMapping()) {
          int before = steps.size();
          item.anyEntries().forEach((name, argument) -> steps.add(step(name, argument)));
          if (steps.size() == before) {
            item.wrong("state a step, such as trim or { pad-zeros: 6 }");
          }
        } else {
          String name = item.text();
          if (name != null && !(name.equals("none") && items.size() == 1)) {
            steps.add(Normalise.named(name));
          }
        }
      } catch (SettingException e) {
        item.wrong(String.valueOf(e.getMessage()));
      }
    }
    return steps;
  }

  private static NormaliseStep step(String name, PlanNode argument) {
    if (name.equals("replace") && argument.isMapping()) {
      Map<String, PlanNode> parts = argument.entries(PlanReader.ordered("pattern", "with"));
      @Nullable String pattern = text(parts.get("pattern"));
      @Nullable String with = text(parts.get("with"));
      if (pattern == null || with == null) {
        throw new SettingException("replace: state { pattern: P, with: R }");
      }
      return Normalise.replace(pattern, with);
    }
    if (name.equals("as-date")) {
      return Normalise.asDate(argument.texts());
    }
    String text = argument.text();
    return Normalise.named(name, text == null ? "" : text);
  }

  private static @Nullable String text(@Nullable PlanNode node) {
    return node == null ? null : node.text();
  }
}
