package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.abletwine.compute.Expression;
import org.abletwine.step.run.Columns;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.spill.Head;
import org.abletwine.table.spill.SpilledTable;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/**
 * The columns of the transactions that a lookup over a large reference needs: of its keys, of its
 * condition, and the measure. Rows are kept with these alone while the parts of the reference are
 * asked. The same in every process that prepares the lookup after the same steps. Immutable.
 */
final class AskedColumns {
  private static final String TURN = "the turn of a row among those of its number";

  private final Lookup lookup;
  private final List<int[]> keyColumns;
  private final Columns before;
  private final int measure;

  /** The columns, by number in the batches of the run, and their places. */
  private final Map<Integer, Integer> needed = new LinkedHashMap<>();

  private final List<String> names = new ArrayList<>();

  private final @Nullable Expression asked;

  /**
   * @param keyColumns the columns of the keys of the lookup, and of those tried otherwise
   * @param before the columns before the lookup
   * @param measure the column whose totals go beside the figures, or -1
   */
  AskedColumns(Lookup lookup, List<int[]> keyColumns, Columns before, int measure) {
    this.lookup = lookup;
    this.keyColumns = keyColumns;
    this.before = before;
    this.measure = measure;
    keyColumns.forEach(columns -> IntStream.of(columns).forEach(this::need));
    Expression whole = lookup.asked == null ? null : lookup.asked.over(before, lookup.name);
    if (whole != null) {
      whole.inputs().forEach(name -> need(before.require(name, lookup.title())));
    }
    if (measure >= 0) {
      need(measure);
    }
    asked = lookup.asked == null ? null : lookup.asked.over(narrow(), lookup.name);
  }

  /** The columns kept, with what they hold. */
  private Columns narrow() {
    Columns columns = new Columns(before.tableName(), head().schema());
    for (String name : names) {
      columns.typed(name, before.type(name));
      columns.hide(name, before.isPrivate(name));
    }
    return columns;
  }

  private void need(int number) {
    if (needed.putIfAbsent(number, needed.size()) == null) {
      int at = IntStream.of(before.numbers()).boxed().toList().indexOf(number);
      names.add(at < 0 ? "column " + number : before.names().get(at));
    }
  }

  /** Their numbers in the batches of the run. */
  int[] numbers() {
    return needed.keySet().stream().mapToInt(Integer::intValue).toArray();
  }

  /** How many there are; behind them, in the rows kept, stands a row's turn. */
  int count() {
    return names.size();
  }

  /** The columns of the equal parts of the key, in the batches of the run. */
  int[] equal() {
    return IntStream.of(KeyLayout.of(lookup).equal())
        .map(part -> keyColumns.get(0)[part])
        .toArray();
  }

  /** The columns of all keys, among those kept. */
  List<int[]> keys() {
    return keyColumns.stream()
        .map(columns -> IntStream.of(columns).map(needed::get).toArray())
        .toList();
  }

  /** The measure among the columns kept, or -1. */
  int measure() {
    return measure < 0 ? -1 : needed.get(measure);
  }

  /** The name of the transactions. */
  String tableName() {
    return before.tableName();
  }

  /** Whether a row is asked for, over the columns kept; null for all. */
  @Nullable Expression asked() {
    return asked;
  }

  /** Rows that were kept, as a table. */
  Table table(Stored rows) {
    return new SpilledTable(rows, head(), IntStream.rangeClosed(0, names.size()).toArray());
  }

  private Table head() {
    List<String> all = new ArrayList<>(names);
    all.add(TURN);
    return new Head(before.tableName(), new Schema(all));
  }
}
