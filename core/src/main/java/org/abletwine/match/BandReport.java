package org.abletwine.match;

import java.util.List;
import java.util.Objects;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.index.Bands;
import org.abletwine.table.Table;

/**
 * How the bands of a table lie.
 *
 * @param rows rows
 * @param partitions sets of rows with the same equal key parts
 * @param blankRows rows that no key can find: an equal part is blank, or the only end is
 * @param findings what is wrong or worth knowing, by partition and then from low to high
 */
public record BandReport(long rows, int partitions, long blankRows, List<Finding> findings) {

  /**
   * Looks at the bands of a table. Bands are taken with their lower end in and their upper end out,
   * so that one may begin where another ends. Holds the bands in memory.
   *
   * @param table the table
   * @param keyColumns numbers of columns that must be equal for bands to belong together; may be
   *     none
   * @param ends the column of the lower ends, and that of the upper ends if there is one
   * @param normalise steps applied to key parts and ends
   * @return what was found
   * @throws org.abletwine.table.DataException when the table cannot be read or an end cannot be
   *     ordered
   */
  public static BandReport of(
      Table table, int[] keyColumns, int[] ends, List<NormaliseStep> normalise) {
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(keyColumns, "keyColumns");
    Objects.requireNonNull(ends, "ends");
    Objects.requireNonNull(normalise, "normalise");
    return Bands.of(table, keyColumns, ends, normalise);
  }

  /** Kinds of findings. */
  public enum Kind {
    /** Two bands share values: a value there fits both. */
    OVERLAP,
    /** Values between two bands fit neither. */
    GAP,
    /** The lower end is above the upper end. */
    REVERSED,
    /** Two rows start at the same value. */
    SAME_START,
    /** Nothing below the first band, or above the last, is left out: its end is null. */
    OPEN
  }

  /**
   * Something found.
   *
   * @param kind what it is
   * @param partition the equal key parts, parted by a vertical bar; empty when there are none
   * @param from where it begins, as text; empty for an open lower end
   * @param to where it ends; empty for an open upper end
   * @param rows the rows concerned, 1-based
   */
  public record Finding(Kind kind, String partition, String from, String to, List<Long> rows) {
    /** Copies the list. */
    public Finding {
      rows = List.copyOf(rows);
    }
  }

  /** Copies the list. */
  public BandReport {
    findings = List.copyOf(findings);
  }

  /**
   * {@return how many findings of a kind there are}
   *
   * @param kind the kind
   */
  public long count(Kind kind) {
    Objects.requireNonNull(kind, "kind");
    return findings.stream().filter(finding -> finding.kind() == kind).count();
  }
}
