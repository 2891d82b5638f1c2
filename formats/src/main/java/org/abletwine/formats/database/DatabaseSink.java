package org.abletwine.formats.database;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.text.NearestName;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Writes a table of a database in one transaction: until it is committed nobody else sees anything
 * of it, and whatever ends the run before leaves the database as it was.
 */
final class DatabaseSink implements BatchSink {
  /** Rows that are sent at once. */
  private static final int SENT = 1_000;

  private final Database database;
  private final String table;
  private final Database.Mode mode;
  private List<@Nullable ColumnType> types = List.of();
  private List<String> names = List.of();
  private Set<String> hidden = Set.of();
  private @Nullable Session session;
  private @Nullable PreparedStatement insert;
  private CellWriter[] writers = {};
  private long rows;
  private int held;
  private boolean complete;

  DatabaseSink(Database database, String table, Database.Mode mode) {
    this.database = database;
    this.table = table;
    this.mode = mode;
  }

  @Override
  public void keepPrivate(List<String> columns) {
    hidden = Set.copyOf(columns);
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = new ArrayList<>(columns);
  }

  private @Nullable ColumnType type(int column) {
    return column < types.size() ? types.get(column) : null;
  }

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
    Session opened = new Session(database, true, !hidden.isEmpty());
    session = opened;
    Session.Found found = opened.findExact(table);
    if (found != null && mode == Database.Mode.CREATE) {
      throw new SettingException(
          place() + " is there already; name another, or state mode: append or mode: replace");
    }
    if (found == null && mode == Database.Mode.APPEND) {
      throw opened.missing(table);
    }
    try {
      if (found == null) {
        requireTransactions(opened);
        create(opened);
        found = Objects.requireNonNull(opened.findExact(table), "the table that was made");
      }
      prepare(opened, found);
      if (mode == Database.Mode.REPLACE) {
        try (Statement statement = opened.connection().createStatement()) {
          statement.executeUpdate("delete from " + opened.quoted(found));
        }
      }
    } catch (SQLException e) {
      throw opened.failed(place() + " cannot be written", e);
    }
  }

  /** Making a table must be undone with the rest; some databases commit at once. */
  private void requireTransactions(Session opened) throws SQLException {
    var data = opened.connection().getMetaData();
    if (data.dataDefinitionCausesTransactionCommit()
        || data.dataDefinitionIgnoredInTransactions()) {
      throw new SettingException(
          place()
              + ": this database does not make tables within a transaction; make the table first"
              + " and state mode: append");
    }
  }

  private void create(Session opened) throws SQLException {
    String columns =
        IntStream.range(0, names.size())
            .mapToObj(
                i ->
                    opened.quoted(names.get(i)) + " " + CellWriter.type(type(i), database.sqlite()))
            .collect(Collectors.joining(", "));
    try (Statement statement = opened.connection().createStatement()) {
      statement.executeUpdate("create table " + written(opened) + " (" + columns + ")");
    }
  }

  /** The name of a table to be made: a schema before it only where there is such a one. */
  private String written(Session opened) {
    int dot = table.indexOf('.');
    boolean schema =
        dot > 0
            && opened.tables(null).stream()
                .anyMatch(one -> table.substring(0, dot).equals(one.schema()));
    return schema
        ? opened.quoted(table.substring(0, dot)) + "." + opened.quoted(table.substring(dot + 1))
        : opened.quoted(table);
  }

  private void prepare(Session opened, Session.Found found) throws SQLException {
    String target = opened.quoted(found);
    writers = new CellWriter[names.size()];
    try (PreparedStatement head =
            opened.connection().prepareStatement("select * from " + target + " where 1 = 0");
        ResultSet none = head.executeQuery()) {
      ResultSetMetaData data = none.getMetaData();
      List<String> there = new ArrayList<>();
      for (int i = 1; i <= data.getColumnCount(); i++) {
        there.add(data.getColumnName(i));
      }
      for (int i = 0; i < writers.length; i++) {
        int at = there.indexOf(names.get(i));
        if (at < 0) {
          throw new SettingException(
              place()
                  + " has no column \""
                  + names.get(i)
                  + "\"; "
                  + NearestName.hint(names.get(i), there)
                  + "; call it otherwise with rename, or leave it out with drop-columns");
        }
        writers[i] =
            CellWriter.of(
                data.getColumnType(at + 1),
                String.valueOf(data.getColumnTypeName(at + 1)),
                type(i),
                database.sqlite());
      }
    }
    String columns = names.stream().map(opened::quoted).collect(Collectors.joining(", "));
    String values = names.stream().map(name -> "?").collect(Collectors.joining(", "));
    PreparedStatement made =
        opened
            .connection()
            .prepareStatement(
                "insert into " + target + " (" + columns + ") values (" + values + ")");
    Session.running(made);
    insert = made;
  }

  private String place() {
    return "table " + table + " of " + database;
  }

  @Override
  public void write(Batch batch, int[] columns) {
    PreparedStatement into = Objects.requireNonNull(insert);
    int column = 0;
    try {
      for (int row = 0; row < batch.rows(); row++) {
        for (column = 0; column < columns.length; column++) {
          String cell = batch.column(columns[column]).get(row);
          String wrong = writers[column].set(into, column + 1, cell);
          if (wrong != null) {
            throw new DataException(
                place()
                    + " row "
                    + (rows + 1)
                    + ", column "
                    + names.get(column)
                    + ": found \""
                    + Veil.over(hidden.contains(names.get(column)), cell)
                    + "\", and the column takes "
                    + wrong);
          }
        }
        into.addBatch();
        rows++;
        if (++held == SENT) {
          send();
        }
      }
    } catch (SQLException e) {
      throw failed(e);
    }
  }

  private void send() throws SQLException {
    if (held > 0) {
      Objects.requireNonNull(insert).executeBatch();
      held = 0;
    }
  }

  private DataException failed(SQLException e) {
    SQLException first = e.getNextException() == null ? e : e.getNextException();
    return Objects.requireNonNull(session)
        .failed(
            place()
                + " cannot be written: one of rows "
                + Math.max(1, rows - held + 1)
                + " to "
                + Math.max(1, rows)
                + " was refused, and none was kept",
            first);
  }

  @Override
  public void complete() {
    if (complete || session == null) {
      return;
    }
    try {
      send();
      complete = true;
    } catch (SQLException e) {
      throw failed(e);
    }
  }

  @Override
  public void commit() {
    complete();
    Session opened = session;
    if (opened != null) {
      try {
        opened.connection().commit();
      } catch (SQLException e) {
        throw opened.failed(place() + " was not written: the end of the transaction failed", e);
      }
      close();
    }
  }

  @Override
  public String form() {
    return String.format(
        Locale.ROOT,
        "%s, %,d %s in one transaction",
        mode.name().toLowerCase(Locale.ROOT),
        rows,
        rows == 1 ? "row" : "rows");
  }

  @Override
  public void close() {
    if (insert != null) {
      Session.ended(insert);
    }
    if (session != null) {
      session.close();
      session = null;
    }
  }
}
