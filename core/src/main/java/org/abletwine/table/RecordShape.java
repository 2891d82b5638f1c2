package org.abletwine.table;

import java.lang.reflect.Constructor;
import java.lang.reflect.InaccessibleObjectException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import org.abletwine.table.text.CellValue;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/** How records of a class are made of rows. Immutable; safe to share between threads. */
final class RecordShape<R extends Record> {
  private static final Map<Class<?>, Function<CellValue, @Nullable Object>> READERS =
      Map.ofEntries(
          Map.entry(String.class, CellValue::text),
          Map.entry(BigDecimal.class, CellValue::decimal),
          Map.entry(BigInteger.class, RecordShape::bigInteger),
          Map.entry(long.class, CellValue::integer),
          Map.entry(Long.class, CellValue::integer),
          Map.entry(int.class, RecordShape::whole),
          Map.entry(Integer.class, RecordShape::whole),
          Map.entry(double.class, RecordShape::inexact),
          Map.entry(Double.class, RecordShape::inexact),
          Map.entry(boolean.class, CellValue::truth),
          Map.entry(Boolean.class, CellValue::truth),
          Map.entry(LocalDate.class, CellValue::date),
          Map.entry(LocalDateTime.class, CellValue::dateTime));

  private final RecordComponent[] components;
  private final Constructor<R> constructor;

  private RecordShape(RecordComponent[] components, Constructor<R> constructor) {
    this.components = components;
    this.constructor = constructor;
  }

  static <R extends Record> RecordShape<R> of(Class<R> type) {
    RecordComponent[] components = type.getRecordComponents();
    try {
      Constructor<R> constructor =
          type.getDeclaredConstructor(
              Arrays.stream(components).map(RecordComponent::getType).toArray(Class<?>[]::new));
      constructor.setAccessible(true);
      return new RecordShape<>(components, constructor);
    } catch (NoSuchMethodException e) {
      throw new IllegalStateException("a record without its constructor", e);
    } catch (InaccessibleObjectException e) {
      throw notOpen(type);
    }
  }

  /** Says how a class is made accessible. */
  static SettingException notOpen(Class<?> type) {
    return new SettingException(
        type.getName()
            + " cannot be looked into: open its package to org.abletwine.core (opens "
            + type.getPackageName()
            + " to org.abletwine.core), or make it public in a package that is exported");
  }

  private static @Nullable Object bigInteger(CellValue cell) {
    BigDecimal number = cell.decimal();
    try {
      return number == null ? null : number.toBigIntegerExact();
    } catch (ArithmeticException e) {
      throw cell.not("a whole number");
    }
  }

  private static @Nullable Object whole(CellValue cell) {
    Long number = cell.integer();
    if (number != null && number != number.intValue()) {
      throw cell.not("a whole number between -2147483648 and 2147483647");
    }
    return number == null ? null : number.intValue();
  }

  private static @Nullable Object inexact(CellValue cell) {
    BigDecimal number = cell.decimal();
    return number == null ? null : number.doubleValue();
  }

  R record(Function<String, CellValue> cells, Schema schema, String table) {
    @Nullable Object[] values = new @Nullable Object[components.length];
    for (int i = 0; i < values.length; i++) {
      CellValue cell = cells.apply(column(components[i].getName(), schema, table));
      values[i] = value(components[i], cell);
    }
    try {
      return constructor.newInstance(values);
    } catch (InvocationTargetException e) {
      if (e.getCause() instanceof RuntimeException own) {
        throw own; // what the record itself refuses
      }
      throw new IllegalStateException(e.getCause());
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException(e);
    }
  }

  private @Nullable Object value(RecordComponent component, CellValue cell) {
    Class<?> type = component.getType();
    Object value = type.isEnum() ? constant(type, cell) : reader(component).apply(cell);
    if (value == null && type.isPrimitive()) {
      throw new DataException(
          cell.where()
              + " is null, and component "
              + component.getName()
              + " of "
              + component.getDeclaringRecord().getSimpleName()
              + " is a primitive "
              + type
              + "; declare it as a type that can be null",
          cell.table(),
          cell.row(),
          cell.column());
    }
    return value;
  }

  private static Function<CellValue, @Nullable Object> reader(RecordComponent component) {
    Function<CellValue, @Nullable Object> reader = READERS.get(component.getType());
    if (reader == null) {
      throw new SettingException(
          "component "
              + component.getName()
              + " of "
              + component.getDeclaringRecord().getSimpleName()
              + " is of type "
              + component.getType().getSimpleName()
              + ", which no cell becomes; use one of String, BigDecimal, BigInteger, Long, Integer,"
              + " Double, Boolean, LocalDate, LocalDateTime or an enum");
    }
    return reader;
  }

  private static @Nullable Object constant(Class<?> type, CellValue cell) {
    String text = cell.text();
    if (text == null) {
      return null;
    }
    for (Object constant : type.getEnumConstants()) {
      if (((Enum<?>) constant).name().equalsIgnoreCase(text.strip().replaceAll("[- ]", "_"))) {
        return constant;
      }
    }
    throw cell.not("one of " + Arrays.toString(type.getEnumConstants()));
  }

  private static String column(String component, Schema schema, String table) {
    if (schema.indexOf(component) >= 0) {
      return component;
    }
    List<String> fits =
        schema.names().stream().filter(name -> plain(name).equals(plain(component))).toList();
    if (fits.size() != 1) {
      throw new SettingException(
          table
              + (fits.isEmpty()
                  ? " has no column for component \""
                      + component
                      + "\"; "
                      + NearestName.hint(component, schema.names())
                  : " has several columns for component \"" + component + "\": " + fits));
    }
    return fits.get(0);
  }

  /** A name without what only parts its words. */
  static String plain(String name) {
    return name.replaceAll("[_\\- ]", "").toLowerCase(Locale.ROOT);
  }
}
