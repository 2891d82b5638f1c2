package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.SettingException;

/** Collects what is wrong with settings, so that all of it can be told at once. */
final class Problems {
  private final List<String> found = new ArrayList<>();

  /** Makes one check of several; what it finds is kept for the end. */
  void look(Runnable check) {
    try {
      check.run();
    } catch (SettingException e) {
      found.add(String.valueOf(e.getMessage()));
    }
  }

  /** Throws when anything was found: a line for each. */
  void throwIfAny() {
    if (!found.isEmpty()) {
      throw new SettingException(String.join("\n", found.stream().distinct().toList()));
    }
  }
}
