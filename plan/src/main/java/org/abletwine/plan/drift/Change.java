package org.abletwine.plan.drift;

import java.util.List;

/**
 * Something that is not as it was.
 *
 * @param area what it is about: a lookup, a column, a table, {@code controls}
 * @param what what of it, such as {@code matched}
 * @param before what it was; empty where there was none
 * @param after what it is; empty where there is none
 * @param change the difference, in words
 * @param weight how much it matters: about the share of the rows or of the total that is concerned,
 *     1 for all of it, more for what is broken
 * @param beyond the limit that it exceeds, in words; empty for none
 * @param examples what is new or gone, the largest first; empty for figures
 */
public record Change(
    String area,
    String what,
    String before,
    String after,
    String change,
    double weight,
    String beyond,
    List<String> examples) {
  /** Copies the list. */
  public Change {
    examples = List.copyOf(examples);
  }

  Change(String area, String what, String before, String after, String change, double weight) {
    this(area, what, before, after, change, weight, "", List.of());
  }

  Change with(List<String> some) {
    return new Change(area, what, before, after, change, weight, beyond, some);
  }

  Change beyond(String limit) {
    return new Change(area, what, before, after, change, weight, limit, examples);
  }
}
