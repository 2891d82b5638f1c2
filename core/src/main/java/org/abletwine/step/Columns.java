package org.abletwine.step;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.NearestName;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;

/**
 * The columns of a batch as the steps before have left them: names, in output order, and the column
 * number behind each. Built up while the steps of a run are prepared, by one thread.
 */
public final class Columns {
  private final String tableName;
  private final Map<String, Integer> numbers = new LinkedHashMap<>();
  private final Map<String, String> addedBy = new LinkedHashMap<>();
  private int next;

  /**
   * @param tableName the transactions, for messages
   * @param base their columns
   */
  public Columns(String tableName, Schema base) {
    this.tableName = tableName;
    base.names().forEach(name -> numbers.put(name, next++));
  }

  /**
   * The number of a column that must be there.
   *
   * @param name the column
   * @param where the setting that names it, for the message
   * @return its column number in every batch
   * @throws SettingException when there is no such column, naming the nearest
   */
  public int require(String name, String where) {
    Integer number = numbers.get(name);
    if (number == null) {
      throw new SettingException(
          where
              + ": "
              + tableName
              + " has no column \""
              + name
              + "\", nor has a step before added"
              + " one; "
              + NearestName.hint(name, numbers.keySet()));
    }
    return number;
  }

  /**
   * Declares a column that the step will add to every batch.
   *
   * @param name its name
   * @param step the step, for messages
   * @param remedy what to write instead when the name is taken
   * @return its column number
   * @throws SettingException when there is such a column already
   */
  public int add(String name, String step, String remedy) {
    if (numbers.containsKey(name)) {
      String holder = addedBy.getOrDefault(name, tableName);
      throw new SettingException(
          step + ": there is a column \"" + name + "\" already, from " + holder + "; " + remedy);
    }
    numbers.put(name, next);
    addedBy.put(name, step);
    return next++;
  }

  /**
   * Declares that the step adds a column which takes the place of an existing one.
   *
   * @param name the existing column
   * @return the column number from now on
   */
  public int replace(String name) {
    numbers.replace(name, next);
    return next++;
  }

  /**
   * Leaves a column out from now on.
   *
   * @param name the column
   * @param where the setting that names it, for the message
   * @throws SettingException when there is no such column, naming the nearest
   */
  public void remove(String name, String where) {
    require(name, where);
    numbers.remove(name);
  }

  /** Returns the name of the transactions. */
  public String tableName() {
    return tableName;
  }

  /** Returns the columns in output order. */
  public List<String> names() {
    return new ArrayList<>(numbers.keySet());
  }

  /** Returns the column numbers in output order. */
  public int[] numbers() {
    return numbers.values().stream().mapToInt(Integer::intValue).toArray();
  }

  @Override
  public String toString() {
    return "Columns" + numbers.keySet();
  }
}
