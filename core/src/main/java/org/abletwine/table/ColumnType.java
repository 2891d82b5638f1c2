package org.abletwine.table;

import java.io.Serializable;
import java.util.List;
import java.util.Objects;

/**
 * What the cells of a column stand for, where it is stated. Matters only to steps that order or
 * compute; cells stay text.
 *
 * @param kind what they are
 * @param patterns for dates and date-times, the ways they are written, as {@code
 *     java.time.format.DateTimeFormatter} reads them; for numbers one example of how they are
 *     written, such as {@code 1.234,56}; for texts that numbers were made into, likewise; empty for
 *     ISO 8601, for plain numbers and for other texts
 */
public record ColumnType(Kind kind, List<String> patterns) implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Kinds of values. */
  public enum Kind {
    /** Text, ordered by code point. */
    TEXT,
    /** Exact decimal numbers. */
    NUMBER,
    /** Numbers without decimal places, or with none but zeros. */
    INTEGER,
    /** Days. */
    DATE,
    /** Days with a time of day, no time zone. */
    DATE_TIME,
    /** {@code true} or {@code false}. */
    BOOLEAN;

    /** {@return whether the values are numbers, whole or not} */
    public boolean numeric() {
      return this == NUMBER || this == INTEGER;
    }
  }

  /** Copies the list. */
  public ColumnType {
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(patterns, "patterns");
    patterns = List.copyOf(patterns);
  }

  /**
   * {@return the type without a pattern}
   *
   * @param kind what the cells are
   */
  public static ColumnType of(Kind kind) {
    return new ColumnType(kind, List.of());
  }
}
