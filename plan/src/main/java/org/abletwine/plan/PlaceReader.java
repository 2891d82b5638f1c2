package org.abletwine.plan;

import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/**
 * Reads where a table is written: {@code FILE}, or {@code { file: FILE, sheet: NAME }} and what
 * else can be stated of how it is written.
 */
final class PlaceReader {
  private static final Set<String> PLACE =
      PlanReader.ordered(
          "file", "sheet", "delimiter", "encoding", "line-end", "mark", "unknown", "decimal");
  private static final Set<String> TABLE = PlanReader.ordered("database", "table", "mode");

  private PlaceReader() {}

  /**
   * Reads a place.
   *
   * @param folder what relative paths are relative to
   * @param node the setting; null when it is not stated
   * @return null when it is not stated, or wrong, which is noted
   */
  static @Nullable Destination read(Path folder, @Nullable PlanNode node) {
    return read(folder, node, List.of());
  }

  /**
   * As {@link #read(Path, PlanNode)}, where other settings stand beside those of the place.
   *
   * @param others their names
   */
  static @Nullable Destination read(Path folder, @Nullable PlanNode node, List<String> others) {
    if (node == null) {
      return null;
    }
    if (node.has("database")) {
      Map<String, PlanNode> settings = node.entries(with(others, TABLE));
      PlanNode database = settings.get("database");
      return database == null
          ? null
          : new DatabaseReader(folder)
              .target(database, settings.get("table"), settings.get("mode"));
    }
    Map<String, PlanNode> settings =
        node.isMapping() ? node.entries(with(others, PLACE)) : Map.of("file", node);
    PlanNode file = settings.get("file");
    if (file == null) {
      node.wrong("state the file: { file: NAME.csv }");
      return null;
    }
    Path path = OutputReader.path(folder, file);
    if (path == null) {
      return null;
    }
    PlanNode lineEnd = settings.get("line-end");
    PlanNode mark = settings.get("mark");
    String end = lineEnd == null ? null : lineEnd.oneOf(List.of("lf", "crlf"));
    OutputOptions options =
        new OutputOptions(
            PlanReader.delimiter(settings.get("delimiter")),
            text(settings.get("encoding")),
            end == null ? null : end.equals("lf") ? "\n" : "\r\n",
            mark == null ? null : mark.yesOrNo(),
            text(settings.get("unknown")),
            text(settings.get("decimal")),
            text(settings.get("sheet")));
    try {
      return Tables.destination(path, options);
    } catch (SettingException e) {
      node.wrong(String.valueOf(e.getMessage()));
      return null;
    }
  }

  private static Set<String> with(List<String> others, Set<String> own) {
    Set<String> all = new LinkedHashSet<>(own);
    all.addAll(others);
    return all;
  }

  private static @Nullable String text(@Nullable PlanNode node) {
    return node == null ? null : node.text();
  }
}
