package org.abletwine.plan.random;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A lookup as the oracle does it.
 *
 * @param name its name
 * @param table the reference
 * @param where whether only rows with {@code keep = 'y'} count
 * @param duplicates the reference's rule for duplicates, or empty
 * @param key its parts
 * @param bring what is brought: the attribute's name and the column, or an aggregate such as sum(v)
 * @param several the rule for several rows
 * @param otherwise what else is tried
 */
record Look(
    String name,
    Grid table,
    boolean where,
    String duplicates,
    List<Fit> key,
    Map<String, String> bring,
    String several,
    List<Look> otherwise) {

  /** The run has to end with an error of the data. */
  static final class Stops extends RuntimeException {
    private static final long serialVersionUID = 1L;
  }

  /** What one row gets: an outcome, and a line of attributes for each row it becomes. */
  record Got(
      String outcome,
      String source,
      List<Map<String, @Nullable String>> lines,
      List<Integer> candidates,
      boolean wouldMatch) {}

  private boolean passes(int row) {
    return !where || "y".equals(table.get(row, "keep"));
  }

  private List<Integer> rows(boolean passing) {
    List<Integer> rows = new ArrayList<>();
    for (int row = 0; row < table.rows.size(); row++) {
      if (passes(row) == passing && findable(row)) {
        rows.add(row);
      }
    }
    return rows;
  }

  /** Whether any key can find a row: equal parts and single values must be there. */
  private boolean findable(int row) {
    return key.stream()
        .allMatch(
            part -> part.kind().equals("between") || !part.blank(table.get(row, part.theirs())));
  }

  /** Looks at the reference as a whole: what must end the run, and which rows stay. */
  List<Integer> staying() {
    List<Integer> rows = rows(true);
    List<Integer> staying = duplicates.isEmpty() ? rows : withoutDuplicates(rows);
    for (Fit part : key) {
      if (part.kind().equals("between")
          && staying.stream().anyMatch(r -> part.reversed(table, r))) {
        throw new Stops();
      }
    }
    return staying;
  }

  private List<Integer> withoutDuplicates(List<Integer> rows) {
    Map<List<@Nullable String>, Integer> chosen = new LinkedHashMap<>();
    for (int row : rows) {
      List<@Nullable String> whole = new ArrayList<>();
      for (Fit part : key) {
        String value = table.get(row, part.theirs());
        boolean regex = part.kind().equals("regex") && value != null;
        boolean list = part.kind().equals("listed"); // whose items are normalised, not it
        whole.add(regex ? value.strip() : list ? value : part.normalised(value));
        if (part.theirsTo() != null) {
          whole.add(part.normalised(table.get(row, part.theirsTo())));
        }
      }
      whole.replaceAll(value -> value == null ? "" : value);
      chosen.merge(whole, row, this::stays);
    }
    return chosen.values().stream().sorted().toList();
  }

  private int stays(int one, int other) {
    return switch (duplicates) {
      case "last" -> other;
      case "fullest" -> nulls(other) < nulls(one) ? other : one;
      case "fail" -> throw new Stops();
      default -> one;
    };
  }

  private long nulls(int row) {
    return java.util.Arrays.stream(table.rows.get(row)).filter(Objects::isNull).count();
  }

  /** Looks one row up, here and then otherwise. */
  Got find(Function<String, @Nullable String> ours) {
    Got got = findHere(ours);
    for (Look other : otherwise) {
      if (got.outcome().equals("unmatched") || got.outcome().equals("blank-key")) {
        Got there = other.findHere(ours);
        boolean hit = there.outcome().equals("matched") || there.outcome().equals("ambiguous");
        got = hit ? there : got;
      }
    }
    return got;
  }

  private Got findHere(Function<String, @Nullable String> ours) {
    List<Integer> fitting = fitting(ours, staying());
    if (fitting == null) {
      return none("blank-key", false);
    }
    if (fitting.isEmpty()) {
      List<Integer> leftOut =
          rows(false).stream()
              .filter(r -> key.stream().noneMatch(p -> p.ordered() && p.reversed(table, r)))
              .toList();
      List<Integer> would = where ? fitting(ours, leftOut) : List.of();
      return none("unmatched", would != null && !would.isEmpty());
    }
    List<Map<String, @Nullable String>> lines = new ArrayList<>();
    fitting.forEach(row -> lines.add(plain(row)));
    boolean agree = lines.stream().distinct().count() == 1;
    boolean aggregates = bring.values().stream().anyMatch(source -> source.indexOf('(') > 0);
    if (!agree && several.equals("flag")) {
      return new Got("ambiguous", name, List.of(Map.of()), fitting, false);
    }
    if (agree && aggregates) {
      return new Got("matched", name, List.of(combined(fitting)), fitting, false);
    }
    return new Got(
        "matched",
        name,
        agree || several.equals("first")
            ? lines.subList(0, 1)
            : several.equals("last") ? lines.subList(lines.size() - 1, lines.size()) : lines,
        fitting,
        false);
  }

  Got none(String outcome, boolean would) {
    return new Got(outcome, name, List.of(Map.of()), List.of(), would);
  }

  /** The rows that fit, or null when the key is blank or cannot be compared. */
  private @Nullable List<Integer> fitting(
      Function<String, @Nullable String> ours, List<Integer> among) {
    for (Fit part : key) {
      String value = ours.apply(part.ours());
      if (part.blank(value)) {
        return null;
      }
      boolean known =
          among.stream()
              .anyMatch(
                  r ->
                      !part.blank(table.get(r, part.theirs()))
                          || part.theirsTo() != null && !part.blank(table.get(r, part.theirsTo())));
      if (part.ordered() && known && !part.readable(value)) {
        return null;
      }
    }
    List<Integer> rows = among;
    for (Fit part : key) {
      if (part.equal()) {
        rows = part.fitting(ours.apply(part.ours()), table, rows);
      }
    }
    for (Fit part : key) {
      String value = ours.apply(part.ours());
      boolean open = part.ordered() && !part.readable(value);
      if (!part.equal() && (!open || part.kind().equals("between"))) {
        rows = open ? openBands(part, rows) : part.fitting(value, table, rows);
      } else if (open) {
        rows = List.of();
      }
    }
    return rows;
  }

  /** Where nothing says what a band's values are, only one that is open on both sides fits. */
  private List<Integer> openBands(Fit part, List<Integer> rows) {
    return rows.stream()
        .filter(
            r ->
                part.blank(table.get(r, part.theirs()))
                    && part.blank(table.get(r, String.valueOf(part.theirsTo()))))
        .toList();
  }

  private Map<String, @Nullable String> plain(int row) {
    Map<String, @Nullable String> line = new LinkedHashMap<>();
    bring.forEach(
        (as, source) -> {
          if (source.indexOf('(') < 0) {
            line.put(as, table.get(row, source));
          }
        });
    return line;
  }

  private Map<String, @Nullable String> combined(List<Integer> rows) {
    Map<String, @Nullable String> line = plain(rows.get(0));
    bring.forEach(
        (as, source) -> {
          if (source.equals("count(*)")) {
            line.put(as, "" + rows.size());
          } else if (source.startsWith("count(distinct")) {
            line.put(
                as,
                ""
                    + rows.stream()
                        .map(r -> table.get(r, "v"))
                        .filter(Objects::nonNull)
                        .distinct()
                        .count());
          } else if (source.startsWith("sum(")) {
            String column = source.substring(4, source.length() - 1);
            line.put(
                as,
                rows.stream()
                    .map(r -> table.get(r, column))
                    .filter(Objects::nonNull)
                    .map(BigDecimal::new)
                    .reduce(BigDecimal::add)
                    .map(BigDecimal::toPlainString)
                    .orElse(null));
          }
        });
    return line;
  }
}
