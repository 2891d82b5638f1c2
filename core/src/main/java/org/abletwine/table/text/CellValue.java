package org.abletwine.table.text;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Locale;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * A cell as a value of Java. Dates are written as the column's type states, else as ISO 8601.
 *
 * @param table the table, for messages
 * @param row the number of its row, 1-based; 0 for none
 * @param column its column
 * @param type what the column holds, where that is stated
 * @param text what stands in it; null for null
 */
public record CellValue(
    String table, long row, String column, @Nullable ColumnType type, @Nullable String text) {

  /**
   * Returns it as an exact number; null for null.
   *
   * @throws DataException when it is none
   */
  public @Nullable BigDecimal decimal() {
    String held = text;
    if (held == null) {
      return null;
    }
    BigDecimal number = DecimalText.read(held);
    if (number == null) {
      throw not("a number");
    }
    return number;
  }

  /**
   * Returns it as a whole number; null for null.
   *
   * @throws DataException when it is none, or one that a long does not hold
   */
  public @Nullable Long integer() {
    BigDecimal number = decimal();
    if (number == null) {
      return null;
    }
    try {
      return number.longValueExact();
    } catch (ArithmeticException e) {
      throw not("a whole number of up to 18 digits");
    }
  }

  /**
   * Returns it as a day; null for null.
   *
   * @throws DataException when it is none, or one with a time of day
   */
  public @Nullable LocalDate date() {
    LocalDateTime time = dateTime();
    if (time == null) {
      return null;
    }
    if (!time.toLocalTime().equals(LocalTime.MIDNIGHT)) {
      throw not("a date alone");
    }
    return time.toLocalDate();
  }

  /**
   * Returns it as a day with a time of day, midnight where none is written; null for null.
   *
   * @throws DataException when it is none
   */
  public @Nullable LocalDateTime dateTime() {
    String held = text;
    if (held == null) {
      return null;
    }
    ColumnType stated = type;
    List<String> patterns =
        stated != null
                && (stated.kind() == ColumnType.Kind.DATE
                    || stated.kind() == ColumnType.Kind.DATE_TIME)
            ? stated.patterns()
            : List.of();
    LocalDateTime time = new DatePatterns(patterns).read(held.strip());
    if (time == null) {
      throw not("a date");
    }
    return time;
  }

  /**
   * Returns it as a truth value; null for null.
   *
   * @throws DataException when it is neither {@code true} nor {@code false}
   */
  public @Nullable Boolean truth() {
    String held = text;
    if (held == null) {
      return null;
    }
    return switch (held.strip().toLowerCase(Locale.ROOT)) {
      case "true" -> true;
      case "false" -> false;
      default -> throw not("true or false");
    };
  }

  /** What is wrong when it is not of a kind. */
  public DataException not(String noun) {
    return new DataException(where() + ": \"" + text + "\" is not " + noun, table, row, column);
  }

  /** Where it stands, in words. */
  public String where() {
    return table + (row > 0 ? ", row " + row : "") + ", column \"" + column + "\"";
  }
}
