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
import org.abletwine.table.Utf8;

/**
 * Takes text into the batch being filled, where its cells stay, as UTF-8: copied where it is that
 * already, else decoded and encoded anew. Strict: bytes that are not valid stop the run, their
 * offset named.
 */
final class Decoding {
  /** Bytes asked for at a time: what is left over after a batch's last row is copied. */
  private static final int PIECE = 1 << 13;

  private static final int BUFFER = 1 << 16;

  private final ByteSource source;
  private final InputStream in;
  private final CharsetDecoder decoder;

  /** Whether the bytes stay as they are. */
  private final boolean utf8;

  /** Whether a byte below 128 is always that character, whatever stands before it. */
  private final boolean asciiBytes;

  private final ByteBuffer bytes = ByteBuffer.allocate(BUFFER + Long.BYTES).limit(BUFFER);
  private boolean stopped;
  private final CharBuffer chars = CharBuffer.allocate(PIECE);
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
    utf8 = encoding.charset().equals(StandardCharsets.UTF_8);
    asciiBytes = utf8 || encoding.charset().newEncoder().maxBytesPerChar() == 1;
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
   * Appends some text to a batch.
   *
   * @return whether there was any
   */
  boolean decodeInto(Batch batch) {
    while (true) {
      if ((utf8 ? copy(batch) : convert(batch)) > 0) {
        return true;
      }
      if (atEnd) {
        return false; // none of the decoders of these encodings holds anything back
      }
      refill();
    }
  }

  /** Copies whole characters; returns how many bytes. */
  private int copy(Batch batch) {
    int from = bytes.position();
    int end = Math.min(bytes.limit(), from + PIECE);
    int valid = ValidUtf8.end(bytes.array(), from, end);
    int count = valid - from;
    System.arraycopy(bytes.array(), from, batch.room(count), batch.used(), count);
    batch.took(count);
    bytes.position(valid);
    offset += count;
    if (count == 0 && from < end) {
      decoder.reset();
      CoderResult result = decoder.decode(bytes.duplicate(), chars.clear(), atEnd);
      if (result.isError()) {
        throw invalid(result.length());
      }
    }
    return count;
  }

  /** Decodes characters and encodes them; returns how many. */
  private int convert(Batch batch) {
    int before = bytes.position();
    CoderResult result = decoder.decode(bytes, chars.clear(), atEnd);
    offset += bytes.position() - before;
    chars.flip();
    int from = batch.used();
    int end = Utf8.write(chars, batch.room(Utf8.MOST_BYTES * chars.length()), from);
    batch.took(end - from);
    if (result.isError()) {
      throw invalid(result.length());
    }
    return end - from;
  }

  /**
   * Appends the text up to the next line end, so that what follows can be passed over undecoded.
   *
   * @return whether there was any
   */
  boolean decodeLine(Batch batch) {
    int end = bytes.limit();
    int stop = bytes.position();
    while (stop < end && bytes.get(stop) != '\n') {
      stop++;
    }
    if (!asciiBytes || stop == end) {
      return decodeInto(batch);
    }
    bytes.limit(stop + 1);
    boolean any = decodeInto(batch);
    bytes.limit(end);
    return any;
  }

  /**
   * Passes over rows without decoding them. Stops early before a row that only a closer look can
   * tell the end of: one with a quote or a lone carriage return, an empty line, or one longer than
   * the buffer.
   *
   * @param quote the quote character
   * @param most how many rows at most
   * @return how many rows, each of one line
   */
  int passOver(char quote, int most) {
    if (!asciiBytes || quote >= 0x80) {
      return 0;
    }
    int passed = 0;
    while (passed < most) {
      int found = passOverHeld((byte) quote, most - passed);
      passed += found;
      if (found == 0) {
        if (stopped || bytes.remaining() == BUFFER || atEnd) {
          break;
        }
        refill();
      }
    }
    return passed;
  }

  /** Passes over rows that end within the bytes held. */
  private int passOverHeld(byte quote, int most) {
    byte[] held = bytes.array();
    int limit = bytes.limit();
    int start = bytes.position();
    int rows = 0;
    stopped = false;
    for (int base = start; base < limit && rows < most && !stopped; base += Long.BYTES) {
      long word = ByteSearch.word(held, base);
      long stops = ByteSearch.zeros(word ^ quote * ByteSearch.EACH) | ByteSearch.lineEnds(word);
      for (; stops != 0 && rows < most; stops &= stops - 1) {
        int stop = base + (Long.numberOfTrailingZeros(stops) >>> 3);
        if (stop >= limit) {
          break;
        }
        byte c = held[stop];
        if (c == '\n' && stop > start && (stop > start + 1 || held[start] != '\r')) {
          start = stop + 1;
          rows++;
        } else if (c == quote
            || c == '\n'
            || c == '\r' && stop + 1 < limit && held[stop + 1] != '\n') {
          stopped = true;
          break;
        }
      }
    }
    offset += start - bytes.position();
    bytes.position(start);
    return rows;
  }

  private void refill() {
    bytes.compact();
    try {
      int count = in.read(bytes.array(), bytes.position(), BUFFER - bytes.position());
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
