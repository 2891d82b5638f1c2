package org.abletwine.formats.database;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import org.abletwine.table.SettingException;

/**
 * Where a user's name or a password comes from: the environment or a file. It is fetched when a
 * connection is made and never kept. Immutable; its text says where it is, not what it is.
 */
public abstract sealed class Secret {
  private Secret() {}

  /**
   * One that stands in an environment variable.
   *
   * @param name the name of the variable
   */
  public static Secret environment(String name) {
    Objects.requireNonNull(name, "name");
    return new Environment(name);
  }

  /**
   * One that is the first line of a file.
   *
   * @param file the file
   */
  public static Secret file(Path file) {
    Objects.requireNonNull(file, "file");
    return new File(file);
  }

  /**
   * Fetches it.
   *
   * @throws SettingException when it is not there, saying where it was looked for
   */
  abstract String fetch();

  private static final class Environment extends Secret {
    private final String name;

    Environment(String name) {
      this.name = name;
    }

    @Override
    String fetch() {
      String value = System.getenv(name);
      if (value == null) {
        throw new SettingException(
            "the environment variable " + name + " is not set; set it before the run");
      }
      return value;
    }

    @Override
    public String toString() {
      return "environment variable " + name;
    }
  }

  private static final class File extends Secret {
    private final Path file;

    File(Path file) {
      this.file = file;
    }

    @Override
    String fetch() {
      try {
        String text = Files.readString(file);
        return text.lines().findFirst().orElse("");
      } catch (IOException e) {
        throw new SettingException(
            "cannot read " + file + ", which holds a credential; check its name and permissions");
      }
    }

    @Override
    public String toString() {
      return "file " + file;
    }
  }
}
