package org.abletwine.formats.packed;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/** Files that are no text, known by their first bytes: they are never read as if they were. */
final class BinaryKind {
  private BinaryKind() {}

  /**
   * What bytes are that are no delimited text.
   *
   * @param head the first of them
   * @return what they are and how to go on, in words; null when they may be text
   */
  static @Nullable String of(byte[] head) {
    String text = new String(head, StandardCharsets.ISO_8859_1);
    if (text.startsWith("SQLite format 3\0")) {
      return "a SQLite database; read a table of it with database:";
    }
    if (text.startsWith("BZh") && text.startsWith("1AY&SY", 4)) {
      return "compressed with bzip2; unpack it, or pack it as .gz, .zst or .zip";
    }
    if (Packing.begins(head, 0xFD, '7', 'z', 'X', 'Z', 0)) {
      return "compressed with xz; unpack it, or pack it as .gz, .zst or .zip";
    }
    if (Packing.begins(head, '7', 'z', 0xBC, 0xAF, 0x27, 0x1C)) {
      return "a 7z archive; unpack it, or pack it as .gz, .zst or .zip";
    }
    if (Packing.begins(head, 0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1)) {
      return "a workbook of the old binary kind (.xls), or one with a password; save it as .xlsx"
          + " without one";
    }
    if (text.startsWith("PAR1") && hasControls(head)) { // and not a column of that name
      return "a Parquet file; give it the ending .parquet";
    }
    if (text.startsWith("%PDF")) {
      return "a PDF document, which holds no table; ask for the data it was made from";
    }
    return null;
  }

  /** Whether there are bytes that text does not hold. */
  private static boolean hasControls(byte[] head) {
    for (byte b : head) {
      if (b >= 0 && b < '\t' || b > '\r' && b < ' ') {
        return true;
      }
    }
    return false;
  }
}
