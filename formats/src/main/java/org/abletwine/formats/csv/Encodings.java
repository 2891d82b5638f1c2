package org.abletwine.formats.csv;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.List;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * The character encoding of a file: what its byte-order mark says, else what is stated, else UTF-8.
 *
 * @param charset the encoding
 * @param markLength bytes of the byte-order mark to pass over
 */
record Encodings(Charset charset, int markLength) {
  private static final List<String> USUAL =
      List.of("utf-8", "utf-16", "utf-16le", "utf-16be", "windows-1252", "iso-8859-1", "us-ascii");

  static Encodings find(byte[] head, @Nullable String stated) {
    if (startsWith(head, 0xEF, 0xBB, 0xBF)) {
      return new Encodings(StandardCharsets.UTF_8, 3);
    }
    if (startsWith(head, 0xFF, 0xFE)) {
      return new Encodings(StandardCharsets.UTF_16LE, 2);
    }
    if (startsWith(head, 0xFE, 0xFF)) {
      return new Encodings(StandardCharsets.UTF_16BE, 2);
    }
    if (stated == null) {
      return new Encodings(StandardCharsets.UTF_8, 0);
    }
    Charset charset = named(stated);
    return new Encodings(
        charset.equals(StandardCharsets.UTF_16) ? StandardCharsets.UTF_16BE : charset, 0);
  }

  static Charset named(String name) {
    try {
      return Charset.forName(name);
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw new SettingException(
          "encoding: no encoding is called \"" + name + "\"; " + NearestName.hint(name, USUAL));
    }
  }

  /**
   * The byte-order mark of an encoding.
   *
   * @throws SettingException when it has none
   */
  static byte[] mark(Charset charset) {
    if (!charset.name().startsWith("UTF-")) {
      throw new SettingException(
          "mark: " + charset + " has no byte-order mark; leave it out, or write utf-8");
    }
    return "\uFEFF"
        .getBytes(charset.equals(StandardCharsets.UTF_16) ? StandardCharsets.UTF_16BE : charset);
  }

  private static boolean startsWith(byte[] head, int... mark) {
    if (head.length < mark.length) {
      return false;
    }
    for (int i = 0; i < mark.length; i++) {
      if ((head[i] & 0xFF) != mark[i]) {
        return false;
      }
    }
    return true;
  }
}
