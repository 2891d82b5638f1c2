package org.abletwine.demo;

import java.util.LinkedHashMap;
import java.util.Map;

/** How often each trouble was planted, by its name. Filled by one thread while data is written. */
public final class Planted {
  private final Map<String, Long> counts = new LinkedHashMap<>();

  void add(String trouble) {
    counts.merge(trouble, 1L, Long::sum);
  }

  /**
   * @param trouble its name, as the demo README lists it
   * @return how often it was planted
   */
  public long count(String trouble) {
    return counts.getOrDefault(trouble, 0L);
  }

  /** Returns all troubles and their counts. */
  public Map<String, Long> counts() {
    return java.util.Collections.unmodifiableMap(counts);
  }

  @Override
  public String toString() {
    return "Planted" + counts;
  }
}
