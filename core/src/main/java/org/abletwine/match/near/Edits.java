package org.abletwine.match.near;

/**
 * How many characters have to be put in, left out, replaced, or swapped with their neighbour to
 * make one text of another (Damerau, "A technique for computer detection and correction of spelling
 * errors", 1964, in the form that changes no character twice). Stateless.
 */
final class Edits {
  private Edits() {}

  static int between(String one, String other) {
    int width = other.length();
    int[] before = new int[width + 1];
    int[] last = new int[width + 1];
    int[] now = new int[width + 1];
    for (int j = 0; j <= width; j++) {
      last[j] = j;
    }
    for (int i = 1; i <= one.length(); i++) {
      now[0] = i;
      char c = one.charAt(i - 1);
      for (int j = 1; j <= width; j++) {
        char d = other.charAt(j - 1);
        int edits = Math.min(Math.min(now[j - 1], last[j]) + 1, last[j - 1] + (c == d ? 0 : 1));
        if (i > 1 && j > 1 && c == other.charAt(j - 2) && one.charAt(i - 2) == d) {
          edits = Math.min(edits, before[j - 2] + 1);
        }
        now[j] = edits;
      }
      int[] free = before;
      before = last;
      last = now;
      now = free;
    }
    return last[width];
  }
}
