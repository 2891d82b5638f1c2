package org.abletwine.lookup;

import java.util.List;
import org.abletwine.compute.Expression;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.match.index.RuleRows;
import org.abletwine.match.index.ValuesSeen;
import org.abletwine.table.batch.Batch;
import org.jspecify.annotations.Nullable;

/** Looks at the values that rules compare while a reference is divided. Belongs to one thread. */
final class ValuesLooked {
  private final RuleValues rules;
  private final @Nullable Expression where;
  private final LargeReference.Values values;

  ValuesLooked(Lookup lookup, KeyLayout layout, int[] keyColumns) {
    rules = new RuleValues(lookup, layout, keyColumns);
    where = lookup.where == null || !layout.ruled() ? null : lookup.where.start();
    values = LargeReference.Values.none(lookup);
  }

  void look(Batch batch, EncodedKeys keys) {
    if (rules.cells.length == 0) {
      return;
    }
    rules.take(batch);
    if (where != null) {
      where.over(batch);
    }
    for (int rule = 0; rule < rules.cells.length; rule++) {
      look(batch, keys, rule, true, values.kept());
      if (where != null) {
        look(batch, keys, rule, false, values.leftOut());
      }
    }
  }

  private void look(
      Batch batch, EncodedKeys keys, int rule, boolean passing, List<ValuesSeen> into) {
    RuleRows rows = new RuleRows(rules.cells[rule].length);
    for (int row = 0; row < batch.rows(); row++) {
      boolean passes = where == null || where.isTrue(row);
      if (passes == passing && keys.blankParts[row] == 0 && RuleValues.findable(rules.cells, row)) {
        rows.add(rules.cells[rule], row, 0, 0, row);
      }
    }
    into.get(rule).look(rows);
  }

  LargeReference.Values values() {
    return values;
  }
}
