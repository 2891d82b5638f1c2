package org.abletwine.parquet;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.Utf8;
import org.apache.parquet.column.ColumnWriter;
import org.apache.parquet.format.ConvertedType;
import org.apache.parquet.format.DateType;
import org.apache.parquet.format.DecimalType;
import org.apache.parquet.format.FieldRepetitionType;
import org.apache.parquet.format.LogicalType;
import org.apache.parquet.format.MicroSeconds;
import org.apache.parquet.format.NanoSeconds;
import org.apache.parquet.format.SchemaElement;
import org.apache.parquet.format.StringType;
import org.apache.parquet.format.TimeUnit;
import org.apache.parquet.format.TimestampType;
import org.apache.parquet.format.Type;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.PrimitiveType;
import org.apache.parquet.schema.PrimitiveType.PrimitiveTypeName;
import org.apache.parquet.schema.Types;

/** How a column is written. Belongs to one sink. */
final class ColumnShape {
  /** Digits that fit a number of 64 bits. */
  static final int LONG_DIGITS = 18;

  private static final int WIDE_BYTES = 16;
  private static final long MICROS = 1_000_000;
  private static final long NANOS = 1_000_000_000;

  /** What its values are. */
  enum Kind {
    TEXT,
    TRUTH,
    WHOLE,
    /** A number of 64 bits with decimal places. */
    DECIMAL,
    /** A number of 128 bits with decimal places. */
    WIDE,
    DAY,
    /** A day and a time in microseconds. */
    MICROS,
    /** A day and a time in nanoseconds. */
    NANOS
  }

  private final Kind kind;
  private final int digits;
  private final int places;
  private final DatePatterns days;
  private final TimeText times;

  /**
   * @param digits of a number, at most
   * @param places how many of them are decimal places
   * @param patterns how days and times are written
   */
  ColumnShape(Kind kind, int digits, int places, List<String> patterns) {
    this.kind = kind;
    this.digits = digits;
    this.places = places;
    this.days = new DatePatterns(patterns);
    this.times = new TimeText(patterns);
  }

  Kind kind() {
    return kind;
  }

  /** Returns the column as the foot describes it. */
  SchemaElement element(String name) {
    SchemaElement element =
        new SchemaElement(name).setRepetition_type(FieldRepetitionType.OPTIONAL);
    return switch (kind) {
      case TEXT ->
          element
              .setType(Type.BYTE_ARRAY)
              .setConverted_type(ConvertedType.UTF8)
              .setLogicalType(LogicalType.STRING(new StringType()));
      case TRUTH -> element.setType(Type.BOOLEAN);
      case WHOLE -> element.setType(Type.INT64);
      case DECIMAL -> decimal(element.setType(Type.INT64));
      case WIDE -> decimal(element.setType(Type.FIXED_LEN_BYTE_ARRAY).setType_length(WIDE_BYTES));
      case DAY ->
          element
              .setType(Type.INT32)
              .setConverted_type(ConvertedType.DATE)
              .setLogicalType(LogicalType.DATE(new DateType()));
      case MICROS -> time(element, TimeUnit.MICROS(new MicroSeconds()));
      case NANOS -> time(element, TimeUnit.NANOS(new NanoSeconds()));
    };
  }

  private SchemaElement decimal(SchemaElement element) {
    return element
        .setConverted_type(ConvertedType.DECIMAL)
        .setScale(places)
        .setPrecision(digits)
        .setLogicalType(LogicalType.DECIMAL(new DecimalType(places, digits)));
  }

  private static SchemaElement time(SchemaElement element, TimeUnit unit) {
    return element
        .setType(Type.INT64)
        .setLogicalType(LogicalType.TIMESTAMP(new TimestampType(false, unit)));
  }

  /** Returns the column as the encoders know it. */
  PrimitiveType type(String name) {
    return switch (kind) {
      case TEXT ->
          Types.optional(PrimitiveTypeName.BINARY)
              .as(LogicalTypeAnnotation.stringType())
              .named(name);
      case TRUTH -> Types.optional(PrimitiveTypeName.BOOLEAN).named(name);
      case WHOLE, MICROS, NANOS -> Types.optional(PrimitiveTypeName.INT64).named(name);
      case DECIMAL ->
          Types.optional(PrimitiveTypeName.INT64)
              .as(LogicalTypeAnnotation.decimalType(places, digits))
              .named(name);
      case WIDE ->
          Types.optional(PrimitiveTypeName.FIXED_LEN_BYTE_ARRAY)
              .length(WIDE_BYTES)
              .as(LogicalTypeAnnotation.decimalType(places, digits))
              .named(name);
      case DAY ->
          Types.optional(PrimitiveTypeName.INT32).as(LogicalTypeAnnotation.dateType()).named(name);
    };
  }

  /** Writes a cell that is not null. */
  void write(ColumnWriter column, byte[] text, int start, int end) {
    switch (kind) {
      case TEXT -> column.write(Binary.fromReusedByteArray(text, start, end - start), 0, 1);
      case TRUTH -> column.write(text[start] == 't', 0, 1);
      case WHOLE, DECIMAL -> column.write(unscaled(text, start, end), 0, 1);
      case WIDE -> column.write(wide(text, start, end), 0, 1);
      case DAY -> column.write((int) days.day(text, start, end), 0, 1);
      case MICROS, NANOS -> {
        if (!times.read(text, start, end)) {
          throw new IllegalStateException("a time that was one before is none now");
        }
        long value =
            kind == Kind.MICROS
                ? times.seconds() * MICROS + times.nanos() / (NANOS / MICROS)
                : times.seconds() * NANOS + times.nanos();
        column.write(value, 0, 1);
      }
    }
  }

  /** The digits of a plain number, with as many decimal places as the column has. */
  private long unscaled(byte[] text, int start, int end) {
    boolean negative = text[start] == '-';
    long value = 0;
    int after = -1;
    for (int i = negative ? start + 1 : start; i < end; i++) {
      if (text[i] == '.') {
        after = 0;
      } else {
        value = value * 10 + (text[i] - '0');
        after += after < 0 ? 0 : 1;
      }
    }
    for (int i = Math.max(after, 0); i < places; i++) {
      value *= 10;
    }
    return negative ? -value : value;
  }

  private Binary wide(byte[] text, int start, int end) {
    byte[] digitsOnly =
        new BigDecimal(Utf8.text(text, start, end)).setScale(places).unscaledValue().toByteArray();
    byte[] bytes = new byte[WIDE_BYTES];
    Arrays.fill(bytes, (byte) (digitsOnly[0] < 0 ? -1 : 0));
    System.arraycopy(digitsOnly, 0, bytes, WIDE_BYTES - digitsOnly.length, digitsOnly.length);
    return Binary.fromConstantByteArray(bytes);
  }
}
