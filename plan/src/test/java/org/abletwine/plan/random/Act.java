package org.abletwine.plan.random;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/** A step of a plan: as the plan states it, and as the oracle does it, row after row. */
interface Act {

  /** A row on its way: its number among the transactions, and its columns so far. */
  record Line(int number, Map<String, @Nullable String> cells) {
    @Nullable String get(String column) {
      return cells.get(column);
    }

    Line with(String column, @Nullable String value) {
      Map<String, @Nullable String> more = new LinkedHashMap<>(cells);
      more.put(column, value);
      return new Line(number, more);
    }
  }

  /** What an oracle's step has to tell beside its rows. */
  record Told(List<String> exceptions, Map<String, Map<String, Long>> figures) {}

  String inPlan(int indent);

  /** Adds the references it needs, as the plan states them. */
  default void state(List<String> references) {}

  List<Line> apply(List<Line> rows, Told told);

  /** Corrections of a column. */
  record Correct(String column, Grid table, Map<String, String> lines, boolean part)
      implements Act {
    @Override
    public String inPlan(int indent) {
      return "  - correct: " + column + "\n    using: " + table.name + "\n    part: " + part + "\n";
    }

    @Override
    public void state(List<String> references) {
      references.add("  " + table.name + ": { file: " + table.name + ".csv }\n");
    }

    @Override
    public List<Line> apply(List<Line> rows, Told told) {
      return rows.stream().map(row -> row.with(column, corrected(row.get(column)))).toList();
    }

    private @Nullable String corrected(@Nullable String value) {
      String now = value;
      if (part) {
        for (Map.Entry<String, String> line : lines.entrySet()) {
          now = now == null ? null : now.replace(line.getKey(), line.getValue());
        }
        return now;
      }
      for (int links = 0; now != null && lines.containsKey(now.strip()) && links < 9; links++) {
        now = lines.get(now.strip());
      }
      return now;
    }
  }

  /** A coalesced column. */
  record Coalesce(String column, List<String> from, @Nullable String fill) implements Act {
    @Override
    public String inPlan(int indent) {
      return "  - coalesce: "
          + column
          + "\n    from: ["
          + String.join(", ", from)
          + "]\n"
          + (fill == null ? "" : "    fill: " + fill + "\n");
    }

    @Override
    public List<Line> apply(List<Line> rows, Told told) {
      List<Line> out = new ArrayList<>();
      for (Line row : rows) {
        String value = row.get(from.get(0));
        value = value == null ? row.get(from.get(1)) : value;
        out.add(row.with(column, value == null ? fill : value));
      }
      return out;
    }
  }

  /** A filter. */
  record Keep(String condition, Predicate<Line> holds) implements Act {
    @Override
    public String inPlan(int indent) {
      return "  - keep: \"" + condition.replace("\"", "\\\"") + "\"\n";
    }

    @Override
    public List<Line> apply(List<Line> rows, Told told) {
      return rows.stream().filter(holds).toList();
    }
  }

  static boolean likeOrNull(Line row) {
    String text = row.get("t");
    return row.get("k1") == null || text != null && text.matches("(?s).*\"b.");
  }

  static Predicate<Line> below(String column, int limit) {
    return row -> {
      BigDecimal number = number(row.get(column));
      return row.get(column) == null
          || number != null && number.compareTo(BigDecimal.valueOf(limit)) < 0;
    };
  }

  /** A computed column. */
  record Compute(String column, String expression, Function<Line, @Nullable String> value)
      implements Act {
    @Override
    public String inPlan(int indent) {
      return "  - compute: { " + column + ": \"" + expression + "\" }\n";
    }

    @Override
    public List<Line> apply(List<Line> rows, Told told) {
      return rows.stream().map(row -> row.with(column, value.apply(row))).toList();
    }
  }

  static @Nullable BigDecimal number(@Nullable String text) {
    try {
      return text == null ? null : new BigDecimal(text);
    } catch (NumberFormatException e) {
      return null; // errors are null in plans that draw such cells
    }
  }

  private static @Nullable String plain(@Nullable BigDecimal number) {
    return number == null ? null : number.toPlainString();
  }

  static Function<Line, @Nullable String> arithmetic(@Nullable String a, char sign, String b) {
    return row -> {
      BigDecimal x = a == null ? BigDecimal.ZERO : number(row.get(a));
      BigDecimal y = number(row.get(b));
      if (x == null || y == null) {
        return null;
      }
      return plain(sign == '+' ? x.add(y) : sign == '-' ? x.subtract(y) : x.multiply(y));
    };
  }

  static Function<Line, @Nullable String> cases(String a, String b) {
    return row -> {
      BigDecimal x = number(row.get(a));
      boolean more = x != null && x.compareTo(BigDecimal.valueOf(2)) > 0;
      return more ? plain(number(row.get(b))) : "1";
    };
  }

  static Function<Line, @Nullable String> twice(String a, String b) {
    return row -> {
      BigDecimal x = number(row.get(a));
      x = x == null ? number(row.get(b)) : x;
      return x == null ? null : plain(x.multiply(BigDecimal.valueOf(2)));
    };
  }

  static @Nullable String joined(Line row) {
    String text = row.get("t");
    String key = row.get("k2");
    return text == null || key == null ? null : text.toUpperCase(Locale.ROOT) + "-" + key;
  }

  static @Nullable String days(Line row) {
    String day = row.get("d");
    if (day == null) {
      return null;
    }
    return ""
        + ChronoUnit.DAYS.between(LocalDate.of(2026, 7, 1), LocalDate.parse(day.substring(0, 10)));
  }

  /** A lookup. */
  record Lookup(
      Look look,
      @Nullable String mark,
      Map<String, String> treatments,
      boolean fillsEmpty,
      @Nullable Keep when)
      implements Act {
    @Override
    public String inPlan(int indent) {
      StringBuilder text = new StringBuilder();
      text.append("  - lookup: ").append(look.name()).append('\n');
      text.append(settings(look, "    "));
      treatments.forEach(
          (outcome, action) ->
              text.append("    " + outcome + ": ")
                  .append(action.equals("drop") ? "drop\n" : fills(outcome) + "\n"));
      text.append(fillsEmpty ? "    empty: " + fills("empty") + "\n" : "");
      if (when != null) {
        text.append("    when: \"").append(when.condition().replace("\"", "\\\"")).append("\"\n");
      }
      text.append(mark == null ? "" : "    mark: " + mark + "\n");
      for (Look other : look.otherwise()) {
        text.append("    otherwise:\n      - reference: ").append(other.name()).append('\n');
        text.append(settings(other, "        "));
      }
      return text.toString();
    }

    private String fills(String outcome) {
      List<String> fills = look.bring().keySet().stream().map(as -> as + ": 9").toList();
      return "{ fill: { " + String.join(", ", fills) + " } } # " + outcome;
    }

    private static String settings(Look look, String indent) {
      List<String> parts = look.key().stream().map(Fit::inPlan).toList();
      List<String> bring = new ArrayList<>();
      look.bring().forEach((as, source) -> bring.add(source + " as " + as));
      return indent
          + "key: ["
          + String.join(", ", parts)
          + "]\n"
          + indent
          + "bring: ["
          + String.join(", ", bring)
          + "]\n"
          + indent
          + "several: "
          + look.several()
          + "\n";
    }

    @Override
    public void state(List<String> references) {
      List<Look> all = new ArrayList<>(look.otherwise());
      all.add(look);
      for (Look one : all) {
        references.add(
            "  "
                + one.name()
                + ": { file: "
                + one.table().name
                + ".csv"
                + (one.where() ? ", where: \"keep = 'y'\"" : "")
                + (one.duplicates().isEmpty() ? "" : ", duplicates: " + one.duplicates())
                + " }\n");
      }
    }

    @Override
    public List<Line> apply(List<Line> rows, Told told) {
      look.staying();
      look.otherwise().forEach(Look::staying);
      Map<String, Long> counts = new LinkedHashMap<>();
      told.figures().put(look.name(), counts);
      List<Line> out = new ArrayList<>();
      for (Line row : rows) {
        boolean asked = when == null || when.holds().test(row);
        Look.Got got = asked ? look.find(row::get) : look.none("not-asked", false);
        counts.merge(got.outcome(), 1L, Long::sum);
        counts.merge("would", got.wouldMatch() ? 1L : 0L, Long::sum);
        if (asked && !got.outcome().equals("matched")) {
          told.exceptions().add(exception(row, got));
        }
        if ("drop".equals(treatments.get(got.outcome()))) {
          continue;
        }
        for (Map<String, @Nullable String> line : got.lines()) {
          out.add(enriched(row, got, line));
        }
      }
      return out;
    }

    private String exception(Line row, Look.Got got) {
      List<String> key = new ArrayList<>();
      for (Fit part : look.key()) {
        String value = row.get(part.ours());
        key.add(value == null ? "" : value);
      }
      return look.name() + "/" + got.outcome() + "/" + row.number() + "/" + String.join(" | ", key);
    }

    private Line enriched(Line row, Look.Got got, Map<String, @Nullable String> line) {
      boolean matched = got.outcome().equals("matched");
      boolean filled = matched ? fillsEmpty : "fill".equals(treatments.get(got.outcome()));
      Line now = row;
      for (String as : look.bring().keySet()) {
        String value = line.get(as);
        now = now.with(as, value == null && filled ? "9" : value);
      }
      boolean own = got.source().equals(look.name());
      return mark == null
          ? now
          : now.with(mark, own ? got.outcome() : got.outcome() + ": " + got.source());
    }
  }
}
