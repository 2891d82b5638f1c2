package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** How far bytes are valid UTF-8, against the decoder of the platform. */
class ValidUtf8Test {
  private static int expected(byte[] bytes, int from, int to) {
    ByteBuffer in = ByteBuffer.wrap(bytes, from, to - from);
    StandardCharsets.UTF_8.newDecoder().decode(in, CharBuffer.allocate(to - from + 1), true);
    return in.position();
  }

  @Test
  void everySequenceOfThreeBytesBeyondAsciiIsJudgedAsThePlatformDoes() {
    byte[] bytes = {'a', 0, 0, 0, (byte) 0x80, 'b'};
    int[] seconds = {0x00, 0x7F, 0x80, 0x8F, 0x90, 0x9F, 0xA0, 0xBF, 0xC0, 0xFF};
    for (int first = 0; first < 256; first++) {
      for (int second : seconds) {
        for (int third : seconds) {
          bytes[1] = (byte) first;
          bytes[2] = (byte) second;
          bytes[3] = (byte) third;
          for (int to = 2; to <= bytes.length; to++) {
            assertThat(ValidUtf8.end(bytes, 0, to))
                .as("%x %x %x to %d", first, second, third, to)
                .isEqualTo(expected(bytes, 0, to));
          }
        }
      }
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void longTextsWithASlipAreValidUpToIt(long seed) {
    Random random = new Random(seed);
    List<String> pieces = List.of("oats", "é", "ж", "\u3000", "\uD83C\uDF3E", "0123456789", ",\n");
    for (int i = 0; i < 2_000; i++) {
      StringBuilder text = new StringBuilder();
      for (int n = random.nextInt(12); n >= 0; n--) {
        text.append(pieces.get(random.nextInt(pieces.size())));
      }
      byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
      assertThat(ValidUtf8.end(bytes, 0, bytes.length)).isEqualTo(bytes.length);
      bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
      int cut = random.nextInt(bytes.length + 1);
      assertThat(ValidUtf8.end(bytes, 0, cut)).isEqualTo(expected(bytes, 0, cut));
    }
  }

  @Test
  void whatPartsCellsIsAscii() {
    assertThatThrownBy(() -> new TableOptions('§', null, null, null, List.of(), false))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("delimiter: must be an ASCII character")
        .hasMessageContaining("not \"§\"");
    assertThatThrownBy(() -> new TableOptions(null, '«', null, null, List.of(), false))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("quote: must be an ASCII character");
  }
}
