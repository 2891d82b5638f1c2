package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.List;

/**
 * What one lookup counted. Every row that reaches the lookup adds one to exactly one of the four
 * outcomes, so {@code matched + unmatched + ambiguous + blankKey == rows}; the constructor holds to
 * that.
 *
 * @param name the lookup's name
 * @param reference the reference, such as its file name
 * @param key the key as a reader would write it
 * @param byRule whether a part of the key matches by a rule, so that sets of rows one value fits
 *     take the place of keys on several rows
 * @param combined whether aggregates put together the rows that one key fits
 * @param referenceRows rows of the reference
 * @param referenceKeys distinct keys in the reference, as compared
 * @param referenceBlankKeys rows of the reference that no key can find, because a key part is blank
 * @param severalKeys keys that stand on more than one reference row
 * @param conflictingKeys those of them whose rows disagree on an attribute brought
 * @param rows rows that reached the lookup
 * @param matched rows with one reference row, or with several that agree or that the plan chose
 *     from
 * @param unmatched rows whose key is not in the reference
 * @param ambiguous rows whose key fits several reference rows that disagree
 * @param blankKey rows with a null key part
 * @param pickedFromSeveral matched rows for which the plan chose one of several that disagree
 * @param rowsIfExpanded rows there would be if every row came out once for each reference row its
 *     key fits; the same as {@code rows} when no key fits several
 * @param expanded rows that came out beyond the first, because the plan takes every reference row
 * @param dropped rows the plan left out because of their outcome
 * @param filteredOut reference rows left out by its condition
 * @param wouldMatch unmatched rows whose key stands on a reference row that was left out
 * @param duplicatesDropped reference rows left out by its rule for duplicates
 * @param collisions keys written differently that became equal only by normalising
 * @param collisionExamples some of them, as written
 * @param matchedBy how many rows matched as written, and how many more thanks to each step in turn,
 *     and to each reference tried otherwise; the sum is {@code matched}
 * @param blankParts for each key part, rows in which it was null or blank
 * @param misses the ways in which values missed an ordered rule, those of no rows left out
 * @param constants attributes with one value on every matched row, as {@code name = value}
 * @param measures the measure's total for each outcome, in the order of the counts above; empty
 *     when nothing is measured
 * @param attributes nulls of each attribute with their reasons
 */
public record LookupFigures(
    String name,
    String reference,
    String key,
    boolean byRule,
    boolean combined,
    long referenceRows,
    long referenceKeys,
    long referenceBlankKeys,
    long severalKeys,
    long conflictingKeys,
    long rows,
    long matched,
    long unmatched,
    long ambiguous,
    long blankKey,
    long pickedFromSeveral,
    long rowsIfExpanded,
    long expanded,
    long dropped,
    long filteredOut,
    long wouldMatch,
    long duplicatesDropped,
    long collisions,
    List<String> collisionExamples,
    List<Share> matchedBy,
    List<Share> blankParts,
    List<Miss> misses,
    List<String> constants,
    List<BigDecimal> measures,
    List<AttributeFigures> attributes)
    implements StepFigures {

  /**
   * A part of a count.
   *
   * @param name what it is the part of: a normalise step, or a key part
   * @param rows rows
   */
  public record Share(String name, long rows) {}

  /**
   * A way in which values missed an ordered rule.
   *
   * @param kind such as {@code below the lowest}
   * @param rows rows; unmatched, or with a blank key where the value cannot be compared
   * @param example the first of them, in words
   */
  public record Miss(String kind, long rows, String example) {}

  /** Checks the sum rule and copies the list. */
  public LookupFigures {
    collisionExamples = List.copyOf(collisionExamples);
    matchedBy = List.copyOf(matchedBy);
    blankParts = List.copyOf(blankParts);
    misses = List.copyOf(misses);
    constants = List.copyOf(constants);
    measures = List.copyOf(measures);
    attributes = List.copyOf(attributes);
    if (matched + unmatched + ambiguous + blankKey != rows) {
      throw new IllegalArgumentException("outcomes do not add up to rows");
    }
  }
}
