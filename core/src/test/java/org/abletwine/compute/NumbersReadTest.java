package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Numbers read eight bytes at once and digit by digit, against big decimals. */
class NumbersReadTest {
  /** Cells of one to twenty characters, wherever they stand in their text. */
  @Test
  void numbersReadAtOnceAndOneByOne() {
    List<String> texts =
        List.of(
            "0",
            "9",
            ".",
            "5.",
            ".5",
            "12345678",
            "1234567.",
            ".1234567",
            "1.234567",
            "123456789",
            "123456789012345678",
            "1234567890123456789",
            "12345678901234567.8",
            "12345678901234567.89",
            "0.123456789012345678",
            ".123456789012345678",
            "-123456789012345678",
            "-0.5",
            "+5",
            " 5",
            "5 ",
            "\t5",
            "5\t",
            " -5 ",
            "- 5",
            "5-",
            "/",
            ":",
            "1/",
            "1:",
            "/1",
            "..",
            "1.5.",
            "99999999",
            "00000000",
            "0000000.",
            "\u00e95",
            "5\u00e9",
            "\u007f5",
            "000000000000000000001",
            "1e5",
            "1e1000",
            "1e1001",
            "1e-1000",
            "1e-1001");
    for (String text : texts) {
      for (String around : List.of("", "1", "12345678", ".", "x")) {
        BigDecimal wanted = plain(text);
        byte[] bytes = (around + text + around).getBytes(StandardCharsets.ISO_8859_1);
        int from = around.length();
        Values out = empty(1);
        long before = LongWay.count();
        boolean read = Decimals.read(bytes, from, from + text.length(), out, 0);
        long slowly = LongWay.count() - before;
        assertThat(read ? out.number(0) : null).as("%s in %s", text, around).isEqualTo(wanted);
        long packed = DecimalText.plain(bytes, from, from + text.length());
        boolean may = wanted != null && text.strip().matches("[-+]?(?=.{1,18}$)[0-9]*\\.?[0-9]*");
        boolean digits = may && text.replaceAll("[^0-9]", "").length() <= 17;
        assertThat(packed != DecimalText.NOT_PLAIN).as("%s in %s", text, around).isEqualTo(digits);
        assertThat(slowly).isEqualTo(digits ? 0 : 1);
        if (digits) {
          assertThat(BigDecimal.valueOf(DecimalText.digits(packed), DecimalText.places(packed)))
              .isEqualTo(wanted);
        }
      }
    }
    assertThat(DecimalText.plain(new byte[16], 4, 4)).isEqualTo(DecimalText.NOT_PLAIN);
  }

  private static @Nullable BigDecimal plain(String text) {
    String bare = text.strip();
    if (!bare.matches("[-+]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][-+]?[0-9]+)?")) {
      return null;
    }
    BigDecimal value = new BigDecimal(bare);
    return Math.abs((long) value.scale()) > 1000 ? null : value;
  }

  private static Values empty(int rows) {
    Values values = new Values();
    values.prepare(rows, Kind.NUMBER);
    return values;
  }
}
