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
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;

/**
 * Decodes strictly: bytes that are not valid stop the run, their offset named. Text is decoded
 * straight into the batch being filled, where its cells stay.
 */
final class Decoding {
  /** Characters asked for at a time: what is left over after a batch's last row is copied. */
  private static final int PIECE = 1 << 13;

  private static final int STEP = 256;

  private final ByteSource source;
  private final InputStream in;
  private final CharsetDecoder decoder;

  /** Whether as many characters as bytes means that all of them are ASCII. */
  private final boolean ascii;

  private final ByteBuffer bytes = ByteBuffer.allocate(1 << 16);
  private char[] wrapped = new char[0];
  private CharBuffer chars = CharBuffer.wrap(wrapped);
  private long offset;
  private volatile long read;
  private boolean atEnd;

  Decoding(ByteSource source, Encodings encoding) {
    this.source = source;
    this.in = source.open();
    this.decoder =
        encoding
            .charset()
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    ascii = encoding.charset().equals(StandardCharsets.UTF_8);
    bytes.flip();
    try {
      in.skipNBytes(encoding.markLength());
    } catch (IOException e) {
      throw cannotRead(e);
    }
    offset = encoding.markLength();
  }

  /** Bytes taken from the source so far. */
  long bytesRead() {
    return read;
  }

  /**
   * Appends some text to a batch, in short steps: the decoder copies plain ASCII in bulk, but after
   * the first other character of a call it goes on one by one, which a step ends.
   *
   * @return whether there was any
   */
  boolean decodeInto(Batch batch) {
    char[] text = batch.room(PIECE);
    if (text != wrapped) {
      wrapped = text;
      chars = CharBuffer.wrap(text);
    }
    int from = batch.used();
    int limit = from + PIECE;
    chars.clear().position(from);
    while (true) {
      chars.limit(Math.min(limit, chars.position() + STEP));
      int before = bytes.position();
      int start = chars.position();
      CoderResult result = decoder.decode(bytes, chars, atEnd);
      int taken = bytes.position() - before;
      int count = chars.position() - start;
      offset += taken;
      if (ascii && count == taken) {
        batch.tookAscii(bytes.array(), before, count);
      } else {
        batch.took(count);
      }
      if (result.isError()) {
        throw invalid(result.length());
      }
      if (result.isOverflow() && limit - chars.position() > 1) {
        continue;
      }
      if (chars.position() > from) {
        return true;
      }
      if (atEnd) {
        return false; // none of the decoders of these encodings holds anything back
      }
      refill();
    }
  }

  private void refill() {
    bytes.compact();
    try {
      int count = in.read(bytes.array(), bytes.position(), bytes.remaining());
      if (count < 0) {
        atEnd = true;
      } else {
        bytes.position(bytes.position() + count);
        read += count;
      }
    } catch (IOException e) {
      throw cannotRead(e);
    }
    bytes.flip();
  }

  private DataException cannotRead(IOException e) {
    return new DataException("cannot read " + source.name() + ": " + e.getMessage(), e);
  }

  private DataException invalid(int length) {
    StringBuilder found = new StringBuilder();
    for (int i = 0; i < length && bytes.hasRemaining(); i++) {
      found.append(String.format(Locale.ROOT, " %02X", bytes.get()));
    }
    long line = source.lineOf(offset);
    String encoding = decoder.charset().name();
    return new DataException(
        source.name()
            + (line > 0 ? " line " + line : "")
            + ", byte "
            + (offset + 1)
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
