package org.abletwine.table.text;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;

/**
 * The one place that says what is shown in place of a value that is not to be shown: a short keyed
 * digest (HMAC of SHA-256, RFC 2104, its first 48 bits), the same for the same value as long as
 * this program runs, and another the next time. So a person can see that two rows hold one value,
 * and nobody can find the value by trying all there can be: the key is drawn at random and never
 * leaves. Among 100,000 values the chance that any two share a digest is 1 in 56,000. Safe for use
 * by several threads.
 */
public final class Veil {
  /** What every digest begins with. */
  public static final String START = "private-";

  private static final String ALGORITHM = "HmacSHA256";
  private static final int BYTES = 6;
  private static final int KEY_BYTES = 32;
  private static volatile SecretKeySpec key =
      new SecretKeySpec(Unforeseen.bytes(KEY_BYTES), ALGORITHM);
  private static volatile ThreadLocal<Mac> mac = ThreadLocal.withInitial(Veil::mac);

  private Veil() {}

  private static Mac mac() {
    try {
      Mac made = Mac.getInstance(ALGORITHM);
      made.init(key);
      return made;
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java has " + ALGORITHM, e);
    }
  }

  /**
   * Draws a key for several processes that take rows of one run: digests are the same in all of
   * them that {@linkplain #use use} it.
   */
  public static byte[] draw() {
    return Unforeseen.bytes(KEY_BYTES);
  }

  /**
   * From now on makes digests with a key that another process has drawn. To be called before any is
   * made.
   *
   * @param drawn the key
   */
  public static void use(byte[] drawn) {
    key = new SecretKeySpec(drawn, ALGORITHM);
    mac = ThreadLocal.withInitial(Veil::mac);
  }

  /**
   * Returns what is shown of a value.
   *
   * @param hidden whether the value is not to be shown
   * @param value the value; null for null
   * @return the value itself unless it is hidden; null, and text of nothing but spaces, stay what
   *     they are, since there is nothing to hide
   */
  public static @Nullable String over(boolean hidden, @Nullable String value) {
    return hidden && value != null && !value.isBlank() ? digest(value) : value;
  }

  /**
   * Returns a digest in place of a value.
   *
   * @param value the value
   */
  public static String digest(String value) {
    byte[] digest = mac.get().doFinal(value.getBytes(StandardCharsets.UTF_8));
    StringBuilder text = new StringBuilder(START);
    for (int i = 0; i < BYTES; i++) {
      text.append(Character.forDigit(digest[i] >> 4 & 15, 16));
      text.append(Character.forDigit(digest[i] & 15, 16));
    }
    return text.toString();
  }
}
