package org.abletwine.formats.database;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/**
 * SQLite files by their ending, and addresses that begin with {@code jdbc:} where a file is named,
 * with the table as a sheet is stated. User and password of such an address come from the
 * environment variables {@code DATABASE_USER} and {@code DATABASE_PASSWORD}.
 */
public final class DatabaseFormat implements TableFormat {
  private static final List<String> ENDINGS = List.of(".db", ".sqlite", ".sqlite3");
  private static final String ADDRESS = "jdbc:";

  /** Stands for the two slashes of an address, which a path would make one of. */
  private static final String SLASHES = "\uE000";

  /** Called by the service loader. */
  public DatabaseFormat() {}

  @Override
  public boolean handles(Path path) {
    String name = path.toString().toLowerCase(Locale.ROOT);
    return name.startsWith(ADDRESS) || ENDINGS.stream().anyMatch(name::endsWith);
  }

  @Override
  public boolean writes(Path path) {
    return false;
  }

  /**
   * What is named on a command line where a file may stand.
   *
   * @param text a file, or an address that begins with {@code jdbc:}
   * @return a path that stands for it
   */
  public static Path place(String text) {
    return Path.of(text.startsWith(ADDRESS) ? text.replace("//", SLASHES) : text);
  }

  private static Database database(Path path) {
    String name = path.toString();
    if (!name.startsWith(ADDRESS)) {
      return Database.at("jdbc:sqlite:" + name);
    }
    return Database.at(name.replace(SLASHES, "//"))
        .as(given("DATABASE_USER"), given("DATABASE_PASSWORD"));
  }

  private static @Nullable Secret given(String variable) {
    return System.getenv(variable) == null ? null : Secret.environment(variable);
  }

  @Override
  public boolean hasSheets(Path path) {
    return true;
  }

  @Override
  public Table table(Path path, TableOptions options) {
    Database database = database(path);
    TableOptions.Sheet part = options.sheet();
    String table = part == null ? null : part.sheet();
    return database.table(table == null ? only(database) : table, options);
  }

  /** The only table there is. */
  private static String only(Database database) {
    try (Session session = new Session(database, false, false)) {
      List<String> names = session.tables(null).stream().map(Session.Found::name).toList();
      if (names.size() == 1) {
        return names.get(0);
      }
      throw new SettingException(
          database
              + (names.isEmpty()
                  ? " has no tables"
                  : " has several tables; state one with --table NAME, of "
                      + String.join(", ", names)));
    }
  }

  @Override
  public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
    throw new SettingException(
        path + ": a table of a database is written with { database: { url: ... }, table: NAME }");
  }
}
