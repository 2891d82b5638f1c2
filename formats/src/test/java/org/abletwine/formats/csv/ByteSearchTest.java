package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Ends of cells and rows, by words and by 64 bytes, against looking at one byte after the other.
 */
class ByteSearchTest {
  private static final String CHARACTERS = "aaaabc,,;\"\n\r\u000B\b\t 0é";

  private static byte[] text(Random random) {
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(150); i > 0; i--) {
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
      int to = from + random.nextInt(bytes.length - from + 1);
      int end = to;
      int quote = to;
      int separators = 0;
      long first = 0;
      for (int at = to - 1; at >= from; at--) {
        end = bytes[at] == ',' ? at : end;
        quote = bytes[at] == '"' ? at : quote;
        separators += bytes[at] == ',' ? 1 : 0;
        first |= bytes[at] == ',' && at - from < Long.SIZE ? 1L << at - from : 0;
      }
      byte[] padded = Arrays.copyOf(bytes, bytes.length + ByteSearch.ROOM);
      Arrays.fill(padded, bytes.length, padded.length, (byte) ",\"".charAt(i % 2));
      assertThat(search.cellEnd(padded, from, to)).isEqualTo(end);
      assertThat(search.quote(padded, from, to)).isEqualTo(quote);
      assertThat(ByteSearch.count(padded, from, to, (byte) ',')).isEqualTo(separators);
      assertThat(search.separators(padded, from, to)).isEqualTo(first);
    }
  }

  /** Each byte of a word by itself, and no word passed over that has one. */
  @Test
  void whatMayEndARowIsNotPassedOver() {
    ByteSearch search = new ByteSearch((byte) ';', (byte) '"');
    long quotes = '"' * ByteSearch.EACH;
    for (int c = 0; c < 256; c++) {
      for (int at = 0; at < 8; at++) {
        for (long around : new long[] {'a', 0xE9, 0x0F, 0x21, 0x80}) {
          long others = around * ByteSearch.EACH & ~(0xFFL << 8 * at);
          long word = others | (long) c << 8 * at;
          long bit = 0x80L << 8 * at;
          assertThat(search.separators(word)).isEqualTo(c == ';' ? bit : 0);
          assertThat(ByteSearch.each(bit)).isEqualTo(1L << at);
          if (c == '\n' || c == '\r' || c == '"') {
            assertThat(ByteSearch.mayHold(word, quotes) & bit).isNotZero();
          }
        }
      }
    }
    long letters = 'a' * ByteSearch.EACH;
    assertThat(ByteSearch.mayHold(letters, quotes)).as("or all would be slow").isZero();
  }

  /** Whatever stands beside it, a byte that counts is among those that may. */
  @ParameterizedTest
  @ValueSource(longs = {21, 22})
  void neighboursHideNothing(long seed) {
    Random random = new Random(seed);
    byte[] some = {'"', '\n', '\r', '#', '!', '\t', 0, 1, 0x0E, 'a', (byte) 0xA2, (byte) 0x8A};
    for (int i = 0; i < 20_000; i++) {
      long word = 0;
      long counts = 0;
      for (int at = 0; at < 8; at++) {
        byte c = some[random.nextInt(some.length)];
        word |= (c & 0xFFL) << 8 * at;
        counts |= c == '"' || c == '\n' || c == '\r' ? 1L << at : 0;
      }
      long may = ByteSearch.each(ByteSearch.mayHold(word, '"' * ByteSearch.EACH));
      assertThat(may & counts).isEqualTo(counts);
      assertThat(may >>> 8).isZero();
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
