package org.abletwine.plan;

import java.util.List;

/** Small pieces of sentences. */
final class Wording {
  private Wording() {}

  /** Names one after the other: {@code a, b and c}. */
  static String list(List<String> names) {
    return names.size() < 2
        ? String.join("", names)
        : String.join(", ", names.subList(0, names.size() - 1))
            + " and "
            + names.get(names.size() - 1);
  }

  /** A sentence: its first letter large, a full stop at its end. */
  static String sentence(String text) {
    return text.isEmpty() ? "" : Character.toUpperCase(text.charAt(0)) + text.substring(1) + ".";
  }
}
