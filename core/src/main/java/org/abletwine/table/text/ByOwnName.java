package org.abletwine.table.text;

import java.util.ArrayList;
import java.util.List;
import java.util.ServiceLoader;
import java.util.function.Function;
import org.abletwine.table.SettingException;

/** What libraries bring, found by the name that each of it gives itself. Stateless. */
public final class ByOwnName {
  private ByOwnName() {}

  /**
   * Finds one.
   *
   * @param services all there are
   * @param nameOf the name of each
   * @param name the name wanted
   * @param setting the setting, for the message
   * @param what what is looked for, for the message, such as {@code rule}
   * @throws SettingException when there is none; it names the nearest
   */
  public static <T> T find(
      ServiceLoader<T> services,
      Function<T, String> nameOf,
      String name,
      String setting,
      String what) {
    List<String> found = new ArrayList<>();
    for (T one : services) {
      if (nameOf.apply(one).equals(name)) {
        return one;
      }
      found.add(nameOf.apply(one));
    }
    throw new SettingException(
        setting
            + ": no library here has a "
            + what
            + " called \""
            + name
            + "\"; "
            + (found.isEmpty()
                ? "add the one that has it to the class path or the modules"
                : NearestName.hint(name, found)));
  }
}
