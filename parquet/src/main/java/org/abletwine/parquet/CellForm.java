package org.abletwine.parquet;

import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.Utf8;
import org.apache.parquet.column.ColumnReader;
import org.apache.parquet.io.api.Binary;

/** Makes text of the values of a column. Belongs to one reader. */
abstract class CellForm {
  /** Room for a number or a time. */
  final byte[] room = new byte[64];

  /**
   * Adds the value that a column stands at to a row.
   *
   * @throws IllegalArgumentException when it cannot be told as text; the message says why
   */
  abstract void add(ColumnReader column, Batch into);

  final void ascii(String text, Batch into) {
    into.addCell(text);
  }

  /** Texts. Bytes that are not UTF-8 are none. */
  static final class TextCells extends CellForm {
    private final CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
    private final Taken taken = new Taken();

    /** Takes the bytes of a value where they stand. */
    private static final class Taken extends OutputStream {
      private byte[] bytes = {};
      private int start;
      private int end;

      @Override
      public void write(int b) {
        throw new UnsupportedOperationException();
      }

      @Override
      public void write(byte[] from, int at, int length) {
        bytes = from;
        start = at;
        end = at + length;
      }
    }

    @Override
    void add(ColumnReader column, Batch into) {
      Binary value = column.getBinary();
      if (value.length() == 0) {
        into.addCell(taken.bytes, 0, 0);
        return;
      }
      try {
        value.writeTo(taken);
      } catch (java.io.IOException e) {
        throw new IllegalStateException(e); // bytes in memory
      }
      if (!Utf8.ascii(taken.bytes, taken.start, taken.end)) {
        try {
          decoder.decode(ByteBuffer.wrap(taken.bytes, taken.start, taken.end - taken.start));
        } catch (CharacterCodingException e) {
          throw new IllegalArgumentException("it holds bytes that are no UTF-8 text", e);
        }
      }
      into.addCell(taken.bytes, taken.start, taken.end);
    }
  }

  /** True and false. */
  static final class TruthCells extends CellForm {
    @Override
    void add(ColumnReader column, Batch into) {
      ascii(column.getBoolean() ? "true" : "false", into);
    }
  }

  /** Identifiers of 16 bytes. */
  static final class UuidCells extends CellForm {
    @Override
    void add(ColumnReader column, Batch into) {
      ByteBuffer bytes = column.getBinary().toByteBuffer();
      ascii(new UUID(bytes.getLong(), bytes.getLong()).toString(), into);
    }
  }
}
