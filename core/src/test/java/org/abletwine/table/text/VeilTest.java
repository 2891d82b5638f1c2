package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.util.HexFormat;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What is shown in place of a value that is not to be shown. */
class VeilTest {

  @AfterEach
  void anotherKey() {
    Veil.use(Veil.draw());
  }

  @Test
  void onlyWhatIsHiddenBecomesADigest() {
    assertThat(Veil.over(false, "Ann")).isEqualTo("Ann");
    assertThat(Veil.over(true, "Ann"))
        .matches("private-[0-9a-f]{12}")
        .isEqualTo(Veil.digest("Ann"));
    assertThat(Veil.over(true, null)).isNull();
    assertThat(Veil.over(true, "  ")).isEqualTo("  ");
  }

  @Test
  void aDigestIsThatOfItsKey() throws GeneralSecurityException {
    byte[] key = Veil.draw();
    assertThat(key).hasSize(32).isNotEqualTo(Veil.draw());
    Veil.use(key);
    Mac mac = Mac.getInstance("HmacSHA256");
    mac.init(new SecretKeySpec(key, "HmacSHA256"));
    for (String value : new String[] {"Ann", "", "J\u00fcrgen"}) {
      byte[] whole = mac.doFinal(value.getBytes(StandardCharsets.UTF_8));
      assertThat(Veil.digest(value))
          .isEqualTo("private-" + HexFormat.of().formatHex(whole).substring(0, 12));
    }
    String before = Veil.digest("Ann");
    Veil.use(Veil.draw());
    assertThat(Veil.digest("Ann")).isNotEqualTo(before);
  }
}
