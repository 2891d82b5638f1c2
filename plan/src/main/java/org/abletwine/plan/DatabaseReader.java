package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.formats.database.Database;
import org.abletwine.formats.database.Secret;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;

/**
 * Reads where a database is and what of it is meant: {@code { url: ..., table: NAME }}, or {@code
 * query:} with {@code values:}. Credentials are told by where they come from, never by themselves.
 */
final class DatabaseReader {
  private static final Set<String> SOURCE =
      PlanReader.ordered("url", "user", "password", "table", "query", "values");
  private static final Set<String> TARGET = PlanReader.ordered("url", "user", "password");
  private static final Set<String> SECRET = PlanReader.ordered("env", "file");

  private final Path folder;

  /**
   * @param folder what relative paths are relative to
   */
  DatabaseReader(Path folder) {
    this.folder = folder;
  }

  /** A table or query, opened later with how it is read; null when something is wrong. */
  @Nullable Source source(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(SOURCE);
    Database database = database(node, settings);
    PlanNode table = settings.get("table");
    PlanNode query = settings.get("query");
    PlanNode values = settings.get("values");
    if (database == null) {
      return null;
    }
    if ((table == null) == (query == null)) {
      node.wrong("state one of table: NAME and query: \"select ...\"");
      return null;
    }
    String text = table == null ? query.written() : table.text();
    if (query != null && text != null && text.contains("${")) {
      query.wrong("a query takes no parameters in its text; write ? and state values: [...]");
      return null;
    }
    List<String> given = values == null ? List.of() : values.texts();
    if (text == null) {
      return null;
    }
    if (table != null && values != null) {
      values.wrong("values belong to the question marks of a query; there is none");
      return null;
    }
    return options ->
        table == null ? database.query(text, given, options) : database.table(text, options);
  }

  /** What is read, once it is known how. */
  interface Source {
    Table open(TableOptions options);
  }

  /** A table to write to; null when something is wrong. */
  @Nullable Destination target(PlanNode node, @Nullable PlanNode table, @Nullable PlanNode mode) {
    Database database = database(node, node.entries(TARGET));
    String name = table == null ? null : table.text();
    if (name == null) {
      node.wrong("state the table to write: { database: { url: ... }, table: NAME }");
    }
    String word = mode == null ? "create" : mode.oneOf(List.of("create", "append", "replace"));
    return database == null || name == null || word == null
        ? null
        : database.into(name, Database.Mode.valueOf(word.toUpperCase(java.util.Locale.ROOT)));
  }

  private @Nullable Database database(PlanNode node, Map<String, PlanNode> settings) {
    PlanNode url = settings.get("url");
    String text = url == null ? null : url.text();
    if (url == null || text == null) {
      node.wrong("state the address: { url: \"jdbc:postgresql://host/db\" }");
      return null;
    }
    List<@Nullable Secret> secrets = new ArrayList<>();
    for (String name : List.of("user", "password")) {
      PlanNode secret = settings.get(name);
      secrets.add(secret == null ? null : secret(secret));
    }
    try {
      return Database.at(text).within(folder).as(secrets.get(0), secrets.get(1));
    } catch (SettingException e) {
      url.wrong(String.valueOf(e.getMessage()));
      return null;
    }
  }

  private @Nullable Secret secret(PlanNode node) {
    if (!node.isMapping()) {
      node.wrong("a plan holds no credentials; state { env: NAME } or { file: PATH }");
      return null;
    }
    Map<String, PlanNode> settings = node.entries(SECRET);
    PlanNode variable = settings.get("env");
    PlanNode file = settings.get("file");
    if ((variable == null) == (file == null)) {
      node.wrong("state one of { env: NAME } and { file: PATH }");
      return null;
    }
    if (variable != null) {
      String name = variable.text();
      return name == null ? null : Secret.environment(name);
    }
    Path path = OutputReader.path(folder, file);
    return path == null ? null : Secret.file(path);
  }
}
