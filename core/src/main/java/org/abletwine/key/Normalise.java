package org.abletwine.key;

import java.util.List;
import org.abletwine.table.NearestName;
import org.abletwine.table.SettingException;

/** The normalise steps, by their plain names. */
public final class Normalise {
  private static final List<String> NAMES = List.of("trim", "none");

  private Normalise() {}

  /** Returns the step that leaves out spaces at both ends; the default when nothing is said. */
  public static NormaliseStep trim() {
    return new Trim();
  }

  /**
   * Reads steps as a plan or option writes them.
   *
   * @param names step names in the order to apply; {@code none} alone turns normalising off
   * @return the steps
   * @throws SettingException when a name is no step, naming the nearest
   */
  public static List<NormaliseStep> parse(List<String> names) {
    if (names.equals(List.of("none"))) {
      return List.of();
    }
    return names.stream().map(Normalise::parse).toList();
  }

  private static NormaliseStep parse(String name) {
    if (name.equals("trim")) {
      return trim();
    }
    throw new SettingException(
        name.equals("none")
            ? "normalise: \"none\" stands alone, not beside other steps"
            : "normalise: no step \"" + name + "\"; " + NearestName.hint(name, NAMES));
  }
}
