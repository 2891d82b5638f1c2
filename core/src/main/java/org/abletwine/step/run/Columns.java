package org.abletwine.step.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * The columns of a batch as the steps before have left them: names, in output order, and the column
 * number behind each. Built up while the steps of a run are prepared, by one thread.
 */
public final class Columns {
  private final String tableName;
  private final Map<String, Integer> numbers = new LinkedHashMap<>();
  private final Map<String, String> addedBy = new LinkedHashMap<>();
  private final Map<String, ColumnType> types = new LinkedHashMap<>();

  /** What columns hold as far as was seen; matters to sinks alone. */
  private final Map<String, ColumnType> likely = new LinkedHashMap<>();

  /** The numbers of columns whose values are shown nowhere but in rows that come out. */
  private final BitSet hidden = new BitSet();

  private Set<String> keptPrivate = Set.of();

  private final NullReasons reasons = new NullReasons();

  private Map<Object, Object> shared = new HashMap<>();
  private int measure = -1;
  private int[] carried = {};
  private final int base;
  private int readUpTo;
  private int next;

  /**
   * @param tableName the transactions, for messages
   * @param base their columns
   */
  public Columns(String tableName, Schema base) {
    this.tableName = tableName;
    base.names().forEach(name -> numbers.put(name, next++));
    this.base = next;
  }

  /**
   * The same columns, for whoever looks at them again once others have been added.
   *
   * @return a copy of names, numbers and types
   */
  public Columns copy() {
    Columns copy = new Columns(tableName, new Schema(List.of()));
    copy.numbers.putAll(numbers);
    copy.types.putAll(types);
    copy.likely.putAll(likely);
    copy.hidden.or(hidden);
    copy.keptPrivate = keptPrivate;
    copy.next = next;
    return copy;
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
    read(number);
    return number;
  }

  private void read(int number) {
    readUpTo = Math.max(readUpTo, number < base ? number + 1 : 0);
  }

  /** States that a step looks at every column. */
  public void readAll() {
    readUpTo = base;
  }

  /** Returns how many of the transactions' first columns the steps look at. */
  public int readUpTo() {
    return readUpTo;
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
    hidden.set(next, keptPrivate.contains(name));
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
    Integer before = numbers.replace(name, next);
    if (before != null && before == measure) {
      measure = next;
    }
    hidden.set(next, before != null && hidden.get(before));
    for (int i = 0; before != null && i < carried.length; i++) {
      carried[i] = carried[i] == before ? next : carried[i];
    }
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

  /**
   * States what a column holds.
   *
   * @param name the column
   * @param type its type; null to state nothing
   */
  public void typed(String name, @Nullable ColumnType type) {
    if (type == null) {
      types.remove(name);
      likely.remove(name);
    } else {
      types.put(name, type);
    }
  }

  /**
   * Notes what a column holds as far as was seen, for whoever writes it.
   *
   * @param name the column
   * @param type what it seems to hold; null when that is not known
   */
  public void likely(String name, @Nullable ColumnType type) {
    if (type != null) {
      likely.put(name, type);
    }
  }

  /**
   * What a column holds, where that was stated.
   *
   * @param name the column
   * @return its type, or null
   */
  public @Nullable ColumnType type(String name) {
    return types.get(name);
  }

  /**
   * Returns what the columns hold, in output order, for whoever writes them: what is known, or else
   * likely; null where neither is.
   */
  public List<@Nullable ColumnType> types() {
    List<@Nullable ColumnType> all = new ArrayList<>();
    for (String name : numbers.keySet()) {
      all.add(types.containsKey(name) ? types.get(name) : likely.get(name));
    }
    return all;
  }

  /**
   * States the types that a table declares.
   *
   * @param table the transactions
   * @return these columns
   */
  public Columns typedBy(Table table) {
    for (String name : table.schema().names()) {
      typed(name, table.type(name));
      hide(name, table.isPrivate(name));
      ColumnType seen = table instanceof BatchTable batches ? batches.likely(name) : null;
      likely(name, seen);
    }
    return this;
  }

  /**
   * States columns, of any table or made by any step, whose values are shown nowhere but in rows
   * that come out.
   *
   * @param names their names
   * @return these columns
   */
  public Columns keeping(Set<String> names) {
    keptPrivate = Set.copyOf(names);
    numbers.keySet().forEach(name -> hide(name, keptPrivate.contains(name)));
    return this;
  }

  /**
   * @param name a column of any table
   * @return whether columns of that name are stated to be private
   */
  public boolean keepsPrivate(String name) {
    return keptPrivate.contains(name);
  }

  /**
   * States that the values of a column are shown nowhere but in rows that come out.
   *
   * @param name the column
   * @param whether whether that is so; a column once hidden stays so
   */
  public void hide(String name, boolean whether) {
    Integer number = numbers.get(name);
    if (whether && number != null) {
      hidden.set(number);
    }
  }

  /**
   * @param name a column
   * @return whether its values are shown nowhere but in rows that come out
   */
  public boolean isPrivate(String name) {
    Integer number = numbers.get(name);
    return number != null && hidden.get(number);
  }

  /**
   * @param number the number of a column
   * @return whether its values are shown nowhere but in rows that come out
   */
  public boolean isPrivate(int number) {
    return hidden.get(number);
  }

  /**
   * Holds that a column may be totalled: a total of a private one could be the value of one row.
   *
   * @param name the column
   * @param where the setting that totals it, for the message
   * @throws SettingException when its values are private
   */
  public void requireShown(String name, String where) {
    if (isPrivate(name)) {
      throw new SettingException(
          where
              + ": \""
              + name
              + "\" is private, and a total of it may be one row's value; count it, or take it out of"
              + " private:");
    }
  }

  /** Returns those columns that are private, in output order. */
  public List<String> privateNames() {
    return numbers.keySet().stream().filter(this::isPrivate).toList();
  }

  /**
   * Calls columns by other names, all at once: two may change theirs for each other.
   *
   * @param names the new name of each column to be renamed
   * @throws SettingException when there is no such column, or two would have one name
   */
  public void rename(Map<String, String> names) {
    names.keySet().forEach(from -> require(from, "rename"));
    Map<String, Integer> renamed = new LinkedHashMap<>();
    Map<String, ColumnType> retyped = new LinkedHashMap<>();
    Map<String, ColumnType> reseen = new LinkedHashMap<>();
    for (Map.Entry<String, Integer> column : numbers.entrySet()) {
      String from = column.getKey();
      String to = names.getOrDefault(from, from);
      if (renamed.put(to, column.getValue()) != null) {
        throw new SettingException(
            "rename: two columns would be called \"" + to + "\"; choose another name for one");
      }
      if (types.containsKey(from)) {
        retyped.put(to, types.get(from));
      }
      if (likely.containsKey(from)) {
        reseen.put(to, likely.get(from));
      }
    }
    numbers.clear();
    numbers.putAll(renamed);
    types.clear();
    types.putAll(retyped);
    likely.clear();
    likely.putAll(reseen);
    keptPrivate.forEach(name -> hide(name, true));
  }

  /**
   * Puts columns first, in an order; the others follow as they were.
   *
   * @param first the columns
   * @throws SettingException when there is no such column
   */
  public void order(List<String> first) {
    Map<String, Integer> ordered = new LinkedHashMap<>();
    first.forEach(name -> ordered.put(name, require(name, "order-columns")));
    numbers.forEach(ordered::putIfAbsent);
    numbers.clear();
    numbers.putAll(ordered);
  }

  /**
   * States a column whose totals go beside the figures.
   *
   * @param name the column; null for none
   * @return these columns
   * @throws SettingException when there is no such column
   */
  public Columns measuredBy(@Nullable String name) {
    if (name != null && !numbers.containsKey(name)) {
      throw new SettingException(
          "measure: "
              + tableName
              + " has no column \""
              + name
              + "\"; "
              + NearestName.hint(name, numbers.keySet()));
    }
    measure = name == null ? -1 : require(name, "measure");
    if (name != null) {
      requireShown(name, "measure");
    }
    return this;
  }

  /** Returns the number of the column whose totals go beside the figures, or -1. */
  public int measure() {
    return measure;
  }

  /**
   * States columns whose cells go with each row that needs attention.
   *
   * @param names the columns
   * @return these columns
   * @throws SettingException when there is no such column
   */
  public Columns carrying(List<String> names) {
    carried = names.stream().mapToInt(name -> require(name, "exceptions, carry")).toArray();
    return this;
  }

  /** Returns the numbers of the columns that go with each row that needs attention. */
  public int[] carried() {
    return carried.clone();
  }

  /** Returns the reasons for nulls that columns of this run carry. */
  public NullReasons reasons() {
    return reasons;
  }

  /**
   * Something that several steps of this run need, made by the first of them.
   *
   * @param key what it depends on
   * @param kind what it is
   * @param make makes it
   * @return the one thing for that key
   */
  public <T> T shared(Object key, Class<T> kind, Supplier<T> make) {
    Object held = shared.get(key);
    if (held == null) {
      held = make.get();
      shared.put(key, held);
    }
    return kind.cast(held);
  }

  /**
   * Takes what the steps of the same run have made already, for going through them once more.
   *
   * @param run the columns of that run
   * @return these columns
   */
  public Columns sharing(Columns run) {
    shared = run.shared;
    return this;
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
