package org.abletwine.lookup;

import java.util.AbstractMap;
import java.util.AbstractSet;
import java.util.Arrays;
import java.util.Iterator;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;

/** Attributes by name, over the names that all results of a lookup share. Immutable. */
final class AttributeValues extends AbstractMap<String, @Nullable String> {
  private final String[] names;
  private final @Nullable ColumnType[] types;
  private final @Nullable String[] values;

  /** Takes the arrays as they are: nobody may change them any more. */
  AttributeValues(String[] names, @Nullable ColumnType[] types, @Nullable String[] values) {
    this.names = names;
    this.types = types;
    this.values = values;
  }

  /** What an attribute holds, where that is stated. */
  @Nullable ColumnType type(String name) {
    int at = indexOf(name);
    return at < 0 ? null : types[at];
  }

  private int indexOf(@Nullable Object name) {
    for (int i = 0; i < names.length; i++) {
      if (names[i].equals(name)) {
        return i;
      }
    }
    return -1;
  }

  @Override
  public @Nullable String get(@Nullable Object name) {
    int at = indexOf(name);
    return at < 0 ? null : values[at];
  }

  @Override
  public boolean containsKey(@Nullable Object name) {
    return indexOf(name) >= 0;
  }

  @Override
  public int size() {
    return names.length;
  }

  @Override
  public Set<Map.Entry<String, @Nullable String>> entrySet() {
    return new AbstractSet<>() {
      @Override
      public Iterator<Map.Entry<String, @Nullable String>> iterator() {
        Map.Entry<String, @Nullable String>[] entries = entries();
        return Arrays.asList(entries).iterator();
      }

      @Override
      public int size() {
        return names.length;
      }
    };
  }

  @SuppressWarnings({"unchecked", "rawtypes"}) // an array of a generic type
  private Map.Entry<String, @Nullable String>[] entries() {
    Map.Entry[] entries = new Map.Entry[names.length];
    Arrays.setAll(entries, i -> new SimpleImmutableEntry<>(names[i], values[i]));
    return entries;
  }
}
