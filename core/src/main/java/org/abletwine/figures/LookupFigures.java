package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What one lookup counted.
 *
 * @param name the lookup's name
 * @param key the key as a reader would write it
 * @param reference what was found in the reference
 * @param outcomes what became of the rows
 * @param asked which rows it is for; null for all
 * @param fits what came of keys that fit several reference rows
 * @param matchedBy how many rows matched as written, and how many more thanks to each step in turn,
 *     and to each reference tried otherwise; the sum is {@code matched}
 * @param blankParts for each key part, rows in which it was null or blank
 * @param misses the ways in which values missed an ordered rule, those of no rows left out
 * @param distances how far away matches are, of a rule that takes the next value below or above;
 *     null for any other
 * @param constants attributes with one value on every matched row, as {@code name = value}
 * @param measures the measure's total for each outcome, in the order of the counts; empty when
 *     nothing is measured
 * @param attributes nulls of each attribute with their reasons
 * @param privateKey whether a part of the key is private: digests stand for its values then
 * @param spilled how the reference was divided that did not fit in memory; null for one that did
 */
public record LookupFigures(
    String name,
    String key,
    Reference reference,
    Outcomes outcomes,
    @Nullable Asked asked,
    Fits fits,
    List<Share> matchedBy,
    List<Share> blankParts,
    List<Miss> misses,
    @Nullable Distances distances,
    List<String> constants,
    List<BigDecimal> measures,
    List<Attribute> attributes,
    boolean privateKey,
    @Nullable Spilled spilled)
    implements StepFigures {

  /** Copies the lists. */
  public LookupFigures {
    matchedBy = List.copyOf(matchedBy);
    blankParts = List.copyOf(blankParts);
    misses = List.copyOf(misses);
    constants = List.copyOf(constants);
    measures = List.copyOf(measures);
    attributes = List.copyOf(attributes);
  }

  /** {@return the same figures, of a reference that fitted in memory} */
  @Override
  public LookupFigures inMemory() {
    return new LookupFigures(
        name,
        key,
        reference,
        outcomes,
        asked,
        fits,
        matchedBy,
        blankParts,
        misses,
        distances,
        constants,
        measures,
        attributes,
        privateKey,
        null);
  }

  /**
   * What was found in the reference.
   *
   * @param name its name, such as its file name
   * @param rows its rows
   * @param keys its distinct keys, as compared
   * @param blankKeys its rows that no key can find, because a key part is blank
   * @param severalKeys keys that stand on more than one of its rows
   * @param conflictingKeys those of them whose rows disagree on an attribute brought
   * @param filteredOut rows left out by its condition
   * @param duplicatesDropped rows left out by its rule for duplicates
   * @param unreadable rows left out because an ordered cell of theirs cannot be read
   * @param collisions keys written differently that became equal only by normalising
   * @param collisionExamples some of them, as written
   * @param several keys that stand on more than one of its rows, at most {@value #MOST_SEVERAL}, in
   *     the order of their first rows
   */
  public record Reference(
      String name,
      long rows,
      long keys,
      long blankKeys,
      long severalKeys,
      long conflictingKeys,
      long filteredOut,
      long duplicatesDropped,
      long unreadable,
      long collisions,
      List<String> collisionExamples,
      List<SeveralRows> several) {
    /** So many keys on several rows are named. */
    public static final int MOST_SEVERAL = 1_000;

    /** Copies the lists. */
    public Reference {
      collisionExamples = List.copyOf(collisionExamples);
      several = List.copyOf(several);
    }
  }

  /**
   * How a reference was divided that does not fit in memory.
   *
   * @param parts into how many parts
   * @param bytes what was written to disk for it: the reference, the keys of the transactions and
   *     what was found for them
   */
  public record Spilled(int parts, long bytes) {
    /** So many times the transactions are read because of it. */
    public static final int READINGS = 2;
  }

  /**
   * A key that stands on several rows of the reference.
   *
   * @param key the key as its first row writes it, parts parted by a vertical bar
   * @param rows the numbers of the first few rows, 1-based, and how many more there are
   * @param conflicting whether the rows disagree on an attribute brought
   */
  public record SeveralRows(String key, String rows, boolean conflicting) {}

  /**
   * The first transaction of an outcome, by its row, 1-based; 0 where there is none.
   *
   * @param unmatched the first unmatched one
   * @param ambiguous the first ambiguous one
   * @param blankKey the first with a blank key
   */
  public record Firsts(long unmatched, long ambiguous, long blankKey) {
    /** None of any. */
    public static final Firsts NONE = new Firsts(0, 0, 0);
  }

  /**
   * What became of the rows. Every row that reaches the lookup adds one to exactly one of the five
   * outcomes, so {@code matched + unmatched + ambiguous + blankKey + notAsked == rows}; the
   * constructor holds to that.
   *
   * @param rows rows that reached the lookup
   * @param matched rows with one reference row, or with several that agree or that the plan chose
   *     from
   * @param unmatched rows whose key is not in the reference
   * @param ambiguous rows whose key fits several reference rows that disagree
   * @param blankKey rows with a null key part
   * @param notAsked rows that the lookup is not for
   * @param dropped rows the plan left out because of their outcome
   * @param wouldMatch unmatched rows whose key stands on a reference row that was left out
   * @param firsts the first row of each outcome that a person may want to look at
   * @param expected outcomes, as a plan writes them, that are expected of some rows and need nobody
   */
  public record Outcomes(
      long rows,
      long matched,
      long unmatched,
      long ambiguous,
      long blankKey,
      long notAsked,
      long dropped,
      long wouldMatch,
      Firsts firsts,
      List<String> expected) {
    /** Checks the sum rule, and copies the list. */
    public Outcomes {
      expected = List.copyOf(expected);
      if (matched + unmatched + ambiguous + blankKey + notAsked != rows) {
        throw new IllegalArgumentException("outcomes do not add up to rows");
      }
    }
  }

  /**
   * Which rows a lookup is for.
   *
   * @param when the condition
   * @param unknown rows it is not asked for because the condition is neither true nor false: a
   *     value it compares is null
   */
  public record Asked(String when, long unknown) {}

  /**
   * What came of keys that fit several reference rows.
   *
   * @param byRule whether a part of the key matches by a rule, so that sets of rows one value fits
   *     take the place of keys on several rows
   * @param combined whether aggregates put together the rows that one key fits
   * @param picked matched rows for which the plan chose one of several that disagree
   * @param rowsIfEach rows there would be if every row came out once for each reference row its key
   *     fits; the same as {@code rows} when no key fits several
   * @param added rows that came out beyond the first, because the plan takes every reference row
   */
  public record Fits(boolean byRule, boolean combined, long picked, long rowsIfEach, long added) {}

  /**
   * Why an attribute is null, over all rows that reached the lookup. Each row whose attribute came
   * back null adds one to exactly one reason, whether or not it was filled afterwards.
   *
   * @param column the attribute's column
   * @param unmatched null because the key is not in the reference
   * @param ambiguous null because several reference rows disagree
   * @param blankKey null because a key part is null
   * @param notAsked null because the lookup is not for the row
   * @param empty matched, but null in the reference
   * @param filled of all these, how many the plan put a value into
   */
  public record Attribute(
      String column,
      long unmatched,
      long ambiguous,
      long blankKey,
      long notAsked,
      long empty,
      long filled) {

    /** {@return the nulls left: all reasons less those filled} */
    public long nulls() {
      return unmatched + ambiguous + blankKey + notAsked + empty - filled;
    }
  }

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

  /**
   * How far the reference's value is from ours on matched rows: the age of what was brought, where
   * the values are days.
   *
   * @param rows rows that matched so
   * @param median the distance that half of them do not exceed, such as {@code 3 days}; of more
   *     than 65,536 different distances to the nearest 65,536th part of the greatest
   * @param greatest the greatest distance
   */
  public record Distances(long rows, String median, String greatest) {}

  /** {@return the rows that reached the lookup} */
  public long rows() {
    return outcomes.rows();
  }

  /** {@return the rows that matched} */
  public long matched() {
    return outcomes.matched();
  }

  /** {@return the rows whose key is not in the reference} */
  public long unmatched() {
    return outcomes.unmatched();
  }

  /** {@return the rows whose key fits several reference rows that disagree} */
  public long ambiguous() {
    return outcomes.ambiguous();
  }

  /** {@return the rows that the lookup is not for} */
  public long notAsked() {
    return outcomes.notAsked();
  }

  /** {@return the rows with a null key part} */
  public long blankKey() {
    return outcomes.blankKey();
  }
}
