package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Numbers read from text and written to it, against BigDecimal. */
class DecimalsTest {
  private static String written(long unscaled, int places) {
    byte[] into = new byte[5 + DecimalText.MOST_BYTES];
    int end = DecimalText.write(unscaled, places, into, 5);
    return new String(into, 5, end - 5, StandardCharsets.US_ASCII);
  }

  @ParameterizedTest
  @ValueSource(
      longs = {
        0,
        1,
        9,
        10,
        99,
        100,
        12_345_678,
        99_999_999,
        100_000_000,
        123_456_789,
        9_999_999_999_999_999L,
        10_000_000_000_000_000L,
        Long.MAX_VALUE
      })
  void writesEveryLengthAtEveryScale(long number) {
    for (int places = 0; places <= Decimals.MOST_PLACES; places++) {
      assertThat(written(number, places))
          .isEqualTo(BigDecimal.valueOf(number, places).toPlainString());
      assertThat(written(-number, places))
          .isEqualTo(BigDecimal.valueOf(-number, places).toPlainString());
    }
  }

  @Test
  void writesWhateverItRead() {
    Random random = new Random(7);
    for (int i = 0; i < 200_000; i++) {
      long number = random.nextLong() >> random.nextInt(63);
      int places = random.nextInt(Decimals.MOST_PLACES + 1);
      String text = BigDecimal.valueOf(number, places).toPlainString();
      assertThat(written(number == Long.MIN_VALUE ? 0 : number, places))
          .isEqualTo(number == Long.MIN_VALUE ? written(0, places) : text);
      assertThat(read(text, i % 2 == 0)).isEqualByComparingTo(text);
    }
  }

  private static @Nullable BigDecimal read(String text, boolean crowded) {
    Values values = new Values();
    values.prepare(1, Kind.NUMBER);
    CellVector cells = crowded ? among(text) : OneRow.of(text).column(0);
    return Decimals.read(cells, 0, values, 0) ? values.number(0) : null;
  }

  /** A cell with digits right before and behind it. */
  private static CellVector among(String text) {
    byte[] bytes = Utf8.bytes("98" + text + "76543210");
    CellVector cells = new CellVector();
    cells.viewOf(bytes, 1);
    cells.starts[0] = 2;
    cells.ends[0] = bytes.length - 8;
    return cells;
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "0",
        "7",
        "-7",
        "+7",
        "007",
        "1.",
        ".5",
        "-.5",
        "12.50",
        "1234567",
        "12345678",
        "123456.7",
        ".1234567",
        "1234567.",
        "123456789",
        " 12 ",
        "1e3",
        "1E-2",
        "0.000",
        "99999999.99999999"
      })
  void readsNumbersHoweverTheyAreWritten(String text) {
    BigDecimal expected = new BigDecimal(text.strip());
    assertThat(read(text, true)).isEqualTo(expected);
    assertThat(read(text, false)).isEqualTo(expected);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        " ",
        ".",
        "-",
        "+",
        "-.",
        "1.2.3",
        "..",
        "1 2",
        "12a",
        "a12",
        "1,5",
        "12:",
        "1/2",
        "12345678a",
        "é1",
        "1é",
        "\u00a05",
        "--5",
        "+-5",
        "0x10",
        "1e",
        "NaN",
        "Infinity"
      })
  void readsNothingElse(String text) {
    assertThat(read(text, true)).isNull();
    assertThat(read(text, false)).isNull();
  }
}
