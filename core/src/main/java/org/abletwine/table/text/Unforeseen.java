package org.abletwine.table.text;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;

/** Bytes that nobody can foresee, for names and keys. Safe for use by several threads. */
public final class Unforeseen {
  /** Where Unix systems give them out. */
  private static final Path SYSTEM = Path.of("/dev/urandom");

  private Unforeseen() {}

  /**
   * Draws some.
   *
   * @param count how many
   * @return new ones, each time others
   */
  public static byte[] bytes(int count) {
    return bytes(count, SYSTEM);
  }

  /**
   * Asks the system first: the runtime's generator does so too, but takes 10 to 30 ms to be ready.
   *
   * @param source where the system gives them out, if it does
   */
  static byte[] bytes(int count, Path source) {
    try (InputStream given = Files.newInputStream(source)) {
      byte[] drawn = given.readNBytes(count);
      if (drawn.length == count) {
        return drawn;
      }
    } catch (IOException e) {
      // a system that has none there
    }
    byte[] drawn = new byte[count];
    new SecureRandom().nextBytes(drawn);
    return drawn;
  }
}
