package org.abletwine.table;

import java.lang.reflect.AccessibleObject;
import java.lang.reflect.Field;
import java.lang.reflect.InaccessibleObjectException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The columns of objects: the components of a record, or what a bean has getters for, in the order
 * of its fields. Immutable; safe to share between threads.
 */
final class ObjectColumns {
  private static final Set<Class<?>> WHOLE =
      Set.of(
          byte.class,
          Byte.class,
          short.class,
          Short.class,
          int.class,
          Integer.class,
          long.class,
          Long.class,
          BigInteger.class);
  private static final Set<Class<?>> DECIMAL =
      Set.of(float.class, Float.class, double.class, Double.class, BigDecimal.class);

  private final Class<?> type;
  private final Map<String, Method> getters;

  private ObjectColumns(Class<?> type, Map<String, Method> getters) {
    this.type = type;
    this.getters = getters;
  }

  static ObjectColumns of(Class<?> type) {
    Map<String, Method> getters = type.isRecord() ? components(type) : properties(type);
    if (getters.isEmpty()) {
      throw new SettingException(
          type.getName()
              + " has neither components nor getters, so that its objects have no columns");
    }
    try {
      AccessibleObject.setAccessible(getters.values().toArray(Method[]::new), true);
    } catch (InaccessibleObjectException e) {
      throw RecordShape.notOpen(type);
    }
    return new ObjectColumns(type, getters);
  }

  private static Map<String, Method> components(Class<?> type) {
    Map<String, Method> getters = new LinkedHashMap<>();
    for (RecordComponent component : type.getRecordComponents()) {
      getters.put(component.getName(), component.getAccessor());
    }
    return getters;
  }

  private static Map<String, Method> properties(Class<?> type) {
    Map<String, Method> found = new TreeMap<>();
    for (Method method : type.getMethods()) {
      String name = property(method);
      if (name != null) {
        found.put(name, method);
      }
    }
    Map<String, Method> ordered = new LinkedHashMap<>();
    for (String field : fields(type)) {
      Method getter = found.remove(field);
      if (getter != null) {
        ordered.put(field, getter);
      }
    }
    ordered.putAll(found);
    return ordered;
  }

  private static @Nullable String property(Method method) {
    boolean gets =
        method.getParameterCount() == 0
            && !Modifier.isStatic(method.getModifiers())
            && !method.isBridge()
            && method.getReturnType() != void.class
            && method.getDeclaringClass() != Object.class;
    boolean truth =
        method.getReturnType() == boolean.class || method.getReturnType() == Boolean.class;
    String name = method.getName();
    int start = name.startsWith("get") ? 3 : truth && name.startsWith("is") ? 2 : name.length();
    if (!gets || start == name.length() || !Character.isUpperCase(name.charAt(start))) {
      return null;
    }
    boolean word = start + 1 == name.length() || !Character.isUpperCase(name.charAt(start + 1));
    return (word ? Character.toLowerCase(name.charAt(start)) : name.charAt(start))
        + name.substring(start + 1);
  }

  /** The names of the fields, those of the classes above first. */
  private static List<String> fields(Class<?> type) {
    List<String> names = new ArrayList<>();
    for (Class<?> of = type; of != null; of = of.getSuperclass()) {
      names.addAll(0, Arrays.stream(of.getDeclaredFields()).map(Field::getName).toList());
    }
    return names;
  }

  Schema schema() {
    return new Schema(List.copyOf(getters.keySet()));
  }

  Map<String, ColumnType> types() {
    Map<String, ColumnType> types = new HashMap<>();
    getters.forEach(
        (name, getter) -> {
          ColumnType.Kind kind = kind(getter.getReturnType());
          if (kind != null) {
            types.put(name, ColumnType.of(kind));
          }
        });
    return types;
  }

  private static ColumnType.@Nullable Kind kind(Class<?> type) {
    if (WHOLE.contains(type)) {
      return ColumnType.Kind.INTEGER;
    }
    if (DECIMAL.contains(type)) {
      return ColumnType.Kind.NUMBER;
    }
    if (type == boolean.class || type == Boolean.class) {
      return ColumnType.Kind.BOOLEAN;
    }
    return type == LocalDate.class
        ? ColumnType.Kind.DATE
        : type == LocalDateTime.class ? ColumnType.Kind.DATE_TIME : null;
  }

  /** The cells of an object. */
  List<@Nullable String> cells(Object object) {
    List<@Nullable String> cells = new ArrayList<>(getters.size());
    for (Map.Entry<String, Method> getter : getters.entrySet()) {
      try {
        cells.add(text(getter.getKey(), getter.getValue().invoke(object)));
      } catch (InvocationTargetException e) {
        throw new DataException(
            type.getSimpleName() + ", " + getter.getKey() + ": " + e.getCause(), e.getCause());
      } catch (IllegalAccessException e) {
        throw new IllegalStateException(e);
      }
    }
    return cells;
  }

  private @Nullable String text(String name, @Nullable Object value) {
    if (value == null) {
      return null;
    }
    if (value instanceof Optional<?> held) {
      return text(name, held.orElse(null));
    }
    if (value instanceof BigDecimal number) {
      return number.toPlainString();
    }
    if (value instanceof Double || value instanceof Float) {
      return number(name, value);
    }
    if (value instanceof Enum<?> constant) {
      return constant.name();
    }
    if (value instanceof CharSequence
        || value instanceof Number
        || value instanceof Boolean
        || value instanceof Character
        || value instanceof Temporal
        || value instanceof java.util.UUID) {
      return value.toString();
    }
    throw new SettingException(
        type.getSimpleName()
            + ", "
            + name
            + ": a "
            + value.getClass().getSimpleName()
            + " is no cell; give texts, numbers, truth values, dates, times, constants of an enum, or"
            + " an Optional of these");
  }

  /** The shortest decimal number that reads back the same. */
  private String number(String name, Object value) {
    double number = ((Number) value).doubleValue();
    if (Double.isNaN(number) || Double.isInfinite(number)) {
      throw new DataException(type.getSimpleName() + ", " + name + ": " + value + " is no number");
    }
    String shortest = new BigDecimal(value.toString()).toPlainString();
    return shortest.endsWith(".0") ? shortest.substring(0, shortest.length() - 2) : shortest;
  }
}
