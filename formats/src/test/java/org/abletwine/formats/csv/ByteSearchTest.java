package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Ends of cells and rows, eight bytes at a time, against looking at one byte after the other. */
class ByteSearchTest {
  private static final String CHARACTERS = "aaaabc,,;\"\n\r\u000B\b\t 0é";

  private static byte[] text(Random random) {
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(60); i > 0; i--) {
      text.append(CHARACTERS.charAt(random.nextInt(CHARACTERS.length())));
    }
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void agreesWithOneByteAfterTheOther(long seed) {
    Random random = new Random(seed);
    ByteSearch search = new ByteSearch((byte) ',', (byte) '"');
    for (int i = 0; i < 4_000; i++) {
      byte[] bytes = text(random);
      int from = bytes.length == 0 ? 0 : random.nextInt(bytes.length);
      // Only whole words are looked into.
      int used = from + (bytes.length - from) / Long.BYTES * Long.BYTES;
      int end = from;
      while (end < used && bytes[end] != ',' && bytes[end] != '\n' && bytes[end] != '\r') {
        end++;
      }
      assertThat(search.cellEnd(bytes, from, used)).isEqualTo(end);

      int separators = 0;
      boolean quoted = false;
      int row = from;
      while (row < used && bytes[row] != '\n' && bytes[row] != '\r') {
        separators += bytes[row] == ',' ? 1 : 0;
        quoted |= bytes[row] == '"';
        row++;
      }
      int expected = row == used || quoted ? -1 : row;
      assertThat(search.rowEnd(bytes, from, used, separators)).isEqualTo(expected);
      assertThat(search.rowEnd(bytes, from, used, separators + 1)).isEqualTo(-1);
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {11, 12})
  void marksTheBytesThatAreZeroAndNoOthers(long seed) {
    Random random = new Random(seed);
    for (int i = 0; i < 2_000; i++) {
      long word = random.nextLong() & random.nextLong() & (random.nextBoolean() ? -1L : 0xFF00FFL);
      long expected = 0;
      for (int b = 0; b < 8; b++) {
        expected |= (word >>> 8 * b & 0xFF) == 0 ? 0x80L << 8 * b : 0;
      }
      assertThat(ByteSearch.zeros(word)).isEqualTo(expected);
    }
  }
}
