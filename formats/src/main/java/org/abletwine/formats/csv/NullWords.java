package org.abletwine.formats.csv;

import java.util.List;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.Utf8;

/**
 * The words that stand for null, beside the empty cell. Spaces around them count as part of them.
 */
final class NullWords {
  private final byte[][] words;
  private final long lengths;

  NullWords(List<String> words) {
    this.words = words.stream().map(Utf8::bytes).toArray(byte[][]::new);
    long bits = 0;
    for (byte[] word : this.words) {
      bits |= 1L << Math.min(word.length, 63);
    }
    this.lengths = bits;
  }

  /** Whether any word has that length: a cheap test to make first. */
  boolean mayHold(int length) {
    return (lengths >>> Math.min(length, 63) & 1) != 0;
  }

  /** How a plain cell is marked. Safe for use by several threads. */
  int mark(byte[] buffer, int start, int end) {
    boolean isNull = start == end || mayHold(end - start) && hold(buffer, start, end - start);
    return isNull ? Batch.NULL : 0;
  }

  boolean hold(byte[] buffer, int offset, int length) {
    for (byte[] word : words) {
      if (java.util.Arrays.equals(word, 0, word.length, buffer, offset, offset + length)) {
        return true;
      }
    }
    return false;
  }
}
