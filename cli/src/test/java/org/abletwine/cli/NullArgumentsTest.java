package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.Array;
import java.lang.reflect.Constructor;
import java.lang.reflect.Executable;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.math.BigDecimal;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.abletwine.derive.Keep;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.database.Database;
import org.abletwine.formats.database.Secret;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Row;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableFormat;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;

/**
 * Every argument of what callers make that must not be null is named when it is: found out by
 * calling everything at the front door once for each such argument.
 */
class NullArgumentsTest {
  /** What is handed out: nobody but the engine makes these. */
  private static final Pattern HANDED_OUT =
      Pattern.compile(
          "org\\.abletwine\\.((figures|audit)\\.\\w+|match\\.(BandReport|NearMiss)|enrich\\.TracedRow"
              + "|enrich\\.Enrichment\\$Mistake|step\\.Exceptions\\$Found|lookup\\.LoadedLookup\\$Result"
              + "|table\\.\\w+Exception)(\\$.*)?");

  private final Table table =
      Tables.of(List.of("code", "x"), List.of(List.of("a", "1"), List.of("b", "2")));
  private final Lookup lookup = Lookup.in(table).key("code").bring("x as y");
  private final List<Object> samples =
      List.of(
          "x",
          table,
          lookup,
          lookup.load(),
          lookup.load().find("a"),
          Enrichment.of(table),
          Enrichment.of(table).build(),
          Enrichment.of(table).build().rows().get(0),
          Enrichment.of(table)
              .build()
              .writeTo(Tables.sink(Path.of("target", "null-arguments.csv"))),
          Normalise.trim(),
          TableOptions.builder(),
          TableOptions.NONE,
          OutputOptions.NONE,
          Evaluation.STRICT,
          ColumnType.of(ColumnType.Kind.NUMBER),
          new Schema(List.of("x")),
          new Keep("x = 1", null, table, Evaluation.STRICT),
          Database.at("jdbc:sqlite:x.db"),
          Secret.environment("X"),
          Path.of("x.csv"),
          BigDecimal.ONE,
          List.of(),
          Map.of(),
          Set.of(),
          Row.class,
          new IOException("x"));

  private final List<String> unnamed = new ArrayList<>();
  private int tried;

  @Test
  void areNamed() throws IOException, URISyntaxException {
    for (Class<?> one : List.of(Table.class, Database.class)) {
      for (Class<?> type : FrontDoor.of(one).types()) {
        if (Modifier.isPublic(type.getModifiers())
            && !type.isEnum()
            && !type.isInterface()
            && !TableFormat.class.isAssignableFrom(type)) {
          look(type);
        }
      }
    }
    assertThat(unnamed).isEmpty();
    assertThat(tried).isGreaterThan(150);
  }

  private void look(Class<?> type) {
    for (Constructor<?> constructor : type.getDeclaredConstructors()) {
      if (Modifier.isPublic(constructor.getModifiers())
          && !HANDED_OUT.matcher(type.getName()).matches()) {
        look(constructor, () -> null);
      }
    }
    for (Method method : type.getDeclaredMethods()) {
      boolean ours = Modifier.isPublic(method.getModifiers()) && !method.isSynthetic();
      if (ours && !method.getName().equals("equals") && !engine(method)) {
        look(method, Modifier.isStatic(method.getModifiers()) ? () -> null : () -> sample(type));
      }
    }
  }

  /** What only the modules of this product can call. */
  private static boolean engine(Method method) {
    return Stream.concat(
            Stream.of(method.getReturnType()), Arrays.stream(method.getParameterTypes()))
        .anyMatch(
            type -> type.getName().matches("org\\.abletwine\\.\\w+\\.(run|spill|batch)\\..*"));
  }

  private void look(Executable executable, Supplier<@Nullable Object> target) {
    Class<?>[] types = executable.getParameterTypes();
    AnnotatedType[] annotated = executable.getAnnotatedParameterTypes();
    for (int parameter = 0; parameter < types.length; parameter++) {
      if (!types[parameter].isPrimitive()
          && !annotated[parameter].isAnnotationPresent(Nullable.class)) {
        Object[] arguments = new Object[types.length];
        for (int i = 0; i < types.length; i++) {
          arguments[i] = i == parameter ? null : sample(types[i]);
        }
        tried++;
        String told = call(executable, target.get(), arguments);
        if (told != null) {
          unnamed.add(executable + ", argument " + (parameter + 1) + ": " + told);
        }
      }
    }
  }

  /** What is wrong with how a null was met; null for nothing. */
  private static @Nullable String call(
      Executable executable, @Nullable Object target, Object[] arguments) {
    try {
      if (executable instanceof Method method) {
        method.invoke(target, arguments);
      } else {
        ((Constructor<?>) executable).newInstance(arguments);
      }
      return "was taken";
    } catch (InvocationTargetException e) {
      Throwable cause = e.getCause();
      String message = String.valueOf(cause.getMessage());
      boolean named =
          cause instanceof NullPointerException && message.matches("[a-z]\\w*( must not be null)?");
      return named ? null : cause.toString();
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException(executable.toString(), e);
    }
  }

  private Object sample(Class<?> type) {
    if (type.isPrimitive()) {
      return Array.get(Array.newInstance(type, 1), 0);
    }
    if (type.isArray()) {
      return Array.newInstance(type.getComponentType(), 0);
    }
    if (type.isEnum()) {
      return type.getEnumConstants()[0];
    }
    return samples.stream().filter(type::isInstance).findFirst().orElseGet(() -> made(type));
  }

  /** One that a factory or constructor of the type makes of samples, or a stand-in. */
  private Object made(Class<?> type) {
    if (type.isInterface()) {
      return Mockito.mock(type);
    }
    for (Method method : type.getDeclaredMethods()) {
      if (Modifier.isStatic(method.getModifiers())
          && Modifier.isPublic(method.getModifiers())
          && method.getReturnType() == type
          && !method.getName().equals("parse")) {
        try {
          return method.invoke(null, arguments(method));
        } catch (ReflectiveOperationException e) {
          // another may do
        }
      }
    }
    for (Constructor<?> constructor : type.getConstructors()) {
      try {
        return constructor.newInstance(arguments(constructor));
      } catch (ReflectiveOperationException e) {
        // another may do
      }
    }
    throw new IllegalStateException("no sample of " + type);
  }

  private Object[] arguments(Executable executable) {
    return Arrays.stream(executable.getParameterTypes()).map(this::sample).toArray();
  }
}
