package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class QuoteSignsTest {
  private static final String SIGNS = "\"',;|";

  /** Each byte there is, at each place of texts of up to three words, and signs beside the text. */
  @Test
  void eachByteIsOneOrNot() {
    for (int c = 0; c < 256; c++) {
      boolean sign = c < ' ' || SIGNS.indexOf(c) >= 0;
      for (byte around : new byte[] {'a', (byte) 0xC3, ' ', '~', (byte) 0x80, 0x7F}) {
        for (int length = 1; length <= 20; length++) {
          byte[] text = new byte[length + 10];
          Arrays.fill(text, (byte) '"');
          Arrays.fill(text, 2, 2 + length, around);
          assertThat(QuoteSigns.any(text, 2, 2 + length)).isFalse();
          for (int at = 2; at < 2 + length; at++) {
            text[at] = (byte) c;
            assertThat(QuoteSigns.any(text, 2, 2 + length)).as(c + " at " + at).isEqualTo(sign);
            byte[] alone = Arrays.copyOf(text, 2 + length);
            assertThat(QuoteSigns.any(alone, 2, 2 + length)).as("at the end").isEqualTo(sign);
            text[at] = around;
          }
        }
      }
    }
    assertThat(QuoteSigns.any(new byte[8], 0, 0)).as("nothing").isFalse();
  }
}
