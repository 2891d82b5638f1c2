package org.abletwine.formats.packed;

import java.nio.file.Path;
import java.util.Locale;

/** How bytes are compressed. */
public enum Packing {
  /** Not at all. */
  NONE(""),
  /** One or several gzip members (RFC 1952). */
  GZIP(".gz"),
  /** Zstandard frames (RFC 8878). */
  ZSTD(".zst"),
  /** A zip archive of one member. */
  ZIP(".zip");

  private final String ending;

  Packing(String ending) {
    this.ending = ending;
  }

  /** What a file is by the ending of its name. */
  public static Packing of(Path file) {
    String name = file.toString().toLowerCase(Locale.ROOT);
    for (Packing packing : values()) {
      if (packing != NONE && name.endsWith(packing.ending)) {
        return packing;
      }
    }
    return NONE;
  }

  /** Returns the ending of such files; empty when they are not packed. */
  String ending() {
    return ending;
  }

  /** What bytes are by the first of them. */
  static Packing of(byte[] head) {
    if (begins(head, 0x1F, 0x8B)) {
      return GZIP;
    }
    if (begins(head, 0x28, 0xB5, 0x2F, 0xFD)) {
      return ZSTD;
    }
    return begins(head, 'P', 'K', 3, 4) || begins(head, 'P', 'K', 5, 6) ? ZIP : NONE;
  }

  static boolean begins(byte[] head, int... bytes) {
    if (head.length < bytes.length) {
      return false;
    }
    for (int i = 0; i < bytes.length; i++) {
      if ((head[i] & 0xFF) != bytes[i]) {
        return false;
      }
    }
    return true;
  }

  /**
   * The name of a file without the ending that says how it is compressed.
   *
   * @param file such as {@code tickets.csv.gz}
   * @return such as {@code tickets.csv}, without folders
   */
  public static String inner(Path file) {
    Path last = file.getFileName();
    String name = last == null ? "" : last.toString();
    return name.substring(0, name.length() - of(file).ending.length());
  }
}
