package org.abletwine.table;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.table.text.NearestName;

/**
 * The columns of a table: their names, in order. Names are unique and compared exactly. Immutable
 * and safe to share between threads.
 */
public final class Schema {
  private final List<String> names;
  private final Map<String, Integer> positions = new HashMap<>();

  /**
   * The columns of these names.
   *
   * @param names the column names in order
   * @throws IllegalArgumentException when a name stands twice
   */
  public Schema(List<String> names) {
    Objects.requireNonNull(names, "names");
    this.names = List.copyOf(names);
    for (int i = 0; i < this.names.size(); i++) {
      if (positions.put(this.names.get(i), i) != null) {
        throw new IllegalArgumentException("column \"" + this.names.get(i) + "\" stands twice");
      }
    }
  }

  /** {@return the column names in order} */
  public List<String> names() {
    return names;
  }

  /** {@return how many columns there are} */
  public int size() {
    return names.size();
  }

  /**
   * {@return the position of a column, 0-based, or -1 when there is no such column}
   *
   * @param name a column name
   */
  public int indexOf(String name) {
    Objects.requireNonNull(name, "name");
    return positions.getOrDefault(name, -1);
  }

  /**
   * The position of a column that must be there.
   *
   * @param name a column name
   * @param tableName the table, for the message
   * @return its position, 0-based
   * @throws SettingException when there is no such column, naming the nearest
   */
  public int require(String name, String tableName) {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(tableName, "tableName");
    int at = indexOf(name);
    if (at < 0) {
      throw new SettingException(
          tableName + " has no column \"" + name + "\"; " + NearestName.hint(name, names));
    }
    return at;
  }

  @Override
  public String toString() {
    return names.size() <= 20
        ? "Schema" + names
        : "Schema" + names.subList(0, 20) + " and " + (names.size() - 20) + " more";
  }
}
