package org.abletwine.formats.database;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.jspecify.annotations.Nullable;

/** A table or a query of a database. Its head is read once, on first need. */
final class DatabaseTable implements BatchTable {
  private final Database database;
  private final String name;
  private final @Nullable String query;
  private final List<String> values;
  private final TableOptions options;
  private @Nullable Head head;
  private @Nullable Schema schema;

  /** A sum over all cells in their order, of the first time the table was read to its end. */
  private @Nullable Long sum;

  DatabaseTable(
      Database database,
      String name,
      @Nullable String query,
      List<String> values,
      TableOptions options) {
    this.database = database;
    this.name = name;
    this.query = query;
    this.values = values;
    this.options = options;
  }

  /**
   * What is known of the columns.
   *
   * @param sql the statement that selects them
   * @param names their names
   * @param readers how each is read
   * @param likely what each is likely to hold
   */
  record Head(
      String sql,
      List<String> names,
      List<CellReader> readers,
      List<@Nullable ColumnType> likely) {}

  @Override
  public String name() {
    return query == null ? name : "query of " + database;
  }

  private synchronized Head head() {
    Head known = head;
    if (known == null) {
      try (Session session = new Session(database, false, !options.hidden().isEmpty())) {
        known = read(session);
      }
      head = known;
    }
    return known;
  }

  private Head read(Session session) {
    String sql = query;
    if (sql == null) {
      Session.Found found = session.find(name);
      if (found == null) {
        throw session.missing(name);
      }
      sql = "select * from " + session.quoted(found);
    }
    try (PreparedStatement statement = session.connection().prepareStatement(sql)) {
      set(statement);
      ResultSetMetaData data = statement.getMetaData();
      if (data != null && data.getColumnCount() > 0) {
        return head(sql, data);
      }
      statement.setMaxRows(1);
      try (ResultSet rows = statement.executeQuery()) {
        return head(sql, rows.getMetaData());
      }
    } catch (SQLException e) {
      throw session.failed(query == null ? place() : place() + " cannot be asked", e);
    }
  }

  private Head head(String sql, ResultSetMetaData data) throws SQLException {
    List<String> names = new ArrayList<>();
    List<CellReader> readers = new ArrayList<>();
    List<@Nullable ColumnType> likely = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (int i = 1; i <= data.getColumnCount(); i++) {
      String column = data.getColumnLabel(i);
      if (!seen.add(column)) {
        throw new DataException(
            place() + ": two columns are called \"" + column + "\"; name one otherwise with as");
      }
      String type = String.valueOf(data.getColumnTypeName(i));
      CellReader reader = CellReader.of(data.getColumnType(i), type, database.sqlite());
      if (reader == CellReader.BYTES) {
        throw new DataException(
            place()
                + ": column "
                + column
                + " holds bytes ("
                + type
                + "), which are no text; leave it out with query: \"select ...\"");
      }
      names.add(column);
      readers.add(reader);
      likely.add(database.sqlite() ? declared(type) : reader.type());
    }
    return new Head(sql, names, readers, likely);
  }

  /** What a column that may hold anything is declared to hold. */
  private static @Nullable ColumnType declared(String type) {
    String word = type.toUpperCase(Locale.ROOT).replaceAll("\\s*\\(.*", "");
    return switch (word) {
      case "INTEGER", "INT", "BIGINT", "NUMERIC", "DECIMAL", "REAL", "FLOAT", "DOUBLE" ->
          ColumnType.of(ColumnType.Kind.NUMBER);
      case "DATE" -> ColumnType.of(ColumnType.Kind.DATE);
      case "TIMESTAMP", "DATETIME" -> ColumnType.of(ColumnType.Kind.DATE_TIME);
      case "BOOLEAN", "BOOL" -> ColumnType.of(ColumnType.Kind.BOOLEAN);
      default -> null;
    };
  }

  /** Gives the statement its values. */
  void set(PreparedStatement statement) throws SQLException {
    int wanted = values.isEmpty() ? 0 : statement.getParameterMetaData().getParameterCount();
    if (wanted != values.size() && !values.isEmpty()) {
      throw new SettingException(
          place() + ": " + values.size() + " values are given for " + wanted + " question marks");
    }
    for (int i = 0; i < values.size(); i++) {
      if (database.postgres()) {
        statement.setObject(i + 1, values.get(i), Types.OTHER); // the server knows its type
      } else {
        statement.setString(i + 1, values.get(i));
      }
    }
  }

  /** {@return what it is, for messages} */
  String place() {
    return query == null ? "table " + name + " of " + database : name();
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = new Schema(head().names());
      schema = known;
    }
    return known;
  }

  @Override
  public boolean isPrivate(String column) {
    return options.hidden().contains(column);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    ColumnType stated = options.types().get(column);
    int at = stated == null ? schema().indexOf(column) : -1;
    return at < 0 ? stated : head().readers().get(at).type();
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    ColumnType known = type(column);
    int at = known == null ? schema().indexOf(column) : -1;
    return at < 0 ? known : head().likely().get(at);
  }

  /**
   * Called once the table was read to its end. A server gives rows in any order, and row numbers
   * mean nothing when the second time it is another: that is told.
   *
   * @param found a sum over all cells in their order
   */
  synchronized void readWhole(long found) {
    if (sum == null) {
      sum = found;
    } else if (sum != found) {
      throw new DataException(
          place()
              + " gave other rows, or the same in another order, when it was read again; state an"
              + " order by in a query, or run again once nothing writes to it");
    }
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    Head known = head();
    return new BatchPieces(
        new DatabaseReader(
            this,
            new Session(database, false, !options.hidden().isEmpty()),
            known,
            Set.copyOf(options.nulls())),
        known.names().size(),
        wanted);
  }

  @Override
  public String toString() {
    return "DatabaseTable[" + place() + "]";
  }
}
