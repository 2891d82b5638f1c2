package org.abletwine.plan;

import java.util.List;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Closer;
import org.jspecify.annotations.Nullable;

/**
 * All that a report is made of. Immutable.
 *
 * @param account the whole account of the run
 * @param words the plan in sentences, with what came of each
 * @param closer tells how to look closer
 * @param corrections proposals for unmatched keys, those that stand out first
 * @param attention what needs a person, by what met it and why
 * @param exceptions where the list of all exceptions is; empty for nowhere
 * @param since what changed since an earlier run; null when none was named
 */
public record ReportMaterial(
    RunAccount account,
    List<PlanSentence> words,
    Closer closer,
    Corrections corrections,
    List<Attention> attention,
    String exceptions,
    @Nullable Drift since) {

  /** So many proposals are in a report. */
  public static final int MOST_CORRECTIONS = 1_000;

  /** So many keys of one step and kind are in a report. */
  public static final int MOST_KEYS = 25;

  /** Copies the lists. */
  public ReportMaterial {
    words = List.copyOf(words);
    attention = List.copyOf(attention);
  }

  /**
   * Proposals for unmatched keys.
   *
   * @param header the columns of a file of corrections
   * @param lines the first lines of it, as many cells each
   * @param all how many lines there are
   * @param file where the file is; empty when the plan writes none
   */
  public record Corrections(List<String> header, List<List<String>> lines, long all, String file) {
    /** No proposals. */
    public static final Corrections NONE = new Corrections(List.of(), List.of(), 0, "");

    /** Copies the lists. */
    public Corrections {
      header = List.copyOf(header);
      lines = lines.stream().map(List::copyOf).toList();
    }
  }

  /**
   * Rows that need a person for one reason.
   *
   * @param step what met them
   * @param kind why, such as {@code unmatched}
   * @param table the table they are in
   * @param rows how many
   * @param keys how many different keys they have
   * @param more whether there are more keys than were told apart
   * @param worst the keys with the largest measure, then the most rows, at most {@value
   *     ReportMaterial#MOST_KEYS}
   */
  public record Attention(
      String step, String kind, String table, long rows, long keys, boolean more, List<Key> worst) {
    /** Copies the list. */
    public Attention {
      worst = List.copyOf(worst);
    }
  }

  /**
   * A key that needs a person.
   *
   * @param key as written; parts parted by a vertical bar
   * @param rows its rows
   * @param measure the measure's total over them; null when nothing is measured
   * @param firstRow the first of them, 1-based; 0 when it is no single row
   * @param detail what else there is to say; may be empty
   */
  public record Key(
      String key, long rows, @Nullable String measure, long firstRow, String detail) {}
}
