package org.abletwine.lookup;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/**
 * Values to put where an attribute came back null, by the attribute's column name. Immutable.
 *
 * @param values column name to value
 */
public record Fill(Map<String, String> values) {

  /** Copies the map, keeping its order. */
  public Fill {
    Objects.requireNonNull(values, "values");
    values = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(values));
  }

  /**
   * A value for one attribute.
   *
   * @param column the attribute's column name, after {@code as}
   * @param value the value to put
   * @return the fill
   */
  public static Fill fill(String column, String value) {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(value, "value");
    return new Fill(Map.of(column, value));
  }

  /**
   * Adds a value for a further attribute.
   *
   * @param column the attribute's column name, after {@code as}
   * @param value the value to put
   * @return both fills together
   */
  public Fill and(String column, String value) {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(value, "value");
    Map<String, String> more = new LinkedHashMap<>(values);
    more.put(column, value);
    return new Fill(more);
  }
}
