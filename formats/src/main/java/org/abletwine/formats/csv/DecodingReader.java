package org.abletwine.formats.csv;

import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.util.Locale;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;

/**
 * Decodes strictly: bytes that are not valid stop the run, their offset named. Text is decoded
 * straight into the batch being filled and copied from there to the parser, so that cells need no
 * copying one by one afterwards.
 */
final class DecodingReader extends Reader {
  private static final int STEP = 256;

  private final ByteSource source;
  private final BatchFiller filler;
  private final InputStream in;
  private final CharsetDecoder decoder;
  private final ByteBuffer bytes = ByteBuffer.allocate(1 << 16);
  private long offset;
  private volatile long read;
  private boolean atEnd;

  DecodingReader(ByteSource source, Encodings encoding, BatchFiller filler) {
    this.source = source;
    this.filler = filler;
    this.in = source.open();
    this.decoder =
        encoding
            .charset()
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
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

  @Override
  public int read(char[] target, int from, int length) {
    Batch batch = filler.batch();
    char[] text = batch.room(length);
    int at = batch.used();
    int count = decode(CharBuffer.wrap(text, at, length));
    if (count > 0) {
      System.arraycopy(text, at, target, from, count);
      filler.textIsAt(at - from);
      batch.advance(count);
    }
    return count;
  }

  /**
   * Decodes in short steps: the decoder copies plain ASCII in bulk, but after the first other
   * character of a call it goes on one by one, which a step ends.
   */
  private int decode(CharBuffer chars) {
    int from = chars.position();
    int limit = chars.limit();
    while (true) {
      chars.limit(Math.min(limit, chars.position() + STEP));
      int before = bytes.position();
      CoderResult result = decoder.decode(bytes, chars, atEnd);
      offset += bytes.position() - before;
      if (result.isError()) {
        throw invalid(result.length());
      }
      if (result.isOverflow() && limit - chars.position() > 1) {
        continue;
      }
      if (chars.position() > from) {
        return chars.position() - from;
      }
      if (atEnd) {
        return -1; // none of the decoders of these encodings holds anything back
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

  @Override
  public void close() throws IOException {
    in.close();
  }
}
