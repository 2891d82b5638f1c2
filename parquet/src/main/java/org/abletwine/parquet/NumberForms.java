package org.abletwine.parquet;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.DecimalText;
import org.apache.parquet.column.ColumnReader;
import org.apache.parquet.format.Type;

/** How numbers become text. */
final class NumberForms {
  private NumberForms() {}

  /** Whole numbers. */
  static final class WholeCells extends CellForm {
    private final boolean wide;
    private final boolean signed;

    WholeCells(boolean wide, boolean signed) {
      this.wide = wide;
      this.signed = signed;
    }

    @Override
    void add(ColumnReader column, Batch into) {
      long value =
          wide
              ? column.getLong()
              : signed ? column.getInteger() : Integer.toUnsignedLong(column.getInteger());
      if (value < 0 && !signed) {
        ascii(Long.toUnsignedString(value), into);
      } else {
        into.addCell(room, 0, DecimalText.write(value, 0, room, 0));
      }
    }
  }

  /** Exact numbers with decimal places. */
  static final class DecimalCells extends CellForm {
    private final Type type;
    private final int places;

    DecimalCells(Type type, int places) {
      this.type = type;
      this.places = places;
    }

    @Override
    void add(ColumnReader column, Batch into) {
      long value;
      switch (type) {
        case INT32 -> value = column.getInteger();
        case INT64 -> value = column.getLong();
        case BYTE_ARRAY, FIXED_LEN_BYTE_ARRAY -> {
          ByteBuffer bytes = column.getBinary().toByteBuffer();
          value = 0;
          int from = bytes.position();
          int length = bytes.remaining();
          if (length == 0) {
            throw new IllegalArgumentException("a number has no digits");
          }
          boolean fits = length <= Long.BYTES || extended(bytes, from, length);
          if (!fits) {
            byte[] all = new byte[length];
            bytes.get(all);
            ascii(new BigDecimal(new BigInteger(all), places).toPlainString(), into);
            return;
          }
          for (int i = Math.max(0, length - Long.BYTES); i < length; i++) {
            value =
                i == Math.max(0, length - Long.BYTES)
                    ? bytes.get(from + i)
                    : value << 8 | bytes.get(from + i) & 0xFF;
          }
        }
        default -> throw new IllegalArgumentException("numbers cannot be kept as " + type);
      }
      if (places > DecimalText.MOST_PLACES) {
        ascii(BigDecimal.valueOf(value, places).toPlainString(), into);
      } else {
        into.addCell(room, 0, DecimalText.write(value, places, room, 0));
      }
    }

    /** Whether all but the last eight bytes only repeat the sign. */
    private static boolean extended(ByteBuffer bytes, int from, int length) {
      int first = from + length - Long.BYTES;
      byte sign = (byte) (bytes.get(first) < 0 ? -1 : 0);
      for (int i = from; i < first; i++) {
        if (bytes.get(i) != sign) {
          return false;
        }
      }
      return true;
    }
  }

  /** Binary numbers: the shortest decimal that reads back the same. */
  static final class BinaryNumberCells extends CellForm {
    private final int bytes;

    BinaryNumberCells(int bytes) {
      this.bytes = bytes;
    }

    @Override
    void add(ColumnReader column, Batch into) {
      String text =
          switch (bytes) {
            case 8 -> Double.toString(column.getDouble());
            case 4 -> Float.toString(column.getFloat());
            default -> half(column.getBinary().toByteBuffer());
          };
      ascii(Character.isLetter(text.charAt(text.length() - 1)) ? text : plain(text), into);
    }

    private static String plain(String text) {
      BigDecimal exact = new BigDecimal(text);
      return exact.signum() == 0 ? "0" : exact.stripTrailingZeros().toPlainString();
    }

    /** A number of 16 bits (IEEE 754 binary16), of which every one is exact as one of 32. */
    private static String half(ByteBuffer value) {
      int bits = value.order(ByteOrder.LITTLE_ENDIAN).getShort(value.position()) & 0xFFFF;
      int exponent = bits >> 10 & 0x1F;
      int fraction = bits & 0x3FF;
      double size =
          exponent == 0x1F
              ? fraction == 0 ? Double.POSITIVE_INFINITY : Double.NaN
              : exponent == 0
                  ? Math.scalb((double) fraction, -24)
                  : Math.scalb(1024.0 + fraction, exponent - 25);
      return Double.toString((bits & 0x8000) == 0 ? size : -size);
    }
  }
}
