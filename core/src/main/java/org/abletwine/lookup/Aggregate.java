package org.abletwine.lookup;

import java.io.Serializable;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.ValueOrder;
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
  /** Holds that nothing is missing. */
  public Aggregate {
    Objects.requireNonNull(function, "function");
    Objects.requireNonNull(separator, "separator");
  }

  private static final int AVERAGE_PLACES = 10;

  /** Characters that {@link Function#LISTAGG} makes at most. */
  private static final int MOST_TEXT = 1_000_000;

  /** The functions. */
  public enum Function {
    /** The exact total. */
    SUM,
    /** The mean. */
    AVG,
    /**
     * The least, in the order of the column's stated type; else as numbers when all are, as dates
     * of ISO 8601 when all are, or by code point.
     */
    MIN,
    /** The greatest, likewise. */
    MAX,
    /** How many values, or rows for {@code count(*)}. */
    COUNT,
    /** How many different values. */
    COUNT_DISTINCT,
    /** The values one after another, in file order. */
    LISTAGG
  }

  /** Whether it says how many there are, and so nothing of what they are. */
  boolean counts() {
    return function == Function.COUNT || function == Function.COUNT_DISTINCT;
  }

  /** {@return the functions as a plan writes them} */
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

  /** {@return the function as a plan writes it} */
  public String word() {
    return function.name().toLowerCase(Locale.ROOT).replace("_", " ");
  }

  /** The aggregate of a column as a plan writes it. */
  String of(String source) {
    return switch (function) {
      case COUNT_DISTINCT -> "count(distinct " + source + ")";
      case LISTAGG -> "listagg(" + source + ", '" + separator + "')";
      default -> word() + "(" + source + ")";
    };
  }

  private boolean numeric() {
    return function == Function.SUM || function == Function.AVG;
  }

  /**
   * The order that each value of a column must fit; null when any value will do.
   *
   * @param type the stated type of the column, or null
   */
  @Nullable ValueOrder needed(@Nullable ColumnType type) {
    boolean extreme = function == Function.MIN || function == Function.MAX;
    return numeric()
        ? ValueOrder.of(
            type != null && type.kind() == ColumnType.Kind.INTEGER
                ? type
                : ColumnType.of(ColumnType.Kind.NUMBER))
        : extreme && type != null ? ValueOrder.of(type) : null;
  }

  /**
   * What the aggregate is, for steps after it; null where nothing is stated.
   *
   * @param type the stated type of the column, or null
   * @return the type; null when that is not known
   */
  public @Nullable ColumnType type(@Nullable ColumnType type) {
    return switch (function) {
      case MIN, MAX -> type;
      case LISTAGG -> ColumnType.of(ColumnType.Kind.TEXT);
      default -> ColumnType.of(ColumnType.Kind.NUMBER);
    };
  }

  /**
   * What a single row comes to, to be stored with it.
   *
   * @param value its value, one that is {@link #needed}; null for a null cell
   * @param rows whether rows are counted, not values
   */
  @Nullable String ofOne(@Nullable String value, boolean rows) {
    if (function == Function.COUNT || function == Function.COUNT_DISTINCT) {
      return rows || value != null ? "1" : "0";
    }
    return numeric() && value != null
        ? Objects.requireNonNull(DecimalText.read(value), value).toPlainString()
        : value;
  }

  /**
   * Puts together what single rows came to.
   *
   * @param values what {@link #ofOne} gave, in file order; null for none; of {@link
   *     Function#COUNT_DISTINCT} the values themselves
   * @param type the stated type of the column, or null
   */
  @Nullable String ofAll(List<@Nullable String> values, @Nullable ColumnType type) {
    List<String> present = new ArrayList<>();
    values.stream().filter(Objects::nonNull).forEach(present::add);
    if (present.isEmpty()) {
      return function == Function.COUNT_DISTINCT ? "0" : null;
    }
    return switch (function) {
      case SUM, COUNT -> sum(present).toPlainString();
      case AVG -> average(sum(present), present.size());
      case MIN -> extreme(present, type, -1);
      case MAX -> extreme(present, type, 1);
      case LISTAGG -> joined(present);
      case COUNT_DISTINCT -> Long.toString(present.stream().distinct().count());
    };
  }

  private String joined(List<String> values) {
    long length = values.stream().mapToLong(value -> value.length() + separator.length()).sum();
    if (length > MOST_TEXT) {
      throw new DataException(
          "listagg: the values of one key, "
              + values.size()
              + " of them, make a text of more than "
              + MOST_TEXT
              + " characters; add a part to the key, or bring count(...), min(...) or max(...)");
    }
    return String.join(separator, values);
  }

  private static BigDecimal sum(List<String> values) {
    BigDecimal sum = BigDecimal.ZERO;
    for (String value : values) {
      sum = sum.add(new BigDecimal(value));
    }
    return sum;
  }

  /** The mean of so many numbers that have a sum. */
  static String average(BigDecimal sum, long many) {
    BigDecimal count = BigDecimal.valueOf(many);
    BigDecimal mean =
        sum.divide(count, Math.max(sum.scale(), AVERAGE_PLACES), RoundingMode.HALF_UP)
            .stripTrailingZeros();
    return (mean.scale() < sum.scale() ? mean.setScale(sum.scale()) : mean).toPlainString();
  }

  private static String extreme(List<String> values, @Nullable ColumnType type, int sign) {
    ValueOrder.Finder finder = new ValueOrder.Finder();
    values.forEach(finder::look);
    ValueOrder order = type == null ? finder.order() : ValueOrder.of(type);
    String best = values.get(0);
    for (String value : values) {
      best = order.compare(value, best) * sign > 0 ? value : best;
    }
    return best;
  }
}
