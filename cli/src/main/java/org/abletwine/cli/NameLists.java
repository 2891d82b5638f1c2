package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;

/** Splits lists of names at commas, but not at commas within double quotes. */
final class NameLists {
  private NameLists() {}

  static List<String> split(String list) {
    List<String> parts = new ArrayList<>();
    boolean quoted = false;
    int from = 0;
    for (int i = 0; i < list.length(); i++) {
      char c = list.charAt(i);
      if (c == '"') {
        quoted = !quoted;
      } else if (c == ',' && !quoted) {
        parts.add(list.substring(from, i).strip());
        from = i + 1;
      }
    }
    parts.add(list.substring(from).strip());
    return parts;
  }
}
