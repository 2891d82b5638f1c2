package org.abletwine.plan.draft;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A step of a draft.
 *
 * @param reference the name of its reference
 * @param key how it joins
 * @param steps normalise steps, as an option writes them; empty for the usual
 * @param bring columns to fetch, each with the name it gets
 * @param otherwise another reference that is tried for rows without a match; null for none
 * @param newestBy the column that says which of several rows of a key counts; empty for none
 * @param doubts what a person should check, in sentences
 */
record DraftedStep(
    String reference,
    FoundKey key,
    List<String> steps,
    Map<String, String> bring,
    @Nullable DraftedStep otherwise,
    String newestBy,
    List<String> doubts) {

  /** The same step that fetches less. */
  DraftedStep bringing(Map<String, String> columns) {
    DraftedStep other = otherwise;
    if (other != null) {
      Map<String, String> common = new LinkedHashMap<>(other.bring());
      common.values().retainAll(columns.values());
      other = common.isEmpty() ? null : other.bringing(common);
    }
    return new DraftedStep(reference, key, steps, columns, other, newestBy, doubts);
  }

  DraftedStep otherwise(@Nullable DraftedStep other) {
    return new DraftedStep(reference, key, steps, bring, other, newestBy, doubts);
  }
}
