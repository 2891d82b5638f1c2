package org.abletwine.plan.drift;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.NearestName;

/**
 * How much may change, for each kind of figure; what is not named may change by anything.
 * Immutable.
 */
public final class Limits {
  /** Everything may change. */
  public static final Limits NONE = new Limits(Map.of());

  private final Map<String, BigDecimal> limits;

  private Limits(Map<String, BigDecimal> limits) {
    this.limits = limits;
  }

  /** A kind of figure, and what its limit says. */
  enum Figure {
    MATCHED("matched", "points that the share of matched rows may fall by"),
    NULLS("nulls", "points that the share of nulls of a column may rise by"),
    UNMATCHED_KEYS("unmatched-keys", "new unmatched keys"),
    DUPLICATES("duplicates", "new keys on several rows"),
    ROWS("rows", "per cent that the number of transactions may change by"),
    TOTALS("totals", "per cent that a total for each row may change by"),
    CONTROLS("controls", "controls that held before and do not now"),
    PLAN("plan", "lines of the plan that changed");

    private final String label;
    private final String meaning;

    Figure(String label, String meaning) {
      this.label = label;
      this.meaning = meaning;
    }
  }

  /**
   * Reads limits as they are written.
   *
   * @param written such as {@code matched=0.5}, or for one lookup or column {@code
   *     matched.growers=2}, which goes before the general one
   * @throws SettingException naming what is wrong and what is valid
   */
  public static Limits of(List<String> written) {
    Map<String, BigDecimal> limits = new LinkedHashMap<>();
    for (String one : written) {
      int equals = one.indexOf('=');
      String name = equals < 0 ? one : one.substring(0, equals);
      String text = equals < 0 ? "" : one.substring(equals + 1).replaceFirst("\\s*%$", "");
      String figure = name.indexOf('.') < 0 ? name : name.substring(0, name.indexOf('.'));
      List<String> labels = Arrays.stream(Figure.values()).map(each -> each.label).toList();
      if (!labels.contains(figure)) {
        throw new SettingException(
            "--allow "
                + one
                + ": there is no figure \""
                + figure
                + "\"; "
                + NearestName.of(figure, labels)
                    .map(near -> "did you mean \"" + near + "\"?")
                    .orElse("there are " + meanings()));
      }
      BigDecimal limit = DecimalText.read(text);
      if (limit == null || limit.signum() < 0) {
        throw new SettingException(
            "--allow " + one + ": state a number from 0 on, such as " + figure + "=1");
      }
      limits.put(name, limit);
    }
    return new Limits(limits);
  }

  /** {@return all kinds of figures with the meaning of their limits, a line each} */
  public static String meanings() {
    return Arrays.stream(Figure.values())
        .map(figure -> figure.label + "=N (" + figure.meaning + ")")
        .collect(Collectors.joining(", "));
  }

  /** The change, marked when it is beyond its limit. */
  Change judge(Figure figure, Change change, BigDecimal by) {
    BigDecimal limit = limits.get(figure.label + "." + change.area());
    if (limit == null) {
      limit = limits.get(figure.label);
    }
    return limit == null || by.compareTo(limit) <= 0
        ? change
        : change.beyond(figure.label + "=" + limit.toPlainString());
  }

  /**
   * Refuses limits for what is in neither record.
   *
   * @param areas the lookups, columns and tables there are
   */
  void check(Set<String> areas) {
    for (String name : limits.keySet()) {
      int dot = name.indexOf('.');
      if (dot >= 0 && !areas.contains(name.substring(dot + 1))) {
        String area = name.substring(dot + 1);
        throw new SettingException(
            "--allow "
                + name
                + ": there is no lookup or column \""
                + area
                + "\" in the records; "
                + NearestName.hint(area, areas));
      }
    }
  }

  @Override
  public String toString() {
    return "Limits" + limits;
  }
}
