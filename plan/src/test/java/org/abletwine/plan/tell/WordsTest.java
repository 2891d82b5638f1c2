package org.abletwine.plan.tell;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Locale;
import java.util.Random;
import org.abletwine.match.NearMiss;
import org.junit.jupiter.api.Test;

/** Numbers are told as the formats of the runtime would, which take longer to be ready. */
class WordsTest {
  private final Random random = new Random(7);

  private static String formatted(String format, Object number) {
    return String.format(Locale.ROOT, format, number);
  }

  @Test
  void countsAndNumbersHaveTheirThousandsParted() {
    for (int i = 0; i < 2_000; i++) {
      long count = random.nextLong() >> random.nextInt(64);
      assertThat(Words.count(count)).isEqualTo(formatted("%,d", count));
      BigDecimal number =
          new BigDecimal(new BigInteger(random.nextInt(90), random), random.nextInt(20) - 5);
      number = random.nextBoolean() ? number : number.negate();
      int places = Math.max(0, number.scale());
      assertThat(Words.number(number)).isEqualTo(formatted("%,." + places + "f", number));
    }
    assertThat(Words.count(Long.MIN_VALUE)).isEqualTo("-9,223,372,036,854,775,808");
  }

  @Test
  void sharesTimesAndLikenessesAreRounded() {
    for (int i = 0; i < 2_000; i++) {
      long whole = 1 + random.nextInt(1 << (1 + random.nextInt(29)));
      long part = random.nextInt((int) whole) / 2 + whole / 4;
      double share = 100.0 * part / whole;
      if (share >= 0.05) {
        assertThat(Words.percent(part, whole)).isEqualTo(formatted("%.1f %%", share));
      }
      long millis = random.nextInt(1 << (1 + random.nextInt(25)));
      assertThat(Words.seconds(millis))
          .isEqualTo(formatted(millis < 10_000 ? "%.2f s" : "%.1f s", millis / 1000.0));
      double likeness = random.nextDouble();
      assertThat(new NearMiss("", likeness, false, false).likenessText())
          .isEqualTo(formatted("%.2f", likeness));
    }
    assertThat(Words.percent(0, 5)).isEqualTo("0.0 %");
    assertThat(new NearMiss("", 1, true, false).judged()).isEqualTo("1.00 clear");
    assertThat(new NearMiss("", 0.5, false, true).judged()).isEqualTo("0.50 weak");
  }

  @Test
  void longNumbersInATextAreParted() {
    assertThat(Words.grouped("1200 of 3000000 rows, -12345.25, 2026-08-31, no 007123, 999"))
        .isEqualTo("1,200 of 3,000,000 rows, -12345.25, 2026-08-31, no 007123, 999");
  }
}
