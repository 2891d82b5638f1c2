package org.abletwine.cli;

import java.lang.reflect.AnnotatedType;
import java.lang.reflect.Constructor;
import java.lang.reflect.Executable;
import java.lang.reflect.Field;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What others can use of types, a line for each, in an order that does not change. */
final class PublicParts {
  /** How types of packages begin that are for the modules of this product alone. */
  private static final String ENGINE = "engine:";

  /** The package of one of our types, which a name with a great letter follows. */
  private static final Pattern OURS =
      Pattern.compile("\\b(org\\.abletwine(?:\\.[a-z]\\w*)+)\\.(?=@?[A-Z])");

  private static final Set<String> OPEN = FrontDoor.open();

  private PublicParts() {}

  static List<String> of(List<Class<?>> types) {
    List<String> lines = new ArrayList<>();
    types.stream().filter(PublicParts::reachable).forEach(type -> lines.addAll(of(type)));
    return lines;
  }

  private static boolean reachable(Class<?> type) {
    return forOthers(type.getModifiers())
        && (type.getDeclaringClass() == null || reachable(type.getDeclaringClass()));
  }

  private static boolean forOthers(int modifiers) {
    return Modifier.isPublic(modifiers) || Modifier.isProtected(modifiers);
  }

  private static List<String> of(Class<?> type) {
    String above =
        Stream.concat(
                Stream.ofNullable(type.getAnnotatedSuperclass()),
                Arrays.stream(type.getAnnotatedInterfaces()))
            .map(PublicParts::shown)
            .filter(name -> !name.equals("Object") && !name.equals("Record"))
            .filter(name -> !name.startsWith(ENGINE))
            .sorted()
            .collect(Collectors.joining(", "));
    List<String> parts = new ArrayList<>();
    for (Field field : type.getDeclaredFields()) {
      if (forOthers(field.getModifiers()) && !field.isSynthetic()) {
        parts.add(word(field.getModifiers()) + shown(field.getAnnotatedType(), field.getName()));
      }
    }
    for (Constructor<?> constructor : type.getDeclaredConstructors()) {
      if (forOthers(constructor.getModifiers()) && !constructor.isSynthetic()) {
        parts.add("new" + arguments(constructor));
      }
    }
    for (Method method : type.getDeclaredMethods()) {
      if (forOthers(method.getModifiers()) && !method.isSynthetic() && !ofAnyObject(method)) {
        parts.add(
            word(method.getModifiers())
                + (method.isDefault() ? "default " : "")
                + shown(method.getAnnotatedReturnType(), method.getName())
                + arguments(method));
      }
    }
    List<String> lines = new ArrayList<>();
    String name = type.getName().replace('$', '.');
    lines.add(kind(type) + name + (above.isEmpty() ? "" : " : " + above));
    parts.stream()
        .filter(part -> !part.contains(ENGINE))
        .sorted()
        .distinct()
        .forEach(part -> lines.add(simple(name) + "  " + part));
    return lines;
  }

  /** What every object has, and a record makes by itself. */
  private static boolean ofAnyObject(Method method) {
    return switch (method.getName()) {
      case "toString", "hashCode" -> method.getParameterCount() == 0;
      case "equals" -> method.getParameterCount() == 1;
      default -> false;
    };
  }

  private static String kind(Class<?> type) {
    String kind =
        type.isAnnotation()
            ? "annotation "
            : type.isRecord()
                ? "record "
                : type.isEnum() ? "enum " : type.isInterface() ? "interface " : "class ";
    boolean open = !type.isRecord() && !type.isEnum() && !type.isInterface();
    return (type.isSealed() ? "sealed " : "")
        + (open ? word(type.getModifiers() & ~Modifier.STATIC) : "")
        + kind;
  }

  private static String word(int modifiers) {
    int told =
        modifiers & (Modifier.STATIC | Modifier.ABSTRACT | Modifier.FINAL | Modifier.PROTECTED);
    return told == 0 ? "" : Modifier.toString(told) + " ";
  }

  private static String arguments(Executable executable) {
    AnnotatedType[] types = executable.getAnnotatedParameterTypes();
    List<String> shown = Arrays.stream(types).map(PublicParts::shown).collect(Collectors.toList());
    if (executable.isVarArgs()) {
      int last = shown.size() - 1;
      shown.set(last, shown.get(last).replaceFirst("\\[]$", "..."));
    }
    return "(" + String.join(", ", shown) + ")";
  }

  private static String shown(AnnotatedType type, String name) {
    return shown(type) + " " + name;
  }

  /** A type by its simple names: those of one name in different packages are told apart. */
  private static String shown(AnnotatedType type) {
    String all = type.toString();
    return OURS.matcher(all)
        .replaceAll(ours -> OPEN.contains(ours.group(1)) ? "" : ENGINE)
        .replaceAll("@org\\.jspecify\\.annotations\\.Nullable\\(\\)", "@Nullable")
        .replaceAll("\\bjava\\.(lang|util|io|time|math|nio)(\\.(function|file))?\\.(?=@?[A-Z])", "")
        .replace('$', '.');
  }

  private static String simple(String name) {
    int from = name.length() - name.replaceFirst("^([a-z]\\w*\\.)+", "").length();
    return name.substring(from);
  }
}
