package org.abletwine.figures;

/**
 * Why an attribute is null, over all rows that reached the lookup. Each row whose attribute came
 * back null adds one to exactly one reason, whether or not it was filled afterwards.
 *
 * @param column the attribute's column
 * @param unmatched null because the key is not in the reference
 * @param ambiguous null because several reference rows disagree
 * @param blankKey null because a key part is null
 * @param empty matched, but null in the reference
 * @param filled of all these, how many the plan put a value into
 */
public record AttributeFigures(
    String column, long unmatched, long ambiguous, long blankKey, long empty, long filled) {

  /** Returns the nulls left: all reasons less those filled. */
  public long nulls() {
    return unmatched + ambiguous + blankKey + empty - filled;
  }
}
