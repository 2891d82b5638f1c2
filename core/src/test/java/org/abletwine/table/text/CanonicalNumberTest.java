package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which texts come back as they are once they were kept as numbers. */
class CanonicalNumberTest {
  private static long of(String text) {
    byte[] bytes = ("x" + text + "9").getBytes(StandardCharsets.UTF_8);
    return DecimalText.canonical(bytes, 1, bytes.length - 1);
  }

  @ParameterizedTest
  @CsvSource({
    "0, 1, 0",
    "7, 1, 0",
    "-7, 1, 0",
    "1.50, 1, 2",
    "-0.01, 1, 2",
    "0.0, 1, 1",
    "1234567.8, 7, 1"
  })
  void plainNumbersAre(String text, int whole, int places) {
    assertThat(of(text)).isEqualTo((long) whole << Integer.SIZE | places);
  }

  @ParameterizedTest
  @CsvSource({
    "''", "-", "007", "+5", "1e3", "' 5'", "5.", ".5", "-0", "-0.0", "1.2.3", "n/a", "00"
  })
  void othersAreNot(String text) {
    assertThat(of(text)).isEqualTo(DecimalText.NOT_CANONICAL);
  }

  /** What the exact library writes is so, and is read back the same. */
  @Test
  void whatIsWrittenPlainlyIs() {
    Random random = new Random(6);
    for (int i = 0; i < 5_000; i++) {
      BigDecimal number =
          new BigDecimal(
              new java.math.BigInteger(1 + random.nextInt(90), random), random.nextInt(9));
      BigDecimal signed = random.nextBoolean() ? number.negate() : number;
      String text = signed.toPlainString();
      assertThat(of(text)).as(text).isNotEqualTo(DecimalText.NOT_CANONICAL);
      assertThat((int) of(text)).as(text).isEqualTo(signed.scale());
    }
  }
}
