package org.abletwine.table.text;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Finds the valid name a mistyped one was probably meant to be. */
public final class NearestName {
  private static final double CLOSE_ENOUGH = 0.75;
  private static final int NAMES_LISTED = 12;

  private NearestName() {}

  /**
   * The valid name most like the given one.
   *
   * @param name the name as written
   * @param valid the names that would have been right
   * @return the nearest, or empty when none is at all close
   */
  public static Optional<String> of(String name, Collection<String> valid) {
    String folded = fold(name);
    return valid.stream()
        .max(Comparator.comparingDouble(v -> likeness(folded, fold(v))))
        .filter(v -> likeness(folded, fold(v)) >= CLOSE_ENOUGH);
  }

  private static double likeness(String name, String valid) {
    double similarity = JaroWinkler.similarity(name, valid);
    boolean within =
        name.length() > 2 && valid.length() > 2 && (valid.contains(name) || name.contains(valid));
    return within ? Math.max(similarity, CLOSE_ENOUGH) : similarity;
  }

  /**
   * The end of a message about a wrong name: the nearest valid one, else the list of them.
   *
   * @param name the name as written
   * @param valid the names that would have been right, in the order to list them
   * @return such as {@code did you mean "grower_no"?} or {@code the names are a, b, c}
   */
  public static String hint(String name, Collection<String> valid) {
    return of(name, valid)
        .map(near -> "did you mean \"" + near + "\"?")
        .orElseGet(() -> "the names are " + list(List.copyOf(valid)));
  }

  private static String list(List<String> names) {
    if (names.isEmpty()) {
      return "(none)";
    }
    String shown = String.join(", ", names.subList(0, Math.min(NAMES_LISTED, names.size())));
    return names.size() > NAMES_LISTED
        ? shown + " and " + (names.size() - NAMES_LISTED) + " more"
        : shown;
  }

  private static String fold(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll("[\\s_-]+", "");
  }
}
