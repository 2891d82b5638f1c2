package org.abletwine.formats.database;

import static java.util.stream.Collectors.joining;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.Driver;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * A connection to a database, and what to say when something goes wrong with it: no message ever
 * holds a credential. Used by one thread at a time.
 */
final class Session implements AutoCloseable {
  /** Statements under way, so that a process that is ended ends them on the server too. */
  private static final Set<Statement> RUNNING = ConcurrentHashMap.newKeySet();

  static {
    Runtime.getRuntime().addShutdownHook(new Thread(Session::cancelAll, "end statements"));
  }

  private final Database database;
  private final boolean hides;
  private final Connection connection;
  private final List<String> secrets = new ArrayList<>();

  /**
   * Connects.
   *
   * @param database where
   * @param writes whether anything will be written; the connection refuses it otherwise
   * @param hides whether what the database says of data must not be shown
   */
  Session(Database database, boolean writes, boolean hides) {
    this.hides = hides;
    this.database = database;
    Driver driver = Drivers.of(database);
    Path file = database.file();
    if (file != null && !writes && !Files.exists(file)) {
      throw new DataException("there is no file " + file + "; check the name of the database");
    }
    Properties settings = new Properties();
    put(settings, "user", database.user());
    put(settings, "password", database.password());
    if (database.sqlite()) {
      settings.put("open_mode", writes ? "6" : "1"); // read and write, making it; read only
      settings.put("busy_timeout", "10000");
    }
    if (database.postgres()) {
      settings.put("reWriteBatchedInserts", "true");
      settings.put("ApplicationName", "able-twine");
      settings.put("loginTimeout", "30");
      settings.put("tcpKeepAlive", "true");
      settings.put("binaryTransfer", "false"); // values are wanted as the server writes them
    }
    try {
      Connection made = driver.connect(database.url(), settings);
      if (made == null) {
        throw new SettingException("the driver takes no address such as " + database);
      }
      connection = made;
    } catch (SQLException e) {
      throw failed("cannot connect to " + database, e);
    }
    if (!writes && !database.sqlite()) {
      readOnly();
    }
    try {
      connection.setAutoCommit(false);
    } catch (SQLException e) {
      close();
      throw failed("cannot begin with " + database, e);
    }
  }

  private void readOnly() {
    try {
      connection.setReadOnly(true);
    } catch (SQLException e) {
      // a driver that cannot promise it; nothing but what is asked for is sent
    }
  }

  private void put(Properties settings, String name, @Nullable Secret secret) {
    if (secret != null) {
      String value = secret.fetch();
      settings.put(name, value);
      if (name.equals("password") && !value.isEmpty()) {
        secrets.add(value);
      }
    }
  }

  Connection connection() {
    return connection;
  }

  /** Notes a statement that runs, to be ended with the process. */
  static void running(Statement statement) {
    RUNNING.add(statement);
  }

  static void ended(Statement statement) {
    RUNNING.remove(statement);
  }

  static void cancelAll() {
    for (Statement statement : RUNNING) {
      try {
        statement.cancel();
      } catch (SQLException e) {
        // the server ends it when the connection is gone
      }
    }
  }

  /** What to tell when something failed. */
  DataException failed(String what, SQLException e) {
    String state = e.getSQLState() == null ? "" : e.getSQLState();
    String next =
        switch (state.length() < 2 ? "" : state.substring(0, 2)) {
          case "28" ->
              "; check the user and the password, and where they come from ("
                  + (database.user() == null ? "no user is stated" : database.user())
                  + ")";
          case "08", "57" -> "; check that the server runs and can be reached, then run again";
          default -> "";
        };
    boolean ofData = hides && next.isEmpty();
    String reason =
        ofData
            ? "the database refused it (SQLSTATE "
                + state
                + "; what else it says is left out, since"
                + " it may hold a value of a private column)"
            : String.valueOf(e.getMessage()).replaceAll("\\s+", " ").replaceAll("[.\\s]+$", "");
    boolean told = false;
    for (String secret : secrets) {
      told |= all(e).contains(secret);
      reason = reason.replace(secret, "***");
    }
    String message = what + ": " + reason + next;
    return told ? new DataException(message) : new DataException(message, e);
  }

  /** All that an error and its causes say. */
  private static String all(Throwable e) {
    StringBuilder text = new StringBuilder();
    for (Throwable at = e; at != null && text.length() < 100_000; at = at.getCause()) {
      text.append(at);
    }
    return text.toString();
  }

  /** A name as it is written in a statement: as it is, in the quotes of the database. */
  String quoted(String name) {
    try {
      String quote = connection.getMetaData().getIdentifierQuoteString().strip();
      return quote.isEmpty() ? name : quote + name.replace(quote, quote + quote) + quote;
    } catch (SQLException e) {
      throw failed("cannot ask " + database, e);
    }
  }

  /** A table as the database knows it. */
  record Found(@Nullable String schema, String name) {}

  /** A found table as it is written in a statement. */
  String quoted(Found table) {
    return (table.schema == null ? "" : quoted(table.schema) + ".") + quoted(table.name);
  }

  /**
   * Looks for a table or view to read: one of the very name first, then one that differs in case,
   * in the usual schema first.
   *
   * @param stated its name, or schema and name
   * @return null when there is none of that name
   * @throws SettingException when several schemas have one, and none of them is the usual
   */
  @Nullable Found find(String stated) {
    int dot = stated.indexOf('.');
    Found whole = find(null, stated);
    return whole != null || dot < 1
        ? whole
        : find(stated.substring(0, dot), stated.substring(dot + 1));
  }

  private @Nullable Found find(@Nullable String schema, String name) {
    List<Found> all = tables(schema);
    List<Found> exact = all.stream().filter(table -> table.name.equals(name)).toList();
    List<Found> found =
        exact.isEmpty()
            ? all.stream().filter(table -> table.name.equalsIgnoreCase(name)).toList()
            : exact;
    String usual = schema == null ? current() : schema;
    for (Found table : found) {
      if (usual == null || usual.equals(table.schema)) {
        return table;
      }
    }
    if (found.size() > 1) {
      throw new SettingException(
          database
              + " has several tables \""
              + name
              + "\"; state one of "
              + found.stream().map(one -> one.schema + "." + one.name).collect(joining(", ")));
    }
    return found.isEmpty() ? null : found.get(0);
  }

  /**
   * Looks for a table to write to: of the very name, in the schema stated or else the usual one, so
   * that no other is ever written to.
   *
   * @param stated its name, or schema and name
   * @return null when there is none
   */
  @Nullable Found findExact(String stated) {
    int dot = stated.indexOf('.');
    String usual = current();
    for (Found table : tables(null)) {
      boolean here = usual == null || usual.equals(table.schema);
      boolean there = dot > 0 && (table.schema + "." + table.name).equals(stated);
      if (here && table.name.equals(stated) || there) {
        return table;
      }
    }
    return null;
  }

  private @Nullable String current() {
    try {
      return connection.getSchema();
    } catch (SQLException e) {
      return null; // not every driver knows; the first found is taken
    }
  }

  /** The tables and views, those of the system left out. */
  List<Found> tables(@Nullable String schema) {
    List<Found> tables = new ArrayList<>();
    try {
      DatabaseMetaData data = connection.getMetaData();
      try (ResultSet rows = data.getTables(connection.getCatalog(), schema, "%", null)) {
        while (rows.next()) {
          String type = String.valueOf(rows.getString("TABLE_TYPE")).toUpperCase(Locale.ROOT);
          String in = rows.getString("TABLE_SCHEM");
          boolean ours = in == null || !in.matches("(?i)pg_.*|information_schema|sys");
          if (ours
              && (type.contains("TABLE") || type.contains("VIEW"))
              && !type.contains("SYSTEM")) {
            tables.add(new Found(in, rows.getString("TABLE_NAME")));
          }
        }
      }
      return tables;
    } catch (SQLException e) {
      throw failed("cannot list the tables of " + database, e);
    }
  }

  /** What to say when there is no table of a name. */
  SettingException missing(String stated) {
    List<String> names = tables(null).stream().map(Found::name).distinct().toList();
    return new SettingException(
        database
            + " has no table \""
            + stated
            + "\"; "
            + (names.isEmpty() ? "it has none" : NearestName.hint(stated, names)));
  }

  @Override
  public void close() {
    try {
      if (!connection.getAutoCommit()) {
        connection.rollback();
      }
    } catch (SQLException e) {
      // gone already: nothing was committed
    }
    try {
      connection.close();
    } catch (SQLException e) {
      // gone already
    }
  }
}
