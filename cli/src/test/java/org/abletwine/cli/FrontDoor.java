package org.abletwine.cli;

import java.io.IOException;
import java.lang.module.ModuleDescriptor;
import java.lang.module.ModuleFinder;
import java.lang.module.ModuleReader;
import java.lang.module.ModuleReference;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.abletwine.formats.database.Database;
import org.abletwine.plan.PlanFile;
import org.abletwine.table.Table;

/**
 * The types of the packages of a module that everybody may see.
 *
 * @param module the module's name
 * @param types the types, by name, those within others too
 */
record FrontDoor(String module, List<Class<?>> types) {
  /** The front door of the module that a class is in. */
  static FrontDoor of(Class<?> one) throws IOException {
    ModuleReference module = module(one);
    return new FrontDoor(module.descriptor().name(), types(module));
  }

  /** One type of each module that has a front door. */
  static Stream<Class<?>> modules() {
    return Stream.of(Table.class, Database.class, PlanFile.class);
  }

  /** The packages of all those modules that everybody may see. */
  static Set<String> open() {
    return modules()
        .flatMap(one -> packages(module(one)).stream())
        .collect(Collectors.toUnmodifiableSet());
  }

  private static ModuleReference module(Class<?> one) {
    Path place;
    try {
      place = Path.of(one.getProtectionDomain().getCodeSource().getLocation().toURI());
    } catch (URISyntaxException e) {
      throw new IllegalStateException(e);
    }
    return ModuleFinder.of(place).findAll().stream()
        .filter(found -> found.descriptor().name().startsWith("org.abletwine."))
        .findFirst()
        .orElseThrow();
  }

  private static Set<String> packages(ModuleReference module) {
    return module.descriptor().exports().stream()
        .filter(export -> !export.isQualified())
        .map(ModuleDescriptor.Exports::source)
        .collect(Collectors.toSet());
  }

  private static List<Class<?>> types(ModuleReference module) throws IOException {
    Set<String> packages = packages(module);
    Set<String> names = new TreeSet<>();
    try (ModuleReader reader = module.open();
        Stream<String> entries = reader.list()) {
      entries
          .filter(entry -> entry.endsWith(".class") && !entry.contains("-info"))
          .map(entry -> entry.substring(0, entry.length() - ".class".length()).replace('/', '.'))
          .filter(type -> packages.contains(type.substring(0, type.lastIndexOf('.'))))
          .forEach(names::add);
    }
    List<Class<?>> types = new ArrayList<>();
    for (String type : names) {
      try {
        types.add(Class.forName(type, false, FrontDoor.class.getClassLoader()));
      } catch (ClassNotFoundException e) {
        throw new IllegalStateException(e);
      }
    }
    return types;
  }
}
