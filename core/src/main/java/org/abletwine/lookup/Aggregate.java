package org.abletwine.lookup;

import java.io.Serializable;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * An ISO SQL aggregate over the reference rows that one key fits. Nulls are passed over, as there;
 * numbers are exact decimals, and an average that does not come out even is rounded half up to ten
 * places.
 *
 * @param function the function
 * @param separator what stands between values of {@link Function#LISTAGG}
 */
public record Aggregate(Function function, String separator) implements Serializable {
  private static final int AVERAGE_PLACES = 10;

  /** The functions. */
  public enum Function {
    /** The exact total. */
    SUM,
    /** The mean. */
    AVG,
    /** The least, as numbers when all are, else by code point. */
    MIN,
    /** The greatest, likewise. */
    MAX,
    /** How many values, or rows for {@code count(*)}. */
    COUNT,
    /** How many different values; for rollups. */
    COUNT_DISTINCT,
    /** The values one after another, in file order. */
    LISTAGG
  }

  /** Returns the functions as a plan writes them. */
  static List<String> words() {
    List<String> words = new ArrayList<>();
    for (Function function :
        List.of(
            Function.SUM,
            Function.AVG,
            Function.MIN,
            Function.MAX,
            Function.COUNT,
            Function.LISTAGG)) {
      words.add(function.name().toLowerCase(Locale.ROOT));
    }
    return words;
  }

  /** Whether values must be numbers. */
  boolean numeric() {
    return function == Function.SUM || function == Function.AVG;
  }

  /**
   * What a single row comes to, to be stored with it.
   *
   * @param value its value; null for a null cell
   * @param rows whether rows are counted, not values
   */
  @Nullable String ofOne(@Nullable String value, boolean rows) {
    if (function == Function.COUNT) {
      return rows || value != null ? "1" : "0";
    }
    return numeric() && value != null ? new BigDecimal(value.strip()).toPlainString() : value;
  }

  /**
   * Puts together what single rows came to.
   *
   * @param values what {@link #ofOne} gave, in file order; null for none
   */
  @Nullable String ofAll(List<@Nullable String> values) {
    List<String> present = new ArrayList<>();
    values.stream().filter(java.util.Objects::nonNull).forEach(present::add);
    if (present.isEmpty()) {
      return null;
    }
    return switch (function) {
      case SUM, COUNT -> sum(present).toPlainString();
      case AVG -> average(present);
      case MIN -> extreme(present, -1);
      case MAX -> extreme(present, 1);
      case LISTAGG -> String.join(separator, present);
      case COUNT_DISTINCT -> Long.toString(present.stream().distinct().count());
    };
  }

  private static BigDecimal sum(List<String> values) {
    BigDecimal sum = BigDecimal.ZERO;
    for (String value : values) {
      sum = sum.add(new BigDecimal(value));
    }
    return sum;
  }

  private static String average(List<String> values) {
    BigDecimal sum = sum(values);
    BigDecimal count = BigDecimal.valueOf(values.size());
    BigDecimal mean =
        sum.divide(count, Math.max(sum.scale(), AVERAGE_PLACES), RoundingMode.HALF_UP)
            .stripTrailingZeros();
    return (mean.scale() < sum.scale() ? mean.setScale(sum.scale()) : mean).toPlainString();
  }

  private static String extreme(List<String> values, int sign) {
    boolean numbers = values.stream().allMatch(value -> number(value) != null);
    String best = values.get(0);
    for (String value : values) {
      BigDecimal one = numbers ? number(value) : null;
      BigDecimal other = numbers ? number(best) : null;
      int order =
          one != null && other != null
              ? one.compareTo(other)
              : value.strip().compareTo(best.strip());
      best = order * sign > 0 ? value : best;
    }
    return best;
  }

  private static @Nullable BigDecimal number(String value) {
    try {
      return new BigDecimal(value.strip(), MathContext.UNLIMITED);
    } catch (NumberFormatException e) {
      return null;
    }
  }
}
