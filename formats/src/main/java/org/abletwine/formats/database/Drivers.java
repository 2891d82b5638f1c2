package org.abletwine.formats.database;

import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Driver;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.concurrent.CopyOnWriteArrayList;
import org.abletwine.table.SettingException;

/** The drivers at hand: those on the class path, and those that were added. Safe to share. */
public final class Drivers {
  private static final List<Driver> ADDED = new CopyOnWriteArrayList<>();

  private Drivers() {}

  /**
   * Adds the drivers of a library, for this process.
   *
   * @param library a {@code .jar} file
   * @throws SettingException when there is no such file, or no driver in it
   */
  public static void add(Path library) {
    Objects.requireNonNull(library, "library");
    if (!Files.isRegularFile(library)) {
      throw new SettingException(
          "driver-path: there is no file " + library + "; name the driver's .jar");
    }
    try {
      URL[] places = {library.toUri().toURL()};
      List<Driver> found = loaded(new URLClassLoader(places, Drivers.class.getClassLoader()));
      found.removeIf(
          driver -> driver.getClass().getClassLoader() == Drivers.class.getClassLoader());
      found.removeIf(driver -> !(driver.getClass().getClassLoader() instanceof URLClassLoader));
      if (found.isEmpty()) {
        throw new SettingException("driver-path: " + library + " holds no JDBC driver");
      }
      ADDED.addAll(found);
    } catch (MalformedURLException e) {
      throw new SettingException("driver-path: " + library + " cannot be the name of a library");
    }
  }

  private static List<Driver> loaded(ClassLoader loader) {
    List<Driver> found = new ArrayList<>();
    try {
      ServiceLoader.load(Driver.class, loader).forEach(found::add);
    } catch (ServiceConfigurationError e) {
      throw new SettingException("driver-path: a driver cannot be loaded: " + e.getMessage());
    }
    return found;
  }

  /**
   * The driver for an address.
   *
   * @throws SettingException when there is none
   */
  static Driver of(Database database) {
    List<Driver> all = new ArrayList<>(ADDED);
    all.addAll(loaded(Drivers.class.getClassLoader()));
    for (Driver driver : all) {
      try {
        if (driver.acceptsURL(database.url())) {
          return driver;
        }
      } catch (SQLException e) {
        continue; // not one of its own
      }
    }
    throw new SettingException(
        "no driver is at hand for "
            + database
            + "; name the library that holds it with --driver-path FILE.jar");
  }
}
