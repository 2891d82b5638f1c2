package org.abletwine.step.run;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Why values are null, numbered so that a column can carry a reason for each row in two bytes. One
 * for each run; safe to share between its threads. Numbers follow the order in which reasons are
 * met, which may differ from run to run, so nothing that is shown may depend on them: there are as
 * many as a plan can give rise to, a few for each of its columns.
 */
public final class NullReasons {
  /** Nothing was noted: the value is null where it came from. */
  public static final int EMPTY = 0;

  private static final int MOST = 30_000;
  private static final String OTHERS = "other reasons";

  private final List<String> texts =
      new ArrayList<>(List.of("empty", "unmatched", "ambiguous", "blank-key", "not-asked"));

  @GuardedBy("this") private final Map<String, Integer> numbers = new HashMap<>();

  /** The reasons that need no column: where the value comes from, or the outcome of a lookup. */
  public NullReasons() {
    texts.forEach(text -> numbers.put(text, numbers.size()));
  }

  /**
   * The number of a reason.
   *
   * @param text the reason
   * @return its number; that of {@code other reasons} when there are too many
   */
  public synchronized int of(String text) {
    Integer known = numbers.get(text);
    if (known != null) {
      return known;
    }
    if (texts.size() >= MOST && !text.equals(OTHERS)) {
      return of(OTHERS);
    }
    numbers.put(text, texts.size());
    texts.add(text);
    return texts.size() - 1;
  }

  /**
   * @param number a reason's number
   * @return the reason
   */
  public synchronized String text(int number) {
    return texts.get(number);
  }

  @Override
  public synchronized String toString() {
    return "NullReasons" + texts;
  }
}
