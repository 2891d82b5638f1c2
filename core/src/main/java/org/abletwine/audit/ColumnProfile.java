package org.abletwine.audit;

import java.util.List;

/**
 * What a column holds.
 *
 * @param name the column
 * @param type whole number, code (digits, some with leading zeros), decimal, date or text: what all
 *     values that are not null are; "empty" when there are none
 * @param nulls null cells
 * @param distinct distinct values, null not counted
 * @param exact whether distinct is exact; else it is an estimate with a standard error of 1.6 %
 * @param shortest characters of the shortest value
 * @param longest characters of the longest value
 * @param examples the first values that differ
 * @param straySpaces values with a space at either end
 * @param caseForms values that equal another one but for case
 * @param zeroForms values that equal another one but for leading zeros
 * @param unique whether no value stands twice and none is null: it could be a key
 */
public record ColumnProfile(
    String name,
    String type,
    long nulls,
    long distinct,
    boolean exact,
    int shortest,
    int longest,
    List<String> examples,
    long straySpaces,
    long caseForms,
    long zeroForms,
    boolean unique) {

  /** Copies the list. */
  public ColumnProfile {
    examples = List.copyOf(examples);
  }
}
