package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Watches for attributes that have one value on every matched row, as they do when the key is
 * wrong. An attribute is looked at until it has had a second value.
 */
final class ConstantWatch {
  private static final int MATCHED = Outcome.MATCHED.ordinal();

  private final Lookup lookup;
  private final LoadedReference reference;
  private final boolean[] constant;
  private final @Nullable String[] values;

  ConstantWatch(Lookup lookup, LoadedReference reference) {
    this.lookup = lookup;
    this.reference = reference;
    constant = new boolean[lookup.bring.size()];
    Arrays.fill(constant, true);
    values = new @Nullable String[constant.length];
  }

  void look(CellVector[] columns, byte[] outcomes, int count) {
    for (int a = 0; a < columns.length; a++) {
      for (int row = 0; row < count && constant[a]; row++) {
        if (outcomes[row] == MATCHED) {
          String value = columns[a].get(row);
          constant[a] = value != null && (values[a] == null || value.equals(values[a]));
          values[a] = value;
        }
      }
    }
  }

  /** Adds what another worker has seen. */
  void merge(ConstantWatch other) {
    for (int a = 0; a < constant.length; a++) {
      boolean nothingElse =
          values[a] == null || other.values[a] == null || values[a].equals(other.values[a]);
      constant[a] &= other.constant[a] && nothingElse;
      values[a] = values[a] == null ? other.values[a] : values[a];
    }
  }

  /** Carries what was seen, or takes what another process has seen in place of nothing. */
  void carry(Carrier carrier) {
    for (int a = 0; a < constant.length; a++) {
      constant[a] = carrier.flag(constant[a]);
      values[a] = carrier.text(values[a]);
    }
  }

  /**
   * @param matchedRows rows that matched
   * @param read rows of the reference
   * @param large the reference, when it is on disk; null for one in memory
   * @return the attributes with one value, as {@code name = value}
   */
  List<String> found(long matchedRows, long read, @Nullable LargeReference large) {
    List<String> found = new ArrayList<>();
    for (int a = 0; a < constant.length && matchedRows > 1 && read > 1; a++) {
      String value = values[a];
      if (constant[a] && value != null) {
        found.add(
            lookup.bring.get(a).as()
                + " = "
                + Veil.over(lookup.hides(lookup.bring.get(a)), value)
                + (ofAllRows(lookup.bring.get(a), large, value)
                    ? " (what all rows together come to)"
                    : ""));
      }
    }
    return found;
  }

  /** Whether an aggregate over the whole reference comes to a value. */
  private boolean ofAllRows(Attribute attribute, @Nullable LargeReference large, String value) {
    Aggregate aggregate = attribute.aggregate();
    if (aggregate == null) {
      return false;
    }
    AllRows all =
        large == null
            ? AllRows.of(lookup, attribute, reference)
            : AllRows.of(lookup, attribute, aggregate, large);
    return all.comeTo(aggregate, lookup.reference.type(attribute.source()), value);
  }
}
