package org.abletwine.formats.database;

import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import org.abletwine.table.ColumnType;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** How cells of a column are handed to a database. Immutable. */
final class CellWriter {
  /** Digits that a SQLite database keeps of a number that is not whole. */
  private static final int SQLITE_DIGITS = 15;

  private enum Kind {
    TEXT,
    NUMBER,
    TRUTH,
    DAY,
    TIME,
    /** Handed over as text, for the server to make its own type of. */
    OTHER
  }

  private final Kind kind;
  private final boolean loose;
  private final DatePatterns patterns;

  private CellWriter(Kind kind, boolean loose, List<String> patterns) {
    this.kind = kind;
    this.loose = loose;
    this.patterns = new DatePatterns(patterns);
  }

  /**
   * A writer for a column that is there.
   *
   * @param type what it holds, of {@link Types}
   * @param name its type's name in the database
   * @param source what our column holds; null when that is not known
   * @param loose whether the database lets a column hold anything
   */
  static CellWriter of(int type, String name, @Nullable ColumnType source, boolean loose) {
    Kind kind =
        switch (type) {
          case Types.TINYINT,
              Types.SMALLINT,
              Types.INTEGER,
              Types.BIGINT,
              Types.NUMERIC,
              Types.DECIMAL,
              Types.REAL,
              Types.FLOAT,
              Types.DOUBLE ->
              name.equalsIgnoreCase("money") ? Kind.OTHER : Kind.NUMBER;
          case Types.BOOLEAN -> Kind.TRUTH;
          case Types.BIT -> name.equalsIgnoreCase("bool") ? Kind.TRUTH : Kind.OTHER;
          case Types.DATE -> Kind.DAY;
          case Types.TIMESTAMP -> name.equalsIgnoreCase("timestamptz") ? Kind.OTHER : Kind.TIME;
          case Types.CHAR,
              Types.VARCHAR,
              Types.LONGVARCHAR,
              Types.NCHAR,
              Types.NVARCHAR,
              Types.LONGNVARCHAR,
              Types.CLOB ->
              known(name) ? Kind.TEXT : Kind.OTHER;
          default -> Kind.OTHER;
        };
    return new CellWriter(
        loose ? loose(name) : kind, loose, source == null ? List.of() : source.patterns());
  }

  /** Whether a type is text itself, not something else that is written as text. */
  private static boolean known(String name) {
    String word = name.toLowerCase(Locale.ROOT);
    return word.contains("char")
        || word.contains("text")
        || word.contains("clob")
        || word.contains("string")
        || word.equals("name");
  }

  private static Kind loose(String name) {
    String word = name.toUpperCase(Locale.ROOT);
    if (word.contains("INT")
        || word.startsWith("NUM")
        || word.startsWith("DEC")
        || word.startsWith("REAL")
        || word.startsWith("FLOA")
        || word.startsWith("DOUB")) {
      return Kind.NUMBER;
    }
    return word.startsWith("BOOL") ? Kind.TRUTH : Kind.TEXT;
  }

  /** The type of a column to be made for what ours holds. */
  static String type(@Nullable ColumnType type, boolean sqlite) {
    if (type == null) {
      return sqlite ? "TEXT" : "text";
    }
    return switch (type.kind()) {
      case TEXT -> sqlite ? "TEXT" : "text";
      case NUMBER -> sqlite ? "NUMERIC" : "numeric";
      case INTEGER -> sqlite ? "NUMERIC" : "numeric";
      case DATE -> sqlite ? "DATE" : "date";
      case DATE_TIME -> sqlite ? "TIMESTAMP" : "timestamp";
      case BOOLEAN -> sqlite ? "BOOLEAN" : "boolean";
    };
  }

  /**
   * Hands a cell over.
   *
   * @param column 1-based
   * @return what is wrong with it, in words; null when it was taken
   */
  @Nullable String set(PreparedStatement statement, int column, @Nullable String cell)
      throws SQLException {
    if (cell == null) {
      statement.setNull(column, Types.NULL);
      return null;
    }
    return switch (kind) {
      case TEXT -> {
        statement.setString(column, cell);
        yield null;
      }
      case OTHER -> {
        statement.setObject(column, cell, Types.OTHER);
        yield null;
      }
      case NUMBER -> number(statement, column, cell);
      case TRUTH -> truth(statement, column, cell);
      case DAY -> {
        LocalDateTime day = patterns.read(cell);
        if (day == null || !day.toLocalTime().equals(java.time.LocalTime.MIDNIGHT)) {
          yield "a day";
        }
        LocalDate date = day.toLocalDate();
        statement.setObject(column, date);
        yield null;
      }
      case TIME -> {
        LocalDateTime time = patterns.read(cell);
        if (time == null) {
          yield "a day and time";
        }
        statement.setObject(column, time);
        yield null;
      }
    };
  }

  private @Nullable String number(PreparedStatement statement, int column, String cell)
      throws SQLException {
    BigDecimal number = DecimalText.read(cell);
    if (number == null) {
      return "a number";
    }
    if (!loose) {
      statement.setBigDecimal(column, number);
      return null;
    }
    BigDecimal plain = number.stripTrailingZeros();
    if (plain.scale() <= 0 && plain.precision() - plain.scale() <= 18) {
      statement.setLong(column, plain.longValueExact());
      return null;
    }
    if (plain.precision() > SQLITE_DIGITS) {
      return "a number of at most "
          + SQLITE_DIGITS
          + " digits, which is what SQLite keeps (state types: { COLUMN: text } to keep all)";
    }
    statement.setDouble(column, plain.doubleValue());
    return null;
  }

  private @Nullable String truth(PreparedStatement statement, int column, String cell)
      throws SQLException {
    if (!cell.equals("true") && !cell.equals("false")) {
      return "true or false";
    }
    if (loose) {
      statement.setInt(column, cell.equals("true") ? 1 : 0);
    } else {
      statement.setBoolean(column, cell.equals("true"));
    }
    return null;
  }
}
