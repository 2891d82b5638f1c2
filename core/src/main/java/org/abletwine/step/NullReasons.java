package org.abletwine.step;

import java.util.ArrayList;
import java.util.List;

/**
 * Why values are null, numbered so that a column can carry a reason for each row in a byte. One for
 * each run; safe to share between its threads.
 */
public final class NullReasons {
  /** Nothing was noted: the value is null where it came from. */
  public static final int EMPTY = 0;

  private static final int MOST = 120;
  private static final String OTHERS = "other reasons";

  private final List<String> texts =
      new ArrayList<>(List.of("empty", "unmatched", "ambiguous", "blank-key"));

  /**
   * The number of a reason.
   *
   * @param text the reason
   * @return its number; that of {@code other reasons} when there are too many
   */
  public synchronized int of(String text) {
    int known = texts.indexOf(text);
    if (known >= 0) {
      return known;
    }
    if (texts.size() >= MOST && !text.equals(OTHERS)) {
      return of(OTHERS);
    }
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
