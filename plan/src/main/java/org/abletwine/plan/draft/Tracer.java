package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/**
 * Finds where each column of a table made by hand comes from: a column of the transactions, one
 * that a lookup fetches, with a fill, or an arithmetic of such columns.
 */
final class Tracer {
  private static final double AGREES = 0.75;
  private static final double AGREES_BY_NAME = 0.4;
  private static final double FILLED = 0.6;

  private final SampleTable all;
  private final SampleTable made;
  private final int[] rowOf;
  private final int own;
  private final Map<String, Integer> placesOf = new HashMap<>();

  /**
   * @param all what the draft makes: the transactions' columns, then those fetched
   * @param own how many columns are the transactions'
   * @param made the table made by hand
   * @param rowOf for each transaction its row there; -1 for none
   */
  Tracer(SampleTable all, int own, SampleTable made, int[] rowOf) {
    this.all = all;
    this.own = own;
    this.made = made;
    this.rowOf = rowOf;
  }

  List<TracedColumn> trace() {
    List<TracedColumn> traced = new ArrayList<>();
    List<SampleColumn> open = new ArrayList<>();
    for (SampleColumn column : made.columns()) {
      TracedColumn found = found(column);
      if (found == null) {
        open.add(column);
      } else {
        traced.add(found);
      }
    }
    Map<String, double[]> inputs = new HashMap<>();
    int[] straight = new int[rowOf.length];
    java.util.Arrays.setAll(straight, row -> row);
    for (SampleColumn column : all.columns()) {
      if (column.kind() == SampleColumn.Kind.NUMBER) {
        inputs.put(column.name(), FormulaSearch.numbers(column, straight));
      }
    }
    // What is computed may be computed from what is computed: round by round, the simplest first.
    for (boolean more = true; more && !open.isEmpty(); ) {
      more = false;
      for (SampleColumn column : List.copyOf(open)) {
        Formula formula = formula(column, inputs);
        if (formula != null) {
          open.remove(column);
          String name = all.has(column.name()) ? column.name() + "_made" : column.name();
          inputs.put(name, computed(formula, inputs));
          placesOf.put(name, formula.places());
          traced.add(
              new TracedColumn(column.name(), TracedColumn.Kind.COMPUTED, name, formula, null, 1));
          more = true;
        }
      }
    }
    open.forEach(
        column ->
            traced.add(
                new TracedColumn(column.name(), TracedColumn.Kind.UNKNOWN, "", null, null, 0)));
    return traced;
  }

  private @Nullable Formula formula(SampleColumn column, Map<String, double[]> inputs) {
    long numbers = 0;
    for (int id = 0; id < column.distinct(); id++) {
      numbers += column.number(id) == null ? 0 : 1;
    }
    if (column.distinct() < 3 || numbers < AGREES * column.distinct()) {
      return null;
    }
    FormulaSearch search = new FormulaSearch();
    inputs.entrySet().stream()
        .sorted(Map.Entry.comparingByKey())
        .forEach(
            input ->
                search.add(
                    input.getKey(),
                    input.getValue(),
                    all.has(input.getKey())
                        ? FormulaSearch.places(all.column(input.getKey()))
                        : placesOf.getOrDefault(input.getKey(), 0)));
    return search.find(FormulaSearch.numbers(column, rowOf), FormulaSearch.places(column));
  }

  private static double[] computed(Formula formula, Map<String, double[]> inputs) {
    List<double[]> columns =
        formula.inputs().stream().map(name -> Objects.requireNonNull(inputs.get(name))).toList();
    double[] results = new double[columns.get(0).length];
    for (int row = 0; row < results.length; row++) {
      List<@Nullable BigDecimal> values = new ArrayList<>();
      for (double[] column : columns) {
        values.add(Double.isNaN(column[row]) ? null : BigDecimal.valueOf(column[row]));
      }
      BigDecimal result = formula.of(values);
      results[row] = result == null ? Double.NaN : result.doubleValue();
    }
    return results;
  }

  /** The column that it is a copy of, one's own before one fetched, by agreement and by name. */
  private @Nullable TracedColumn found(SampleColumn column) {
    TracedColumn best = null;
    double bestScore = 0;
    for (int at = 0; at < all.columns().size(); at++) {
      SampleColumn from = all.columns().get(at);
      String fill = fill(column, from);
      double agreement = agreement(column, from, fill);
      boolean named = from.name().equalsIgnoreCase(column.name());
      double likeness = named ? 1 : Names.likeness(from.name(), column.name());
      boolean enough = agreement >= (named ? AGREES_BY_NAME : AGREES);
      double score = agreement + likeness / 10 + (at < own ? 0.001 : 0);
      if (enough && score > bestScore && from.distinct() > 0) {
        bestScore = score;
        best =
            new TracedColumn(
                column.name(),
                at < own ? TracedColumn.Kind.COPIED : TracedColumn.Kind.FETCHED,
                from.name(),
                null,
                at < own ? null : fill,
                agreement);
      }
    }
    return best;
  }

  /** What stands in most of the rows in which the other has nothing. */
  private @Nullable String fill(SampleColumn column, SampleColumn from) {
    Map<String, Integer> counts = new HashMap<>();
    int all = 0;
    for (int row = 0; row < rowOf.length; row++) {
      if (rowOf[row] >= 0 && from.id(row) == SampleColumn.NULL) {
        all++;
        String value = column.value(rowOf[row]);
        if (value != null) {
          counts.merge(value, 1, Integer::sum);
        }
      }
    }
    for (Map.Entry<String, Integer> one : counts.entrySet()) {
      if (one.getValue() >= 3 && one.getValue() >= FILLED * all) {
        return one.getKey();
      }
    }
    return null;
  }

  private double agreement(SampleColumn column, SampleColumn from, @Nullable String fill) {
    int all = 0;
    int agree = 0;
    for (int row = 0; row < rowOf.length; row++) {
      if (rowOf[row] < 0) {
        continue;
      }
      String made = column.value(rowOf[row]);
      String ours = from.value(row);
      if (made == null && ours == null) {
        continue;
      }
      all++;
      agree += same(made, ours == null ? fill : ours) ? 1 : 0;
    }
    return all == 0 ? 0 : (double) agree / all;
  }

  /** Whether two cells say the same: as text but for outer spaces, or as numbers. */
  static boolean same(@Nullable String one, @Nullable String other) {
    if (one == null || other == null) {
      return (one == null || one.isBlank()) && (other == null || other.isBlank());
    }
    String a = one.strip();
    String b = other.strip();
    if (a.equals(b)) {
      return true;
    }
    boolean codes =
        a.startsWith("0") && !a.startsWith("0.") || b.startsWith("0") && !b.startsWith("0.");
    BigDecimal first = codes && a.length() != b.length() ? null : DecimalText.read(a);
    BigDecimal second = first == null ? null : DecimalText.read(b);
    return first != null && second != null && first.compareTo(second) == 0;
  }
}
