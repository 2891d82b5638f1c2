package org.abletwine.audit;

import java.util.List;

/**
 * Where a key stands on more than one row.
 *
 * @param rows rows of the table
 * @param blankRows rows with a null or blank key part, which no key can find
 * @param keys distinct keys, as compared
 * @param duplicateKeys keys on more than one row
 * @param duplicateRows rows that have one of these keys
 * @param identicalKeys of the duplicate keys, those whose rows are alike in every column
 * @param collisions of the duplicate keys, those written differently that normalising made equal
 * @param examples the duplicate keys in file order, as many as asked for
 * @param uniqueWith the smallest sets of further columns that would make the key unique
 * @param setsTried how many sets of columns were tried
 * @param searchBounded whether the search stopped at its bound before all sets were tried
 * @param bytesPerKey memory of the index, in bytes per distinct key
 */
public record DuplicateReport(
    long rows,
    long blankRows,
    long keys,
    long duplicateKeys,
    long duplicateRows,
    long identicalKeys,
    long collisions,
    List<DuplicateKey> examples,
    List<List<String>> uniqueWith,
    int setsTried,
    boolean searchBounded,
    double bytesPerKey) {

  /** Copies the lists. */
  public DuplicateReport {
    examples = List.copyOf(examples);
    uniqueWith = List.copyOf(uniqueWith);
  }

  /**
   * A key on more than one row.
   *
   * @param key the key as its first row writes it
   * @param rows its rows, 1-based
   * @param conflicts the columns in which they differ, with the values; empty when they are alike
   */
  public record DuplicateKey(String key, List<Integer> rows, List<Conflict> conflicts) {
    /** Copies the lists. */
    public DuplicateKey {
      rows = List.copyOf(rows);
      conflicts = List.copyOf(conflicts);
    }
  }

  /**
   * A column in which rows of one key differ.
   *
   * @param column the column
   * @param values its distinct values in row order, "null" for null
   */
  public record Conflict(String column, List<String> values) {
    /** Copies the list. */
    public Conflict {
      values = List.copyOf(values);
    }
  }
}
