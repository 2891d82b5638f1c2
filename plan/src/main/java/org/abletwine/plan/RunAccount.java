package org.abletwine.plan;

import java.util.List;
import java.util.Map;
import org.abletwine.figures.RunRecord;
import org.jspecify.annotations.Nullable;

/**
 * The whole account of one run of a plan: its figures, and what it read, was told, and wrote.
 * Immutable.
 *
 * @param figures what was counted
 * @param version the version of the tool
 * @param plan the plan
 * @param inputs the tables that were read, the transactions first
 * @param outputs what was written, in the order of the plan; not the record and the report
 *     themselves
 * @param unmatched for each lookup that left keys unmatched, these
 */
public record RunAccount(
    RunRecord figures,
    String version,
    PlanText plan,
    List<Input> inputs,
    List<Written> outputs,
    Map<String, Unmatched> unmatched) {

  /** Copies the collections. */
  public RunAccount {
    inputs = List.copyOf(inputs);
    outputs = List.copyOf(outputs);
    unmatched = Map.copyOf(unmatched);
  }

  /**
   * A plan as it was read.
   *
   * @param file its name
   * @param text all of it
   * @param sha256 the SHA-256 digest of its bytes, in hexadecimal digits
   */
  public record PlanText(String file, String text, String sha256) {}

  /**
   * A table that was read.
   *
   * @param name {@code transactions}, or the name of the reference
   * @param place its file, files or database table, in words
   * @param rows rows read; -1 when they were not counted
   * @param files the files, in order; empty for a database
   */
  public record Input(String name, String place, long rows, List<FileFacts> files) {
    /** Copies the list. */
    public Input {
      files = List.copyOf(files);
    }
  }

  /**
   * Something that was written.
   *
   * @param what what is in it, such as {@code enriched}
   * @param place its file, sheet or database table, in words
   * @param rows rows, the header not counted
   * @param file its file; null when it is none
   */
  public record Written(String what, String place, long rows, @Nullable FileFacts file) {}

  /**
   * The keys that one lookup did not find, the largest measure first, then the most rows.
   *
   * @param keys the keys, at most {@value #MOST}
   * @param distinct how many there are; a lower bound when it is more than {@value #MOST_COUNTED}
   */
  public record Unmatched(List<UnmatchedKey> keys, long distinct) {
    /** So many keys of a lookup are named. */
    public static final int MOST = 10_000;

    /** So many keys of a lookup are told apart. */
    public static final int MOST_COUNTED = 100_000;

    /** Copies the list. */
    public Unmatched {
      keys = List.copyOf(keys);
    }

    /** {@return whether all keys are named} */
    public boolean complete() {
      return distinct == keys.size();
    }
  }

  /**
   * A key that a lookup did not find.
   *
   * @param key as the transactions write it; parts parted by a vertical bar
   * @param rows rows that have it
   * @param measure the measure's total over them; null when nothing is measured
   */
  public record UnmatchedKey(String key, long rows, @Nullable String measure) {}
}
