package org.abletwine.cli;

import java.util.List;
import java.util.Map;
import org.abletwine.plan.Delimiters;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import picocli.CommandLine.Option;

/** How to read tables, where it is not to be found from the data. */
final class ReadingOptions {
  @Option(
      names = "--delimiter",
      paramLabel = "NAME",
      description = "comma, semicolon, tab, pipe or a character. Default: found from the data.")
  private String delimiter;

  @Option(
      names = "--encoding",
      paramLabel = "NAME",
      description = "Such as windows-1252. Default: what the byte-order mark says, else utf-8.")
  private String encoding;

  @Option(
      names = "--header",
      paramLabel = "yes|no",
      description = "Whether the first row holds the names. Default: found from the data.")
  private String header;

  @Option(
      names = "--nulls",
      paramLabel = "WORDS",
      split = ",",
      description = "Words that stand for null, beside the empty cell.")
  private List<String> nulls = List.of();

  @Option(
      names = "--ragged",
      paramLabel = "fail|pad",
      defaultValue = "fail",
      description = "For rows with too few cells. Default: ${DEFAULT-VALUE}.")
  private String ragged;

  @Option(
      names = "--nested",
      paramLabel = "text|columns",
      defaultValue = "text",
      description =
          "In JSON, what an object within an object becomes: one column of text, or a"
              + " column for each member. Default: ${DEFAULT-VALUE}.")
  private String nested;

  @Option(
      names = "--source",
      paramLabel = "COLUMN",
      description = "Adds a column with the name of the file each row is of.")
  private String source;

  TableOptions options() {
    Character character = delimiter == null ? null : Delimiters.parse(delimiter);
    if (delimiter != null && character == null) {
      throw new SettingException("--delimiter: " + Delimiters.expected(delimiter));
    }
    if (header != null && !List.of("yes", "no").contains(header)) {
      throw new SettingException("--header: expected yes or no, found \"" + header + "\"");
    }
    if (!List.of("fail", "pad").contains(ragged)) {
      throw new SettingException("--ragged: expected fail or pad, found \"" + ragged + "\"");
    }
    if (!List.of("text", "columns").contains(nested)) {
      throw new SettingException("--nested: expected text or columns, found \"" + nested + "\"");
    }
    return new TableOptions(
        character,
        null,
        header == null ? null : header.equals("yes"),
        encoding,
        nulls,
        ragged.equals("pad"),
        Map.of(),
        nested.equals("columns"),
        source);
  }
}
