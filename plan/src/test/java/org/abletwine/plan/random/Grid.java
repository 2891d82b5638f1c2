package org.abletwine.plan.random;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** A small table: names, cells, and one of the many ways in which these may be written down. */
final class Grid {
  final String name;
  final List<String> columns;

  /** The rule that its patterns are written for. */
  String kind = "";

  final List<@Nullable String[]> rows = new ArrayList<>();

  /** How each cell was written, quotes included. */
  final List<String[]> raw = new ArrayList<>();

  Grid(String name, String... columns) {
    this.name = name;
    this.columns = List.of(columns);
  }

  int column(String column) {
    return columns.indexOf(column);
  }

  @Nullable String get(int row, String column) {
    return rows.get(row)[column(column)];
  }

  void add(@Nullable String... cells) {
    rows.add(cells);
  }

  /** Writes the table, each cell as it comes: plain, or in quotes without need. */
  String write(Random random) {
    String end = random.nextInt(4) == 0 ? "\r\n" : "\n";
    StringBuilder text = new StringBuilder(String.join(",", columns)).append(end);
    boolean allQuoted = random.nextInt(6) == 0;
    for (@Nullable String[] row : rows) {
      String[] written = new String[row.length];
      for (int i = 0; i < row.length; i++) {
        written[i] = written(row[i], allQuoted || random.nextInt(9) == 0);
      }
      raw.add(written);
      text.append(String.join(",", written)).append(end);
    }
    if (random.nextInt(5) == 0 && !rows.isEmpty()) {
      text.setLength(text.length() - end.length()); // the last line end may be missing
    }
    return text.toString();
  }

  private static String written(@Nullable String cell, boolean quoted) {
    if (cell == null) {
      return "";
    }
    boolean needed = cell.isEmpty() || cell.chars().anyMatch(c -> ",\"\n\r".indexOf(c) >= 0);
    return quoted || needed ? '"' + cell.replace("\"", "\"\"") + '"' : cell;
  }

  /** Takes a written table apart: for each row its cells as they stand, quotes included. */
  static List<List<String>> parse(String text) {
    return parse(text, ',');
  }

  /** The cells of a written file as they stand in it, quotes included. */
  static List<List<String>> parse(String text, char delimiter) {
    List<List<String>> rows = new ArrayList<>();
    List<String> row = new ArrayList<>();
    StringBuilder cell = new StringBuilder();
    boolean quoted = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      quoted ^= c == '"';
      if (!quoted && (c == delimiter || c == '\n' || c == '\r')) {
        row.add(cell.toString());
        cell.setLength(0);
        if (c != delimiter) {
          rows.add(row);
          row = new ArrayList<>();
          i += c == '\r' ? 1 : 0;
        }
      } else {
        cell.append(c);
      }
    }
    return rows;
  }

  /** What a written cell holds: null when nothing is written. */
  static @Nullable String value(String raw) {
    if (raw.isEmpty()) {
      return null;
    }
    return raw.startsWith("\"") ? raw.substring(1, raw.length() - 1).replace("\"\"", "\"") : raw;
  }
}
