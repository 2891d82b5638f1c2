package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An arithmetic of two or three columns, rounded.
 *
 * @param form which arithmetic
 * @param inputs the columns, in the order of the form
 * @param scale what the result is multiplied by, such as 0.001 from kilograms to tonnes
 * @param places decimal places that it is rounded to, half up
 * @param rounds whether it has more places before
 */
record Formula(Form form, List<String> inputs, Scale scale, int places, boolean rounds) {

  /** Powers of ten that people multiply by without a column for them. */
  enum Scale {
    ONE(1, ""),
    THOUSANDTH(1e-3, " / 1000"),
    HUNDREDTH(1e-2, " / 100"),
    THOUSAND(1e3, " * 1000"),
    HUNDRED(1e2, " * 100");

    final double factor;
    final String written;

    Scale(double factor, String written) {
      this.factor = factor;
      this.written = written;
    }
  }

  /** The arithmetics that are tried, the simplest first. */
  enum Form {
    SUM(2, "%s + %s"),
    DIFFERENCE(2, "%s - %s"),
    PRODUCT(2, "%s * %s"),
    QUOTIENT(2, "%s / %s"),
    PART(2, "%s * (1 - %s / 100)"),
    MORE(2, "%s * (1 + %s / 100)"),
    PRODUCT_OF_DIFFERENCE(3, "(%s - %s) * %s"),
    PRODUCT_OF_SUM(3, "(%s + %s) * %s"),
    QUOTIENT_OF_DIFFERENCE(3, "(%s - %s) / %s"),
    PRODUCT_OF_THREE(3, "%s * %s * %s"),
    PART_OF_PRODUCT(3, "%s * %s * (1 - %s / 100)"),
    SUM_OF_THREE(3, "%s + %s + %s"),
    SUM_LESS(3, "%s + %s - %s"),
    PRODUCT_LESS(3, "%s * %s - %s"),
    PRODUCT_AND(3, "%s * %s + %s");

    final int columns;
    final String written;

    Form(int columns, String written) {
      this.columns = columns;
      this.written = written;
    }

    double of(double a, double b, double c) {
      return switch (this) {
        case SUM -> a + b;
        case DIFFERENCE -> a - b;
        case PRODUCT -> a * b;
        case QUOTIENT -> a / b;
        case PART -> a * (1 - b / 100);
        case MORE -> a * (1 + b / 100);
        case PRODUCT_OF_DIFFERENCE -> (a - b) * c;
        case PRODUCT_OF_SUM -> (a + b) * c;
        case QUOTIENT_OF_DIFFERENCE -> (a - b) / c;
        case PRODUCT_OF_THREE -> a * b * c;
        case PART_OF_PRODUCT -> a * b * (1 - c / 100);
        case SUM_OF_THREE -> a + b + c;
        case SUM_LESS -> a + b - c;
        case PRODUCT_LESS -> a * b - c;
        case PRODUCT_AND -> a * b + c;
      };
    }

    /** Whether it has no more decimal places than its columns. */
    boolean exact() {
      return this == SUM || this == DIFFERENCE || this == SUM_OF_THREE || this == SUM_LESS;
    }

    /** Whether the first two columns may change places. */
    boolean even() {
      return this == SUM
          || this == PRODUCT
          || this == PRODUCT_OF_SUM
          || this == PRODUCT_OF_THREE
          || this == PART_OF_PRODUCT
          || this == SUM_OF_THREE
          || this == SUM_LESS
          || this == PRODUCT_LESS
          || this == PRODUCT_AND;
    }
  }

  /** The arithmetic as SQL. */
  String sql() {
    Object[] names = inputs.stream().map(DraftText::name).toArray();
    String arithmetic = String.format(form.written, names) + scale.written;
    return rounds ? "round(" + arithmetic + ", " + places + ")" : arithmetic;
  }

  /** What it comes to; null where an input is null or it cannot be computed. */
  @Nullable BigDecimal of(List<@Nullable BigDecimal> values) {
    double[] numbers = new double[3];
    for (int i = 0; i < values.size(); i++) {
      BigDecimal value = values.get(i);
      if (value == null) {
        return null;
      }
      numbers[i] = value.doubleValue();
    }
    double result = form.of(numbers[0], numbers[1], numbers[2]) * scale.factor;
    if (Double.isNaN(result) || Double.isInfinite(result)) {
      return null;
    }
    // Half a unit of the fifteenth digit: what doubles lose must not turn a half into less.
    return new BigDecimal(result, new MathContext(14)).setScale(places, RoundingMode.HALF_UP);
  }
}
