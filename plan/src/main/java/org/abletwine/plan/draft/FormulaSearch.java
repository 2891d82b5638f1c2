package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.plan.draft.Formula.Form;
import org.abletwine.plan.draft.Formula.Scale;
import org.jspecify.annotations.Nullable;

/**
 * Finds the arithmetic of two or three columns that a column of numbers is, where one fits nearly
 * all of its rows: every form over every choice of columns is tried on a few rows, and what holds
 * there on all of them. Doubles are good enough to find it; a run of the plan then computes
 * exactly.
 */
final class FormulaSearch {
  private static final int FEW_ROWS = 24;
  private static final double FITS_FEW = 0.7;
  private static final double FITS = 0.8;
  private static final int MOST_COLUMNS = 24;
  private static final int MOST_PLACES = 6;

  private final List<String> names = new ArrayList<>();
  private final List<double[]> columns = new ArrayList<>();
  private final Map<String, Integer> decimalsOf = new HashMap<>();

  /** Adds a column that may be an input, and how many decimal places it has. */
  void add(String name, double[] values, int decimals) {
    if (names.size() < MOST_COLUMNS) {
      names.add(name);
      columns.add(values);
      decimalsOf.put(name, decimals);
    }
  }

  private int places(List<String> inputs) {
    return inputs.stream().mapToInt(name -> decimalsOf.getOrDefault(name, 0)).max().orElse(0);
  }

  /** The numbers of a column; not a number where there is none. */
  static double[] numbers(SampleColumn column, int[] rowOf) {
    double[] numbers = new double[rowOf.length];
    double[] ofId = new double[column.distinct()];
    for (int id = 0; id < ofId.length; id++) {
      BigDecimal number = column.number(id);
      ofId[id] = number == null ? Double.NaN : number.doubleValue();
    }
    for (int row = 0; row < rowOf.length; row++) {
      int id = rowOf[row] < 0 ? SampleColumn.NULL : column.id(rowOf[row]);
      numbers[row] = id == SampleColumn.NULL ? Double.NaN : ofId[id];
    }
    return numbers;
  }

  /** Decimal places of the values with the most of them. */
  static int places(SampleColumn column) {
    int places = 0;
    for (int id = 0; id < column.distinct(); id++) {
      BigDecimal number = column.number(id);
      places = number == null ? places : Math.max(places, number.scale());
    }
    return Math.min(MOST_PLACES, places);
  }

  /**
   * @param wanted the column's numbers
   * @param places its decimal places
   * @return null when nothing fits
   */
  @Nullable Formula find(double[] wanted, int places) {
    int[] few = few(wanted);
    if (few.length < 3) {
      return null;
    }
    for (Form form : Form.values()) {
      Formula best = null;
      double bestShare = FITS;
      for (int a = 0; a < names.size(); a++) {
        for (int b = 0; b < names.size(); b++) {
          if (a == b || form.even() && b < a) {
            continue;
          }
          int last = form.columns == 3 ? names.size() : 1;
          for (int c = 0; c < last; c++) {
            if (form.columns == 3 && (c == a || c == b)) {
              continue;
            }
            for (Scale scale : Scale.values()) {
              if (share(form, a, b, c, scale, wanted, places, few) < FITS_FEW) {
                continue;
              }
              double share = share(form, a, b, c, scale, wanted, places, null);
              if (share > bestShare) {
                bestShare = share;
                List<String> inputs = new ArrayList<>(List.of(names.get(a), names.get(b)));
                if (form.columns == 3) {
                  inputs.add(names.get(c));
                }
                boolean whole = form.exact() && scale == Scale.ONE && places >= places(inputs);
                best = new Formula(form, inputs, scale, places, !whole);
              }
            }
          }
        }
      }
      if (best != null) {
        return best;
      }
    }
    return null;
  }

  /** Rows that have a number, at even distances. */
  private static int[] few(double[] wanted) {
    List<Integer> rows = new ArrayList<>();
    for (int row = 0; row < wanted.length; row++) {
      if (!Double.isNaN(wanted[row]) && wanted[row] != 0) {
        rows.add(row);
      }
    }
    int count = Math.min(FEW_ROWS, rows.size());
    int[] few = new int[count];
    for (int i = 0; i < count; i++) {
      few[i] = rows.get((int) ((long) i * rows.size() / count));
    }
    return few;
  }

  /** The share of the rows, among those in which all are numbers, in which it fits. */
  private double share(
      Form form,
      int a,
      int b,
      int c,
      Scale scale,
      double[] wanted,
      int places,
      int @Nullable [] some) {
    double unit = Math.pow(10, -places);
    int count = some == null ? wanted.length : some.length;
    int all = 0;
    int fits = 0;
    int missing = 0;
    for (int i = 0; i < count; i++) {
      int row = some == null ? i : some[i];
      double result =
          form.of(columns.get(a)[row], columns.get(b)[row], columns.get(c)[row]) * scale.factor;
      if (Double.isNaN(wanted[row])) {
        continue;
      }
      if (Double.isNaN(result) || Double.isInfinite(result)) {
        missing++;
        continue;
      }
      all++;
      double off = Math.abs(result - wanted[row]);
      fits += off <= unit * 0.5000001 + 1e-9 * Math.abs(result) ? 1 : 0;
    }
    return all < 3 || missing > all ? 0 : (double) fits / all;
  }
}
