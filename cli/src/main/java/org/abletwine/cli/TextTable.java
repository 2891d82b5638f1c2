package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.plan.tell.Words;

/** Lines of cells, each column as wide as its widest cell, as far as the screen is wide enough. */
final class TextTable {
  private static final int INDENT = 2;
  private static final int GAP = 2;

  /** Columns of texts are not made narrower. */
  private static final int NARROWEST = 10;

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
    line.add(new Cell(Words.shown(text), ink));
    return this;
  }

  TextTable end() {
    lines.add(line);
    line = new ArrayList<>();
    return this;
  }

  /**
   * The lines, indented by two, without spaces at their ends and no wider than the screen: the last
   * column is broken into lines of its own, if it is one of texts, then the widest texts are
   * shortened.
   */
  List<String> render(boolean colour) {
    int[] widths = new int[alignments.length()];
    for (List<Cell> cells : lines) {
      for (int i = 0; i < cells.size(); i++) {
        widths[i] = Math.max(widths[i], Screen.width(cells.get(i).text()));
      }
    }
    fit(widths);
    List<String> rendered = new ArrayList<>();
    for (List<Cell> cells : lines) {
      render(cells, widths, colour, rendered);
    }
    return rendered;
  }

  /** Takes columns of texts back until all fit, the widest first. */
  private void fit(int[] widths) {
    int most = Screen.width() - INDENT;
    int all = GAP * (widths.length - 1);
    for (int width : widths) {
      all += width;
    }
    while (all > most) {
      int widest = -1;
      for (int i = 0; i < widths.length; i++) {
        boolean text = alignments.charAt(i) == 'l' && widths[i] > NARROWEST;
        widest = text && (widest < 0 || widths[i] > widths[widest]) ? i : widest;
      }
      if (widest < 0) {
        return; // numbers are never shortened
      }
      widths[widest]--;
      all--;
    }
  }

  private void render(List<Cell> cells, int[] widths, boolean colour, List<String> rendered) {
    StringBuilder out = new StringBuilder(" ".repeat(INDENT));
    List<String> more = List.of();
    int before = INDENT;
    for (int i = 0; i < cells.size(); i++) {
      Cell cell = cells.get(i);
      boolean right = alignments.charAt(i) == 'r';
      boolean last = i == cells.size() - 1;
      String text = cell.text();
      if (!right && last) {
        List<String> parts = Screen.wrapped(text, Math.max(1, widths[i]));
        text = parts.get(0);
        more = parts.subList(1, parts.size());
      } else if (!right) {
        text = Screen.shortened(text, widths[i]);
      }
      String gap = " ".repeat(Math.max(0, widths[i] - Screen.width(text)));
      out.append(right ? gap : "").append(cell.ink().on(text, colour));
      out.append(right || last ? "" : gap).append(last ? "" : " ".repeat(GAP));
      before += last ? 0 : widths[i] + GAP;
    }
    rendered.add(out.toString().stripTrailing());
    for (String part : more) {
      Ink ink = cells.get(cells.size() - 1).ink();
      rendered.add(" ".repeat(before) + ink.on(part, colour));
    }
  }
}
