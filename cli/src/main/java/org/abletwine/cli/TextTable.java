package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;

/** Lines of cells, each column as wide as its widest cell. */
final class TextTable {
  private record Cell(String text, Ink ink) {}

  private final String alignments;
  private final List<List<Cell>> lines = new ArrayList<>();
  private List<Cell> line = new ArrayList<>();

  /**
   * @param alignments a letter a column: l for left, r for right
   */
  TextTable(String alignments) {
    this.alignments = alignments;
  }

  TextTable cell(String text) {
    return cell(text, Ink.PLAIN);
  }

  TextTable cell(String text, Ink ink) {
    line.add(new Cell(Streams.shown(text), ink));
    return this;
  }

  TextTable end() {
    lines.add(line);
    line = new ArrayList<>();
    return this;
  }

  /** The lines, indented by two, without spaces at their ends. */
  List<String> render(boolean colour) {
    int[] widths = new int[alignments.length()];
    for (List<Cell> cells : lines) {
      for (int i = 0; i < cells.size(); i++) {
        widths[i] = Math.max(widths[i], width(cells.get(i).text()));
      }
    }
    List<String> rendered = new ArrayList<>();
    for (List<Cell> cells : lines) {
      StringBuilder out = new StringBuilder("  ");
      for (int i = 0; i < cells.size(); i++) {
        Cell cell = cells.get(i);
        String gap = " ".repeat(widths[i] - width(cell.text()));
        boolean right = alignments.charAt(i) == 'r';
        boolean last = i == cells.size() - 1;
        out.append(right ? gap : "").append(cell.ink().on(cell.text(), colour));
        out.append(right || last ? "" : gap).append(last ? "" : "  ");
      }
      rendered.add(out.toString().stripTrailing());
    }
    return rendered;
  }

  private static int width(String text) {
    return text.codePointCount(0, text.length());
  }
}
