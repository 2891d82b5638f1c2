package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;

/** How wide lines may be, and what is too long broken. Stateless. */
final class Screen {
  private static final int USUAL = 100;
  private static final int LEAST = 40;

  private Screen() {}

  /** Columns of the terminal: as the launcher says, or COLUMNS; a hundred when nobody does. */
  static int width() {
    for (String told :
        new String[] {System.getProperty("abletwine.columns"), System.getenv("COLUMNS")}) {
      if (told != null && told.matches("[1-9][0-9]{0,3}")) {
        return Math.max(LEAST, Integer.parseInt(told));
      }
    }
    return USUAL;
  }

  /** How many columns a text takes. */
  static int width(String text) {
    return text.codePointCount(0, text.length());
  }

  /**
   * Breaks a text between words into lines.
   *
   * @param width of each line, at least 1; a longer word is broken
   */
  static List<String> wrapped(String text, int width) {
    List<String> lines = new ArrayList<>();
    StringBuilder line = new StringBuilder();
    int used = 0;
    for (String word : text.split(" ", -1)) {
      String left = word;
      int length = width(Ink.plain(left));
      if (used > 0 && used + 1 + length > width) {
        lines.add(line.toString().stripTrailing());
        line.setLength(0);
        used = 0;
      }
      while (length > width && left.length() == length) {
        lines.add(left.substring(0, width));
        left = left.substring(width);
        length = left.length();
      }
      line.append(used > 0 || line.length() > 0 ? " " : "").append(left);
      used += (used > 0 ? 1 : 0) + length;
    }
    lines.add(line.toString().stripTrailing());
    return lines;
  }

  /** Breaks a line, the rest indented by more than its beginning. */
  static List<String> line(String text) {
    int indent = text.length() - text.stripLeading().length();
    int width = width() - indent - 4;
    List<String> lines = new ArrayList<>();
    if (width(Ink.plain(text)) <= width()) {
      lines.add(text);
      return lines;
    }
    List<String> parts = wrapped(text.strip(), width);
    for (int i = 0; i < parts.size(); i++) {
      lines.add(" ".repeat(i == 0 ? indent : indent + 4) + parts.get(i));
    }
    return lines;
  }

  /** A text of at most so many columns, its end left out. */
  static String shortened(String text, int width) {
    return width(text) <= width
        ? text
        : text.substring(0, text.offsetByCodePoints(0, width - 1)).stripTrailing() + "\u2026";
  }
}
