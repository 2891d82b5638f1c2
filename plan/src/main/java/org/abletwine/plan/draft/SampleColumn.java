package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/**
 * The values of a column in some rows, each different one once. Filled by one thread.
 *
 * <p>For finding what joins, values are also <em>folded</em>: without spaces, case, punctuation and
 * leading zeros, so that keys that disagree only in these meet.
 */
final class SampleColumn {
  static final int NULL = -1;

  private final String name;
  private final List<String> values = new ArrayList<>();
  private final Map<String, Integer> numbers = new HashMap<>();
  private int[] ids = new int[1024];
  private int rows;
  private @Nullable DatePatterns dates;
  private @Nullable List<String> folded;
  private @Nullable Set<String> foldedSet;
  private @Nullable Set<String> stripped;
  private @Nullable Kind kind;

  /** What all values are. */
  enum Kind {
    NUMBER,
    DATE,
    TEXT,
    EMPTY
  }

  SampleColumn(String name) {
    this.name = name;
  }

  /** The same whose dates are written in a way of their own, and kept as ISO 8601 here. */
  SampleColumn dated(List<String> patterns) {
    dates = new DatePatterns(patterns);
    return this;
  }

  String name() {
    return name;
  }

  int rows() {
    return rows;
  }

  void add(@Nullable String cell) {
    String value = cell;
    if (rows == ids.length) {
      ids = java.util.Arrays.copyOf(ids, rows * 2);
    }
    int id = NULL;
    if (value != null && !value.isBlank()) {
      LocalDateTime day = dates == null ? null : dates.read(value.strip());
      if (day != null) {
        value = day.toLocalDate().toString();
      }
      Integer known = numbers.get(value);
      if (known == null) {
        known = values.size();
        numbers.put(value, known);
        values.add(value);
      }
      id = known;
    }
    ids[rows++] = id;
  }

  /** Leaves out every other row. */
  void thin() {
    int kept = 0;
    for (int row = 0; row < rows; row += 2) {
      ids[kept++] = ids[row];
    }
    rows = kept;
  }

  /** The number of the value in a row, {@link #NULL} for none. */
  int id(int row) {
    return ids[row];
  }

  @Nullable String value(int row) {
    return ids[row] == NULL ? null : values.get(ids[row]);
  }

  String valueOf(int id) {
    return values.get(id);
  }

  int distinct() {
    return values.size();
  }

  /** How many rows have each value. */
  long[] counts() {
    long[] counts = new long[values.size()];
    for (int row = 0; row < rows; row++) {
      if (ids[row] != NULL) {
        counts[ids[row]]++;
      }
    }
    return counts;
  }

  long nulls() {
    long nulls = 0;
    for (int row = 0; row < rows; row++) {
      nulls += ids[row] == NULL ? 1 : 0;
    }
    return nulls;
  }

  /** The folded form of each value. */
  List<String> folded() {
    List<String> known = folded;
    if (known == null) {
      known = values.stream().map(SampleColumn::fold).toList();
      folded = known;
    }
    return known;
  }

  Set<String> foldedSet() {
    Set<String> known = foldedSet;
    if (known == null) {
      known = new HashSet<>(folded());
      foldedSet = known;
    }
    return known;
  }

  /** The values without outer spaces. */
  Set<String> strippedSet() {
    Set<String> known = stripped;
    if (known == null) {
      known = new HashSet<>();
      for (String value : values) {
        known.add(value.strip());
      }
      stripped = known;
    }
    return known;
  }

  static String fold(String value) {
    StringBuilder text = new StringBuilder(value.length());
    boolean begun = false;
    String lower = value.toLowerCase(Locale.ROOT);
    for (int i = 0; i < lower.length(); i++) {
      char c = lower.charAt(i);
      if (Character.isLetterOrDigit(c) && (begun || c != '0')) {
        begun = true;
        text.append(c);
      }
    }
    return text.length() == 0 ? value.strip() : text.toString();
  }

  Kind kind() {
    Kind known = kind;
    if (known == null) {
      known = found();
      kind = known;
    }
    return known;
  }

  private Kind found() {
    if (values.isEmpty()) {
      return Kind.EMPTY;
    }
    DatePatterns iso = new DatePatterns(List.of());
    boolean numbersOnly = true;
    boolean dates = true;
    for (String value : values) {
      String text = value.strip();
      boolean code = text.length() > 1 && text.charAt(0) == '0' && text.indexOf('.') < 0;
      numbersOnly = numbersOnly && !code && DecimalText.read(text) != null;
      dates = dates && text.matches("\\d{4}-\\d{2}-\\d{2}") && iso.read(text) != null;
      if (!numbersOnly && !dates) {
        return Kind.TEXT;
      }
    }
    return dates ? Kind.DATE : Kind.NUMBER;
  }

  /** The number a value is; null for none. */
  @Nullable BigDecimal number(int id) {
    return id == NULL ? null : DecimalText.read(values.get(id).strip());
  }
}
