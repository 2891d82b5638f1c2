package org.abletwine.report;

import java.math.BigDecimal;
import org.abletwine.plan.tell.Words;

/**
 * One cell of a table.
 *
 * @param text what stands in it
 * @param kind how it looks: {@code text}, {@code name}, {@code number}, or one of these after
 *     {@code good}, {@code bad}, {@code warn} or {@code dim}
 * @param sort what it is sorted by: a plain number; empty for its text
 */
public record Cell(String text, String kind, String sort) {

  static Cell text(String text) {
    return new Cell(Words.shown(text), "text", "");
  }

  static Cell name(String text) {
    return new Cell(Words.shown(text), "name", "");
  }

  static Cell number(long number) {
    return new Cell(Words.count(number), number == 0 ? "dim number" : "number", "" + number);
  }

  static Cell number(BigDecimal number) {
    return new Cell(
        Words.number(number),
        number.signum() == 0 ? "dim number" : "number",
        number.toPlainString());
  }

  /** A share in per cent. */
  static Cell share(long part, long whole) {
    String sort = whole == 0 ? "-1" : "" + 100.0 * part / whole;
    return new Cell(Words.percent(part, whole), part == 0 ? "dim number" : "number", sort);
  }

  /** The same in another colour, unless it is dimmed. */
  Cell as(String tone) {
    return kind.startsWith("dim") ? this : new Cell(text, tone + " " + kind, sort);
  }

  static final Cell NONE = text("");
}
