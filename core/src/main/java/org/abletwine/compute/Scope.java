package org.abletwine.compute;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import net.sf.jsqlparser.schema.Column;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/** The columns an expression may name. */
final class Scope {
  private final Columns columns;
  private final String where;
  private final String text;
  private final List<String> used = new ArrayList<>();

  /**
   * @param columns the columns so far
   * @param where the setting, for messages
   * @param text the whole expression, for messages
   */
  Scope(Columns columns, String where, String text) {
    this.columns = columns;
    this.where = where;
    this.text = text;
  }

  Node column(String written, Kind wanted) {
    String name = unquoted(written);
    Collection<String> names = columns.names();
    if (!names.contains(name)) {
      int place = text.indexOf(written);
      throw new SettingException(
          where
              + ": no column is called \""
              + name
              + "\""
              + (place < 0 ? "" : " (at character " + (place + 1) + ")")
              + "; "
              + NearestName.hint(name, names));
    }
    if (!used.contains(name)) {
      used.add(name);
    }
    ColumnType type = columns.type(name);
    Kind kind = kind(type, wanted);
    return new Leaves.Column(kind, name, columns.require(name, where), type);
  }

  /** The column of that name, whatever its case; null when there is none. */
  @Nullable String columnLike(String word) {
    return columns.names().stream().filter(word::equalsIgnoreCase).findFirst().orElse(null);
  }

  private static String unquoted(String written) {
    return written.length() > 1 && written.startsWith("\"") && written.endsWith("\"")
        ? written.substring(1, written.length() - 1).replace("\"\"", "\"")
        : written;
  }

  private static Kind kind(@Nullable ColumnType type, Kind wanted) {
    if (type == null) {
      return wanted == Kind.ANY ? Kind.TEXT : wanted;
    }
    return switch (type.kind()) {
      case NUMBER, INTEGER -> Kind.NUMBER;
      case DATE -> Kind.DATE;
      default -> Kind.TEXT;
    };
  }

  /** Whether the column's type is stated, and so not for its use to decide. */
  boolean typed(String written) {
    return columns.type(unquoted(written)) != null;
  }

  /** Whether a column holds days with times. */
  boolean isDateTime(Column column) {
    ColumnType type = columns.type(unquoted(column.getFullyQualifiedName()));
    return type != null && type.kind() == ColumnType.Kind.DATE_TIME;
  }

  /** How a column writes dates, and dates with times; nothing for ISO 8601. */
  List<String> patterns(Column column) {
    ColumnType type = columns.type(unquoted(column.getFullyQualifiedName()));
    boolean dates = type != null && isDateTime(column);
    return type != null && dates ? type.patterns() : List.of();
  }

  List<String> used() {
    return used;
  }

  SettingException wrong(String message) {
    return new SettingException(where + ": " + message + ", in `" + text + "`");
  }

  /** A part of the expression that does not fit. */
  SettingException wrongPart(Object part, String message) {
    String written = String.valueOf(part);
    int place =
        text.toLowerCase(java.util.Locale.ROOT).indexOf(written.toLowerCase(java.util.Locale.ROOT));
    return wrong(
        "`"
            + written
            + "`"
            + (place < 0 ? "" : " (at character " + (place + 1) + ")")
            + " "
            + message);
  }
}
