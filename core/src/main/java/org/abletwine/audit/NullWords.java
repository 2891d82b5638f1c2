package org.abletwine.audit;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Counts values that people write where there is none, whatever the case of their letters. Used by
 * one thread.
 */
final class NullWords {
  private static final byte[][] WORDS =
      List.of(
              "null",
              "none",
              "nil",
              "nan",
              "na",
              "n/a",
              "n.a.",
              "#n/a",
              "#null!",
              "-",
              "--",
              "---",
              "?",
              "??",
              ".",
              "..",
              "*",
              "unknown",
              "not known",
              "missing",
              "blank",
              "empty",
              "not available",
              "not applicable",
              "tbc",
              "tba",
              "tbd",
              "(null)",
              "(none)",
              "(blank)",
              "<null>",
              "0000-00-00")
          .stream()
          .map(word -> word.getBytes(StandardCharsets.US_ASCII))
          .toArray(byte[][]::new);
  private static final int LONGEST = 14;

  /** Which words are so many bytes long. */
  private static final int[][] OF_LENGTH =
      IntStream.rangeClosed(0, LONGEST)
          .mapToObj(
              length ->
                  IntStream.range(0, WORDS.length)
                      .filter(word -> WORDS[word].length == length)
                      .toArray())
          .toArray(int[][]::new);

  /** The bytes that a word begins with, upper case too. */
  private static final boolean[] BEGINS = new boolean[256];

  static {
    for (byte[] word : WORDS) {
      BEGINS[word[0]] = true;
      BEGINS[Character.toUpperCase(word[0])] = true;
    }
  }

  private final long[] counts = new long[WORDS.length];
  private final @Nullable String[] written = new @Nullable String[WORDS.length];
  private final long[] rows = new long[WORDS.length];

  /**
   * Counts a value, spaces around it left out, if it is such a word.
   *
   * @param row its row
   * @return which it is; -1 when it is none
   */
  int look(byte[] text, int from, int to, long row) {
    int start = from;
    int end = to;
    while (start < end && text[start] == ' ') {
      start++;
    }
    while (end > start && text[end - 1] == ' ') {
      end--;
    }
    int length = end - start;
    if (length == 0 || length > LONGEST || !BEGINS[text[start] & 0xFF]) {
      return -1;
    }
    for (int word : OF_LENGTH[length]) {
      if (same(WORDS[word], text, start)) {
        if (counts[word]++ == 0) {
          written[word] = Utf8.text(text, start, end);
          rows[word] = row;
        }
        return word;
      }
    }
    return -1;
  }

  /**
   * Counts a word so many times more.
   *
   * @param word which; -1 for none
   */
  void again(int word, long times) {
    if (word >= 0) {
      counts[word] += times;
    }
  }

  /** Adds what another worker has counted. */
  void merge(NullWords other) {
    for (int word = 0; word < counts.length; word++) {
      if (other.counts[word] > 0 && (counts[word] == 0 || other.rows[word] < rows[word])) {
        written[word] = other.written[word];
        rows[word] = other.rows[word];
      }
      counts[word] += other.counts[word];
    }
  }

  private static boolean same(byte[] word, byte[] text, int start) {
    for (int i = 0; i < word.length; i++) {
      byte c = text[start + i];
      byte lower = c >= 'A' && c <= 'Z' ? (byte) (c + 32) : c;
      if (lower != word[i]) {
        return false;
      }
    }
    return true;
  }

  /** How many values are such words. */
  long count() {
    return LongStream.of(counts).sum();
  }

  /** The words met, the most frequent first, as first written. */
  List<TableProfile.Column.Value> found() {
    List<TableProfile.Column.Value> found = new ArrayList<>();
    for (int word = 0; word < counts.length; word++) {
      String text = written[word];
      if (text != null) {
        found.add(new TableProfile.Column.Value(text, counts[word]));
      }
    }
    found.sort(Comparator.comparingLong(TableProfile.Column.Value::rows).reversed());
    return found;
  }
}
