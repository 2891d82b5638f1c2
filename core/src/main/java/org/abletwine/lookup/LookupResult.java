package org.abletwine.lookup;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What one record's lookup gave.
 *
 * @param outcome what came of it
 * @param reference the reference that had the row, or rows that disagree, one tried otherwise
 *     perhaps; empty when none had
 * @param referenceRow the reference row taken, 1-based, header not counted; 0 when none was
 * @param attributes the attributes by name; values are null where nothing was found or filled
 */
public record LookupResult(
    Outcome outcome,
    String reference,
    long referenceRow,
    Map<String, @Nullable String> attributes) {

  /** Copies the map, keeping its order. */
  public LookupResult {
    if (!(attributes instanceof AttributeValues)) {
      attributes = Collections.unmodifiableMap(new LinkedHashMap<>(attributes));
    }
  }

  /**
   * @param attribute an attribute's name
   * @return its value, or null
   */
  public @Nullable String get(String attribute) {
    return attributes.get(attribute);
  }
}
