package org.abletwine.lookup;

import java.io.Serializable;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.match.index.RuleChain;
import org.jspecify.annotations.Nullable;

/**
 * From keys to rows. With equal parts only, the hash index leads to rows. With a rule, it leads to
 * the partition of the equal parts, within which the rules find the rows.
 *
 * @param index from equal parts to rows, or to partitions
 * @param rule the rules; null when all parts are equal
 */
record Finder(HashIndex index, @Nullable RuleChain rule) implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Finds nothing. */
  static Finder none() {
    return new Finder(new HashIndex(new RowStore(0)), null);
  }

  /** Sets of rows that one key fits. */
  RowSets sets() {
    return rule == null ? index.groups() : rule.sets();
  }

  boolean isEmpty() {
    return index.keys() == 0;
  }
}
