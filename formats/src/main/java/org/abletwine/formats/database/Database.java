package org.abletwine.formats.database;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Pattern;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.FormedTable;
import org.jspecify.annotations.Nullable;

/**
 * A database that is reached through JDBC. Nothing is opened before a table of it is read or
 * written. Immutable and safe to share; holds no credentials, only where they come from.
 */
public final class Database {
  private static final String SQLITE = "jdbc:sqlite:";

  /** What in an address looks like a credential. */
  private static final Pattern CREDENTIAL =
      Pattern.compile(
          "(?i)(?:password|passwd|passphrase|pwd|secret|token|user|username|uid)\\s*=[^&;?]*"
              + "|//[^/@?]*@");

  private final String url;
  private final @Nullable Secret user;
  private final @Nullable Secret password;

  private Database(String url, @Nullable Secret user, @Nullable Secret password) {
    this.url = url;
    this.user = user;
    this.password = password;
  }

  /** What becomes of a table that is there already. */
  public enum Mode {
    /** There must be none of that name; it is made. */
    CREATE,
    /** It must be there; rows are added to those it has. */
    APPEND,
    /** Its rows make way for those written; it is made when it is not there. */
    REPLACE
  }

  /**
   * A database.
   *
   * @param url its address, as its driver takes it, such as {@code jdbc:postgresql://host/db}
   * @throws SettingException when it is no such address, or holds a credential
   */
  public static Database at(String url) {
    Objects.requireNonNull(url, "url");
    if (!url.startsWith("jdbc:")) {
      throw new SettingException(
          "url: expected an address such as jdbc:postgresql://host/db or jdbc:sqlite:FILE, found \""
              + shown(url)
              + "\"");
    }
    if (CREDENTIAL.matcher(url).find()) {
      throw new SettingException(
          "url: "
              + shown(url)
              + " holds a user or a password; take it out and state user: { env: NAME } and"
              + " password: { env: NAME }, or { file: PATH }");
    }
    return new Database(url, null, null);
  }

  /** An address without what may be a credential. */
  private static String shown(String url) {
    return CREDENTIAL.matcher(url).replaceAll("***");
  }

  /**
   * {@return the same for a user}
   *
   * @param name where the user's name comes from; null for none
   * @param secret where the password comes from; null for none
   */
  public Database as(@Nullable Secret name, @Nullable Secret secret) {
    return new Database(url, name, secret);
  }

  /**
   * {@return the same with a file that its address names relative to a folder}
   *
   * @param folder the folder
   */
  public Database within(Path folder) {
    Objects.requireNonNull(folder, "folder");
    if (!url.startsWith(SQLITE)) {
      return this;
    }
    String rest = url.substring(SQLITE.length());
    int query = rest.indexOf('?');
    String file = query < 0 ? rest : rest.substring(0, query);
    if (file.isEmpty() || file.startsWith(":") || file.startsWith("file:")) {
      return this;
    }
    String tail = query < 0 ? "" : rest.substring(query);
    return new Database(SQLITE + folder.resolve(file) + tail, user, password);
  }

  /**
   * A table of the database.
   *
   * @param name its name; {@code SCHEMA.NAME} where it is in another schema
   */
  public Table table(String name) {
    Objects.requireNonNull(name, "name");
    return table(name, TableOptions.NONE);
  }

  /**
   * A table of the database.
   *
   * @param name its name; {@code SCHEMA.NAME} where it is in another schema
   * @param options null words and types of columns; the others do not matter
   */
  public Table table(String name, TableOptions options) {
    Objects.requireNonNull(options, "options");
    return FormedTable.of(
        new DatabaseTable(this, Objects.requireNonNull(name, "name"), null, List.of(), options),
        options);
  }

  /**
   * What a query gives.
   *
   * @param sql a statement that selects; {@code ?} stands for each value
   * @param values the values, as texts
   */
  public Table query(String sql, List<String> values) {
    Objects.requireNonNull(sql, "sql");
    Objects.requireNonNull(values, "values");
    return query(sql, values, TableOptions.NONE);
  }

  /**
   * What a query gives.
   *
   * @param sql a statement that selects; {@code ?} stands for each value
   * @param values the values, as texts
   * @param options null words and types of columns; the others do not matter
   */
  public Table query(String sql, List<String> values, TableOptions options) {
    Objects.requireNonNull(values, "values");
    Objects.requireNonNull(options, "options");
    return FormedTable.of(
        new DatabaseTable(
            this, "query", Objects.requireNonNull(sql, "sql"), List.copyOf(values), options),
        options);
  }

  /**
   * A table to write to, in one transaction.
   *
   * @param table its name; {@code SCHEMA.NAME} where it is in another schema
   * @param mode what becomes of one that is there already
   */
  public Destination into(String table, Mode mode) {
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(mode, "mode");
    return new Place(this, table, mode);
  }

  /** A table that is written to. */
  private record Place(Database database, String table, Mode mode) implements Destination {
    @Override
    public TableSink open(@Nullable TableSink beside) {
      return new DatabaseSink(database, table, mode);
    }

    @Override
    public @Nullable Path file() {
      return null;
    }

    @Override
    public String shortName() {
      return "table " + table;
    }

    @Override
    public String toString() {
      return "table " + table + " of " + database;
    }
  }

  String url() {
    return url;
  }

  @Nullable Secret user() {
    return user;
  }

  @Nullable Secret password() {
    return password;
  }

  boolean sqlite() {
    return url.startsWith(SQLITE);
  }

  /** {@return the file that a SQLite database is in; null for any other} */
  @Nullable Path file() {
    String rest = sqlite() ? url.substring(SQLITE.length()).replaceAll("\\?.*", "") : "";
    return rest.isEmpty() || rest.startsWith(":") || rest.startsWith("file:")
        ? null
        : Path.of(rest);
  }

  boolean postgres() {
    return url.toLowerCase(Locale.ROOT).startsWith("jdbc:postgresql:");
  }

  /** {@return the address without what follows a question mark, for messages} */
  @Override
  public String toString() {
    Path file = file();
    return file != null ? file.toString() : shown(url.replaceAll("\\?.*", ""));
  }
}
