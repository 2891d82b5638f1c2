package org.abletwine.plan.draft;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** How alike names of columns and tables are, by their words. Stateless. */
final class Names {
  /** Words that say only that a column is a key, or what else any column may be. */
  private static final List<String> GENERAL =
      List.of("code", "no", "nr", "num", "number", "id", "key", "ref", "mark", "name", "the", "of");

  private Names() {}

  /** Likeness from 0 to 1: the share of words in common, general ones not counted. */
  static double likeness(String one, String other) {
    if (one.equalsIgnoreCase(other)) {
      return 1;
    }
    Set<String> a = words(one);
    Set<String> b = words(other);
    Set<String> common = new LinkedHashSet<>(a);
    common.retainAll(b);
    return a.isEmpty() || b.isEmpty()
        ? 0
        : 0.9 * common.size() / Math.max(1, Math.min(a.size(), b.size()));
  }

  private static Set<String> words(String name) {
    Set<String> words = new LinkedHashSet<>();
    for (String word : split(name)) {
      if (!GENERAL.contains(word)) {
        words.add(singular(word));
      }
    }
    return words;
  }

  private static String[] split(String name) {
    return name.replaceAll("([a-z])([A-Z])", "$1 $2")
        .toLowerCase(Locale.ROOT)
        .split("[^\\p{L}\\p{N}]+");
  }

  /** Whether a name has one of some words. */
  static boolean has(String name, String... wanted) {
    for (String word : split(name)) {
      if (List.of(wanted).contains(word)) {
        return true;
      }
    }
    return false;
  }

  /** A word without the ending of many. */
  static String singular(String word) {
    if (word.endsWith("ies") && word.length() > 4) {
      return word.substring(0, word.length() - 3) + "y";
    }
    boolean many = word.endsWith("s") && !word.endsWith("ss") && word.length() > 3;
    return many ? word.substring(0, word.length() - 1) : word;
  }

  /** Whether a name says nothing without the table that it is of. */
  static boolean isGeneral(String name) {
    String lower = name.toLowerCase(Locale.ROOT);
    return List.of("name", "code", "id", "no", "number", "key", "status", "type", "class", "date")
        .contains(lower);
  }
}
