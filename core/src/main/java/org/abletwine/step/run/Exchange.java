package org.abletwine.step.run;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.DataException;
import org.abletwine.table.output.StoredBytes;
import org.jspecify.annotations.Nullable;

/**
 * What the processes of one run have found for lookups whose references they divide among them
 * ({@link Exchanging}): for the rows that one of them takes, or for the one that puts all together.
 */
public interface Exchange {

  /** Nothing is divided among processes. */
  Exchange NONE = lookup -> null;

  /**
   * What was found for a lookup.
   *
   * @param lookup its name
   * @return null when its reference is not divided among processes
   */
  @Nullable Found of(String lookup);

  /**
   * What was found.
   *
   * @param parts into how many parts the references were divided
   * @param divided which of them were, by number
   * @param unread for each reference that cannot be read, by its number, what is wrong
   * @param refused for each part what is wrong with the references, as {@link Exchanging.Part} has
   *     told it
   * @param answers the answers for the rows taken, of each part in the order of the rows
   * @param stopped what ends the run at the row after the last that has an answer; null for nothing
   * @param known for each part of the key which of the values asked for the reference knows; null
   *     when there were too many
   * @param found what was found beside the answers, part by part, as {@link Exchanging.Part} has
   *     told it; none for whoever takes rows
   */
  record Found(
      int parts,
      List<Integer> divided,
      Map<Integer, DataException> unread,
      List<byte[]> refused,
      List<? extends StoredBytes> answers,
      @Nullable DataException stopped,
      @Nullable List<Set<String>> known,
      Iterable<byte[]> found) {
    /**
     * What there is before anything was found.
     *
     * @param parts into how many parts the references are divided
     * @param divided which of them are, by number
     */
    public static Found nothing(int parts, List<Integer> divided) {
      return new Found(parts, divided, Map.of(), List.of(), List.of(), null, List.of(), List.of());
    }
  }
}
