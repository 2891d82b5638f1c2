package org.abletwine.report;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.plan.tell.Words;

/** A part of a section. */
public sealed interface Block {

  /**
   * A paragraph.
   *
   * @param text what it says
   * @param tone {@code good}, {@code bad} or nothing
   */
  record Paragraph(String text, String tone) implements Block {}

  /**
   * A heading within a section.
   *
   * @param text what it says
   */
  record Heading(String text) implements Block {}

  /**
   * A list of sentences.
   *
   * @param items the sentences
   */
  record Items(List<String> items) implements Block {}

  /**
   * A table.
   *
   * @param id its name within the page
   * @param caption what it shows
   * @param columns its columns
   * @param rows its rows, as many cells each
   * @param foot the last row, which stays the last; empty for none
   * @param sorts whether a reader may sort and filter it
   */
  record Table(
      String id,
      String caption,
      List<Column> columns,
      List<List<Cell>> rows,
      List<Cell> foot,
      boolean sorts)
      implements Block {}

  /**
   * A column.
   *
   * @param name its heading
   * @param number whether numbers stand in it
   */
  record Column(String name, boolean number) {}

  /**
   * Bars that show parts of a whole, one below the other.
   *
   * @param caption what they show
   * @param bars the bars
   */
  record Bars(String caption, List<Bar> bars) implements Block {}

  /**
   * A bar.
   *
   * @param name what it is of
   * @param told the parts in words
   * @param parts its parts
   */
  record Bar(String name, String told, List<Part> parts) {}

  /**
   * A part of a bar.
   *
   * @param kind what it shows, which is its colour
   * @param percent its share of the bar
   */
  record Part(String kind, String percent) {}

  /**
   * A picture, in two forms.
   *
   * @param light for a light page, as an address that holds it
   * @param dark for a dark one
   * @param told what it shows, in words
   * @param width its width in pixels
   * @param height its height in pixels
   */
  record Picture(String light, String dark, String told, int width, int height) implements Block {}

  /**
   * Text as it was written.
   *
   * @param name what it is
   * @param text the text
   */
  record Written(String name, String text) implements Block {}

  /**
   * Lines for a reader to accept or not.
   *
   * @param header the columns of the file
   * @param lines its lines
   * @param file the name that the file is saved under
   */
  record Proposals(List<String> header, List<Line> lines, String file) implements Block {}

  /**
   * A line to accept.
   *
   * @param cells what is shown
   * @param json all of its cells as they are, as a list in JSON
   * @param accepted what was decided: empty, {@code yes} or {@code no}
   * @param meant what it would be replaced by
   */
  record Line(List<Cell> cells, String json, String accepted, String meant) {}

  /** Collects the rows of a table. */
  final class TableOf {
    private final String id;
    private final String caption;
    private final List<Column> columns = new ArrayList<>();
    private final List<List<Cell>> rows = new ArrayList<>();
    private List<Cell> foot = List.of();
    private boolean sorts;

    TableOf(String id, String caption) {
      this.id = id;
      this.caption = Words.shown(caption);
    }

    TableOf texts(String... names) {
      for (String name : names) {
        columns.add(new Column(Words.shown(name), false));
      }
      return this;
    }

    TableOf numbers(String... names) {
      for (String name : names) {
        columns.add(new Column(Words.shown(name), true));
      }
      return this;
    }

    TableOf row(Cell... cells) {
      return row(List.of(cells));
    }

    TableOf row(List<Cell> cells) {
      if (cells.size() != columns.size()) {
        throw new IllegalArgumentException(
            id + " has " + columns.size() + " columns, not " + cells.size());
      }
      rows.add(List.copyOf(cells));
      return this;
    }

    TableOf foot(List<Cell> cells) {
      foot = List.copyOf(cells);
      return this;
    }

    TableOf sorts() {
      sorts = true;
      return this;
    }

    boolean isEmpty() {
      return rows.isEmpty();
    }

    Table table() {
      return new Table(id, caption, List.copyOf(columns), List.copyOf(rows), foot, sorts);
    }
  }
}
