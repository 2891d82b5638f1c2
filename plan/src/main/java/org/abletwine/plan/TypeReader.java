package org.abletwine.plan;

import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.ColumnType;
import org.abletwine.table.ColumnType.Kind;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/** Reads what columns hold: {@code types: { COLUMN: number, OTHER: { date: dd.MM.yyyy } }}. */
final class TypeReader {
  private static final List<String> WORDS =
      List.of("text", "number", "integer", "decimal", "date", "date-time");

  private TypeReader() {}

  static Map<String, ColumnType> read(@Nullable PlanNode node) {
    Map<String, ColumnType> types = new LinkedHashMap<>();
    if (node != null) {
      node.anyEntries()
          .forEach(
              (column, type) -> {
                ColumnType read = type.isMapping() ? patterned(type) : plain(type);
                if (read != null) {
                  types.put(column, read);
                }
              });
    }
    return types;
  }

  private static @Nullable ColumnType plain(PlanNode node) {
    String word = node.oneOf(WORDS);
    return word == null ? null : ColumnType.of(kind(word));
  }

  private static Kind kind(String word) {
    return switch (word) {
      case "text" -> Kind.TEXT;
      case "integer" -> Kind.INTEGER;
      case "date" -> Kind.DATE;
      case "date-time" -> Kind.DATE_TIME;
      default -> Kind.NUMBER;
    };
  }

  private static @Nullable ColumnType patterned(PlanNode node) {
    Map<String, PlanNode> settings =
        node.entries(PlanReader.ordered("date", "date-time", "number", "decimal", "integer"));
    for (String word : List.of("number", "decimal", "integer")) {
      PlanNode example = settings.get(word);
      if (example != null && settings.size() == 1) {
        return numbered(word, example);
      }
    }
    for (String word : List.of("date", "date-time")) {
      PlanNode patterns = settings.get(word);
      if (patterns != null) {
        List<String> texts = patterns.texts();
        for (String pattern : texts) {
          try {
            DateTimeFormatter.ofPattern(pattern);
          } catch (IllegalArgumentException e) {
            patterns.wrong("cannot read the pattern \"" + pattern + "\": " + e.getMessage());
            return null;
          }
        }
        return new ColumnType(kind(word), texts);
      }
    }
    node.wrong(
        "expected one of "
            + String.join(", ", WORDS)
            + ", or { date: PATTERN }, or { decimal: \"1.234,56\" }");
    return null;
  }

  /** A type of numbers that are written as an example says. */
  private static @Nullable ColumnType numbered(String word, PlanNode node) {
    String example = node.text();
    if (example == null) {
      return null;
    }
    Kind kind = kind(word);
    try {
      NumberForm.of(example, word.equals("integer"));
    } catch (IllegalArgumentException e) {
      node.wrong("\"" + example + "\" is no example of a number: " + e.getMessage());
      return null;
    }
    return new ColumnType(kind, List.of(example));
  }
}
