package org.abletwine.formats.database;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;

/**
 * How cells of a column become text: numbers digit for digit, days and times as ISO 8601, true and
 * false as these words. Immutable.
 */
enum CellReader {
  /** As the driver writes it. */
  TEXT(null),
  /** Exact numbers. */
  NUMBER(ColumnType.Kind.NUMBER),
  /** Whole numbers. */
  WHOLE(ColumnType.Kind.INTEGER),
  /** Binary numbers: the shortest decimal that reads back the same. */
  BINARY(ColumnType.Kind.NUMBER),
  TRUTH(ColumnType.Kind.BOOLEAN),
  DAY(ColumnType.Kind.DATE),
  /** A day and a time. */
  TIME(ColumnType.Kind.DATE_TIME),
  /** A moment: a time that is known with its zone, told in UTC. */
  MOMENT(null),
  /** What each cell is by itself, where columns do not decide. */
  ANY(null),
  /** As {@link #ANY}, with 1 and 0 for true and false. */
  ANY_TRUTH(null),
  /** Bytes, which are no text. */
  BYTES(null);

  private final ColumnType.@Nullable Kind kind;

  CellReader(ColumnType.@Nullable Kind kind) {
    this.kind = kind;
  }

  /** {@return what the column holds, where the database vouches for it} */
  @Nullable ColumnType type() {
    return kind == null ? null : ColumnType.of(kind);
  }

  /**
   * How a column is read.
   *
   * @param type its type, of {@link Types}
   * @param name its type's name in the database
   * @param loose whether a column may hold anything, whatever its type says
   */
  static CellReader of(int type, String name, boolean loose) {
    if (loose) {
      return name.toUpperCase(java.util.Locale.ROOT).startsWith("BOOL") ? ANY_TRUTH : ANY;
    }
    return switch (type) {
      case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT -> WHOLE;
      case Types.NUMERIC, Types.DECIMAL -> NUMBER;
      case Types.REAL, Types.FLOAT, Types.DOUBLE -> name.equalsIgnoreCase("money") ? TEXT : BINARY;
      case Types.BOOLEAN -> TRUTH;
      case Types.BIT -> name.equalsIgnoreCase("bool") ? TRUTH : TEXT;
      case Types.DATE -> DAY;
      case Types.TIMESTAMP -> name.equalsIgnoreCase("timestamptz") ? MOMENT : TIME;
      case Types.TIMESTAMP_WITH_TIMEZONE -> MOMENT;
      case Types.BINARY, Types.VARBINARY, Types.LONGVARBINARY, Types.BLOB -> BYTES;
      default -> TEXT;
    };
  }

  /**
   * Reads a cell.
   *
   * @param rows stands at the row
   * @param column 1-based
   * @return null for null
   */
  @Nullable String read(ResultSet rows, int column) throws SQLException {
    return switch (this) {
      case TEXT, WHOLE, DAY, BYTES -> rows.getString(column);
      case NUMBER -> {
        String text = rows.getString(column);
        yield text == null || text.indexOf('E') < 0 ? text : new BigDecimal(text).toPlainString();
      }
      case BINARY -> {
        double value = rows.getDouble(column);
        yield rows.wasNull() ? null : binary(value, rows, column);
      }
      case TRUTH -> {
        boolean value = rows.getBoolean(column);
        yield rows.wasNull() ? null : Boolean.toString(value);
      }
      case TIME -> {
        String text = rows.getString(column);
        yield text != null && text.length() > 10 && text.charAt(10) == ' ' ? iso(text) : text;
      }
      case MOMENT -> {
        OffsetDateTime value = rows.getObject(column, OffsetDateTime.class);
        yield value == null ? null : moment(value);
      }
      case ANY, ANY_TRUTH -> any(rows.getObject(column));
    };
  }

  private static String binary(double value, ResultSet rows, int column) throws SQLException {
    if (!Double.isFinite(value)) {
      return rows.getString(column);
    }
    String text = rows.getString(column);
    return text.indexOf('e') < 0 && text.indexOf('E') < 0 ? text : plain(value);
  }

  private static String plain(double value) {
    BigDecimal exact = new BigDecimal(Double.toString(value));
    return exact.signum() == 0 ? "0" : exact.stripTrailingZeros().toPlainString();
  }

  /** A time as ISO 8601, seconds always, places of seconds only where there are any. */
  private static String iso(String text) {
    String iso = text.substring(0, 10) + "T" + text.substring(11);
    return iso.endsWith(".0") ? iso.substring(0, iso.length() - 2) : iso;
  }

  private static String moment(OffsetDateTime value) {
    if (value.equals(OffsetDateTime.MAX) || value.equals(OffsetDateTime.MIN)) {
      return value.equals(OffsetDateTime.MAX) ? "infinity" : "-infinity";
    }
    String text = value.withOffsetSameInstant(ZoneOffset.UTC).toString();
    return text.length() == 17 ? text.substring(0, 16) + ":00Z" : text;
  }

  private @Nullable String any(@Nullable Object value) throws SQLException {
    if (value instanceof Double number) {
      return Double.isFinite(number) ? plain(number) : number.toString();
    }
    if (this == ANY_TRUTH && value instanceof Number number) {
      long truth = number.longValue();
      return truth == 1 ? "true" : truth == 0 ? "false" : number.toString();
    }
    if (value instanceof byte[]) {
      throw new SQLException("it holds bytes, which are no text; leave the column out with query:");
    }
    return value == null ? null : value.toString();
  }
}
