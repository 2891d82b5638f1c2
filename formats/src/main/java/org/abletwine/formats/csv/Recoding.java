package org.abletwine.formats.csv;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/**
 * Turns rows of UTF-8 into another encoding. A character that it has not is an error that names row
 * and column, or is replaced and counted where that is stated. Used by one thread at a time.
 */
final class Recoding {
  private final Path target;
  private final CharsetEncoder encoder;
  private final @Nullable String unknown;
  private final char delimiter;
  private final char quote;
  private final Schema columns;

  /** Rows before the block that is being turned, the names among them. */
  private long rows;

  private long replaced;

  Recoding(
      Path target,
      Charset charset,
      @Nullable String unknown,
      char delimiter,
      char quote,
      Schema columns) {
    this.target = target;
    Charset plain = charset.equals(StandardCharsets.UTF_16) ? StandardCharsets.UTF_16BE : charset;
    this.encoder =
        plain
            .newEncoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    this.unknown = unknown;
    this.delimiter = delimiter;
    this.quote = quote;
    this.columns = columns;
    if (unknown != null && !encoder.canEncode(unknown)) {
      throw new SettingException(
          "unknown: " + charset + " has no \"" + unknown + "\" either; give another, such as ?");
    }
  }

  /**
   * Turns a block of whole rows.
   *
   * @param utf8 the rows
   * @param length how many bytes
   * @return the same rows in the other encoding
   */
  byte[] of(byte[] utf8, int length) {
    String text = new String(utf8, 0, length, StandardCharsets.UTF_8);
    CharBuffer in = CharBuffer.wrap(text);
    ByteBuffer out =
        ByteBuffer.allocate((int) (text.length() * encoder.averageBytesPerChar()) + 16);
    encoder.reset();
    while (true) {
      CoderResult result = encoder.encode(in, out, true);
      if (result.isUnderflow()) {
        break;
      }
      if (result.isOverflow()) {
        out = more(out);
      } else if (unknown == null) {
        throw unknown(text, in.position());
      } else {
        in.position(in.position() + result.length());
        replaced++;
        byte[] instead = unknown.getBytes(encoder.charset());
        while (out.remaining() < instead.length) {
          out = more(out);
        }
        out.put(instead);
      }
    }
    place(text, text.length());
    return Arrays.copyOf(out.array(), out.position());
  }

  private static ByteBuffer more(ByteBuffer full) {
    ByteBuffer larger = ByteBuffer.allocate(2 * full.capacity() + 16);
    full.flip();
    return larger.put(full);
  }

  private DataException unknown(String text, int at) {
    int point = text.codePointAt(at);
    int column = place(text, at);
    return new DataException(
        String.format(
            "%s %s, column %s: %s has no character %s (U+%04X); write utf-8, or state what stands"
                + " for it with unknown: \"?\"",
            target,
            rows == 0 ? "in the names" : "row " + rows,
            columns.names().get(Math.min(column, columns.size() - 1)),
            encoder.charset(),
            Character.toString(point),
            point));
  }

  /** Counts the rows up to a character; returns which cell of its row it is in, 0-based. */
  private int place(String text, int end) {
    boolean quoted = false;
    int column = 0;
    for (int i = 0; i < end; i++) {
      char c = text.charAt(i);
      if (c == quote) {
        quoted = !quoted;
      } else if (c == delimiter && !quoted) {
        column++;
      } else if (c == '\n' && !quoted) {
        column = 0;
        rows++;
      }
    }
    return column;
  }

  @Override
  public String toString() {
    return encoder.charset()
        + (replaced == 0
            ? ""
            : ", " + replaced + (replaced == 1 ? " character" : " characters") + " replaced");
  }
}
