package org.abletwine.formats.csv;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.function.LongSupplier;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Utf8;

/**
 * The bytes of a source as UTF-8. Text that is UTF-8 is taken as it is, and looked at by whoever
 * parses it ({@link #invalid}); other encodings are decoded here, strictly, and encoded anew. Used
 * by one thread at a time.
 */
final class Decoding {
  private static final int BUFFER = 1 << 16;

  private final ByteSource source;
  private final InputStream in;
  private final LongSupplier taken;
  private final CharsetDecoder decoder;
  private final boolean utf8;
  private final ByteBuffer bytes = ByteBuffer.allocate(BUFFER).flip();
  private final CharBuffer chars = CharBuffer.allocate(1 << 13);

  /** Where in the source the next byte to be decoded is, 0-based. */
  private long offset;

  private boolean atEnd;

  Decoding(ByteSource source, Encodings encoding) {
    this(source, encoding, source.open(), encoding.markLength(), encoding.markLength());
  }

  /**
   * Some bytes of a source.
   *
   * @param from the first of them, 0-based
   * @param to behind the last; negative for the end of the source
   */
  Decoding(ByteSource source, Encodings encoding, long from, long to) {
    this(
        source,
        encoding,
        source.open(from, to),
        from == 0 ? encoding.markLength() : from,
        from == 0 ? encoding.markLength() : 0);
  }

  private Decoding(
      ByteSource source, Encodings encoding, ByteSource.Opened opened, long from, int skipped) {
    this.source = source;
    this.in = opened.in();
    this.taken = opened.taken();
    this.utf8 = encoding.charset().equals(StandardCharsets.UTF_8);
    this.decoder =
        encoding
            .charset()
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    try {
      in.skipNBytes(skipped);
    } catch (IOException e) {
      throw cannotRead(e);
    }
    offset = from;
  }

  /** Bytes taken from the source so far, as it is packed. */
  long bytesRead() {
    return taken.getAsLong();
  }

  /** Whether the text is that of the source, so that places in it are places there. */
  boolean asItIs() {
    return utf8;
  }

  /**
   * Reads some text.
   *
   * @param into where to write
   * @param at from here
   * @param most bytes at most, 8 or more
   * @return how many bytes were written; negative at the end of the source
   */
  int read(byte[] into, int at, int most) {
    return utf8 ? fill(into, at, most) : convert(into, at, most);
  }

  private int fill(byte[] into, int at, int most) {
    try {
      return in.read(into, at, most);
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  private int convert(byte[] into, int at, int most) {
    while (true) {
      chars.clear().limit(Math.min(chars.capacity(), Math.max(2, most / Utf8.MOST_BYTES)));
      int before = bytes.position();
      CoderResult result = decoder.decode(bytes, chars, atEnd);
      offset += bytes.position() - before;
      if (chars.flip().hasRemaining()) {
        return Utf8.write(chars, into, at) - at; // what is wrong behind it is met again
      }
      if (result.isError()) {
        throw invalid(bytes, offset, result.length());
      }
      if (atEnd) {
        return -1; // none of the decoders of these encodings holds anything back
      }
      bytes.compact();
      int count = fill(bytes.array(), bytes.position(), bytes.remaining());
      atEnd = count < 0;
      bytes.position(bytes.position() + Math.max(0, count)).flip();
    }
  }

  /** What to tell about a row that goes on and on. */
  DataException tooLongARow(long line, int most) {
    return new DataException(
        source.name()
            + " line "
            + line
            + ": a row of more than "
            + most
            + " bytes, which is more than any may have; check that the file is delimited text");
  }

  private DataException cannotRead(IOException e) {
    return new DataException("cannot read " + source.name() + ": " + e.getMessage(), e);
  }

  /**
   * What to tell about bytes of a source in UTF-8 that are not valid.
   *
   * @param text the text
   * @param at where the first such byte is
   * @param end end of the text
   * @param from where in the source the text begins, 0-based
   */
  DataException invalid(byte[] text, int at, int end, long from) {
    ByteBuffer wrong = ByteBuffer.wrap(text, at, end - at);
    CoderResult result = decoder.reset().decode(wrong, CharBuffer.allocate(2), true);
    return invalid(wrong, from + at, result.isError() ? result.length() : 1);
  }

  private DataException invalid(ByteBuffer wrong, long place, int length) {
    StringBuilder found = new StringBuilder();
    for (int i = 0; i < length && wrong.hasRemaining(); i++) {
      found.append(String.format(Locale.ROOT, " %02X", wrong.get()));
    }
    long line = source.lineOf(place);
    String encoding = decoder.charset().name();
    return new DataException(
        source.name()
            + (line > 0 ? " line " + line : "")
            + ", byte "
            + (place + 1)
            + ": bytes"
            + found
            + " are not valid "
            + encoding
            + "; state the file's encoding"
            + (encoding.equals("UTF-8") ? ", such as windows-1252" : ""));
  }

  void close() {
    try {
      in.close();
    } catch (IOException e) {
      // reading is over; nothing depends on the close
    }
  }
}
