package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;

/** Splits lists of names at commas, but not at commas within quotes or brackets. */
final class NameLists {
  private NameLists() {}

  static List<String> split(String list) {
    List<String> parts = new ArrayList<>();
    char quote = 0;
    int depth = 0;
    int from = 0;
    for (int i = 0; i < list.length(); i++) {
      char c = list.charAt(i);
      if (quote != 0) {
        quote = c == quote ? 0 : quote;
      } else if (c == '"' || c == '\'' && depth > 0) {
        quote = c;
      } else if (c == '(' || c == ')') {
        depth += c == '(' ? 1 : -1;
      } else if (c == ',' && depth <= 0) {
        parts.add(list.substring(from, i).strip());
        from = i + 1;
      }
    }
    parts.add(list.substring(from).strip());
    return parts;
  }
}
