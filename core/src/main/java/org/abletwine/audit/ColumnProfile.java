package org.abletwine.audit;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a column holds.
 *
 * @param name the column
 * @param type whole number, code (digits, some with leading zeros), decimal, date, date and time,
 *     or text: what all values that are not null are; "empty" when there are none
 * @param spoiled what all values but a few are; null when there is no such type
 * @param written of a column of text how all its values are written as dates or numbers, as a plan
 *     states it, such as <code>{ date: dd.MM.yyyy }</code>; several when the values do not tell,
 *     none when they are neither
 * @param nulls null cells
 * @param distinct distinct values, null not counted
 * @param exact whether distinct is exact; else it is an estimate with a standard error of 1.6 %
 * @param shortest characters of the shortest value
 * @param longest characters of the longest value
 * @param least the least value, as numbers where all are, else by code point, which puts dates of
 *     ISO 8601 in order too; null where there is none
 * @param greatest the greatest, likewise
 * @param frequent the most frequent values of those that stand more than once; none of a column
 *     with more than 20,000 different ones
 * @param nullWords values that people write where there is none, such as {@code n/a}
 * @param examples the first values that differ
 * @param straySpaces values with a space at either end
 * @param caseForms values that equal another one but for case
 * @param zeroForms values that equal another one but for leading zeros
 * @param unique whether no value stands twice and none is null: it could be a key
 */
public record ColumnProfile(
    String name,
    String type,
    @Nullable Spoiled spoiled,
    List<String> written,
    long nulls,
    long distinct,
    boolean exact,
    int shortest,
    int longest,
    @Nullable String least,
    @Nullable String greatest,
    List<Value> frequent,
    List<Value> nullWords,
    List<String> examples,
    long straySpaces,
    long caseForms,
    long zeroForms,
    boolean unique) {

  /**
   * A type that a column would have but for some of its values.
   *
   * @param type the type
   * @param cells how many values are not of it, at most one in twenty
   * @param example the first of them
   * @param row its row, 1-based, header not counted
   */
  public record Spoiled(String type, long cells, String example, long row) {}

  /**
   * The type as a plan states it; null for text, codes and columns without values, and where the
   * values do not tell.
   *
   * @return the type; null when there is nothing to state
   */
  public @Nullable String stated() {
    return switch (type) {
      case "whole number" -> "integer";
      case "decimal" -> "decimal";
      case "date" -> "date";
      case "date and time" -> "date-time";
      default -> written.size() == 1 ? written.get(0) : null;
    };
  }

  /**
   * A value, and how often it stands.
   *
   * @param value the value as written
   * @param rows how often
   */
  public record Value(String value, long rows) {}

  /** Copies the lists. */
  public ColumnProfile {
    frequent = List.copyOf(frequent);
    nullWords = List.copyOf(nullWords);
    written = List.copyOf(written);
    examples = List.copyOf(examples);
  }
}
