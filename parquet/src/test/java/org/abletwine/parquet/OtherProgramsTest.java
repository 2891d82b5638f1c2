package org.abletwine.parquet;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.apache.parquet.column.ParquetProperties.WriterVersion;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.MessageTypeParser;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Files that other programs wrote: every type, every encoding, every way of packing. */
class OtherProgramsTest {
  private static final int ROWS = 5_000;

  private static final MessageType EVERY_TYPE =
      MessageTypeParser.parseMessageType(
          """
          message every {
            required binary code (STRING);
            optional binary text (STRING);
            optional binary plain;
            optional boolean truth;
            required int32 whole;
            optional int32 tiny (INTEGER(8,true));
            optional int32 unsigned (INTEGER(32,false));
            optional int64 large;
            optional int64 largest (INTEGER(64,false));
            optional int32 d9 (DECIMAL(9,2));
            optional int64 d18 (DECIMAL(18,4));
            optional binary dbytes (DECIMAL(30,3));
            optional fixed_len_byte_array(16) dfixed (DECIMAL(38,10));
            optional int32 day (DATE);
            optional int32 tmillis (TIME(MILLIS,true));
            optional int64 tmicros (TIME(MICROS,false));
            optional int64 stamp (TIMESTAMP(MILLIS,false));
            optional int64 moment (TIMESTAMP(MICROS,true));
            optional int64 nanos (TIMESTAMP(NANOS,false));
            optional int96 old;
            optional float single;
            optional double number;
            optional fixed_len_byte_array(2) half (FLOAT16);
            optional fixed_len_byte_array(16) id (UUID);
            optional binary kind (ENUM);
            optional binary doc (JSON);
          }
          """);

  @TempDir private Path folder;

  static Stream<OtherLibrary.How> ways() {
    return Stream.of(
        new OtherLibrary.How(WriterVersion.PARQUET_1_0, CompressionCodecName.UNCOMPRESSED, true),
        new OtherLibrary.How(WriterVersion.PARQUET_1_0, CompressionCodecName.UNCOMPRESSED, false),
        new OtherLibrary.How(WriterVersion.PARQUET_2_0, CompressionCodecName.UNCOMPRESSED, true),
        new OtherLibrary.How(WriterVersion.PARQUET_2_0, CompressionCodecName.UNCOMPRESSED, false),
        new OtherLibrary.How(WriterVersion.PARQUET_1_0, CompressionCodecName.SNAPPY, true),
        new OtherLibrary.How(WriterVersion.PARQUET_2_0, CompressionCodecName.SNAPPY, false),
        new OtherLibrary.How(WriterVersion.PARQUET_2_0, CompressionCodecName.ZSTD, false),
        new OtherLibrary.How(WriterVersion.PARQUET_1_0, CompressionCodecName.ZSTD, true),
        new OtherLibrary.How(WriterVersion.PARQUET_2_0, CompressionCodecName.LZ4_RAW, true),
        new OtherLibrary.How(WriterVersion.PARQUET_1_0, CompressionCodecName.GZIP, false));
  }

  private static byte[] bytes(BigDecimal number, int length) {
    byte[] digits = number.unscaledValue().toByteArray();
    byte[] bytes = new byte[length];
    Arrays.fill(bytes, (byte) (digits[0] < 0 ? -1 : 0));
    System.arraycopy(digits, 0, bytes, length - digits.length, digits.length);
    return bytes;
  }

  private static void fill(Group group, int row) {
    group.add("code", "00" + row);
    group.add("whole", row % 2 == 0 ? row : -row);
    if (row % 11 == 0) {
      return; // all others null
    }
    group.add("text", row % 5 == 0 ? "" : "Hof Äcker \uD83C\uDF3E " + row % 50);
    group.add("plain", "words " + row);
    group.add("truth", row % 3 == 0);
    group.add("tiny", -(row % 100));
    group.add("unsigned", -1 - row);
    group.add("large", Long.MIN_VALUE + row);
    group.add("largest", -1L - row);
    group.add("d9", -row);
    group.add("d18", 123_456_789_012_345_678L - row);
    group.add("dbytes", Binary.fromConstantByteArray(decimal(row).unscaledValue().toByteArray()));
    group.add("dfixed", Binary.fromConstantByteArray(bytes(wide(row), 16)));
    group.add("day", row * 13 - 60_000);
    group.add("tmillis", row);
    group.add("tmicros", 86_399_999_999L - row);
    group.add("stamp", -1L - row);
    group.add("moment", 1_785_578_400_000_000L + row);
    group.add("nanos", 1_785_578_400_000_000_000L + row);
    ByteBuffer old = ByteBuffer.allocate(12).order(ByteOrder.LITTLE_ENDIAN);
    old.putLong(1_000_000_000L * row).putInt(2_440_588 + row).flip();
    group.add("old", Binary.fromConstantByteArray(old.array()));
    group.add("single", row / 10f);
    group.add("number", row / 10d);
    group.add(
        "half", Binary.fromConstantByteArray(new byte[] {0, (byte) (row % 2 == 0 ? 0x3E : 0xC0)}));
    ByteBuffer id = ByteBuffer.allocate(16).putLong(7).putLong(row);
    group.add("id", Binary.fromConstantByteArray(id.array()));
    group.add("kind", row % 2 == 0 ? "WHEAT" : "BARLEY");
    group.add("doc", "{\"row\": " + row + "}");
  }

  private static BigDecimal decimal(int row) {
    return new BigDecimal("-9876543210987654321.123").add(BigDecimal.valueOf(row));
  }

  private static BigDecimal wide(int row) {
    return new BigDecimal("1234567890123456789012345678.0123456789").subtract(new BigDecimal(row));
  }

  /** What each cell must be, put together from the values themselves. */
  private static List<@Nullable String> expected(int row) {
    List<@Nullable String> cells = new ArrayList<>();
    cells.add("00" + row);
    boolean nothing = row % 11 == 0;
    for (String one : List.of("text", "plain", "truth")) {
      cells.add(
          nothing
              ? null
              : switch (one) {
                case "text" -> row % 5 == 0 ? "" : "Hof Äcker \uD83C\uDF3E " + row % 50;
                case "plain" -> "words " + row;
                default -> row % 3 == 0 ? "true" : "false";
              });
    }
    cells.add(String.valueOf(row % 2 == 0 ? row : -row));
    if (nothing) {
      while (cells.size() < EVERY_TYPE.getFieldCount()) {
        cells.add(null);
      }
      return cells;
    }
    cells.add(String.valueOf(-(row % 100)));
    cells.add(String.valueOf(4_294_967_295L - row));
    cells.add(String.valueOf(Long.MIN_VALUE + row));
    cells.add(Long.toUnsignedString(-1L - row));
    cells.add(BigDecimal.valueOf(-row, 2).toPlainString());
    cells.add(BigDecimal.valueOf(123_456_789_012_345_678L - row, 4).toPlainString());
    cells.add(decimal(row).toPlainString());
    cells.add(wide(row).toPlainString());
    cells.add(LocalDate.ofEpochDay(row * 13L - 60_000).toString());
    cells.add(parts(String.format("00:00:%02d.%03d", row / 1000, row % 1000)));
    cells.add(parts(String.format("23:59:59.%06d", 999_999 - row)));
    cells.add(
        parts(String.format("1969-12-31T23:59:%02d.%03d", 59 - row / 1000, 999 - row % 1000)));
    cells.add(parts(String.format("2026-08-01T10:00:00.%06d", row)) + "Z");
    cells.add(parts(String.format("2026-08-01T10:00:00.%09d", row)));
    cells.add(
        LocalDate.ofEpochDay(row)
            + String.format("T%02d:%02d:%02d", row / 3600, row / 60 % 60, row % 60));
    cells.add(tenth(row));
    cells.add(tenth(row));
    cells.add(row % 2 == 0 ? "1.5" : "-2");
    cells.add(new UUID(7, row).toString());
    cells.add(row % 2 == 0 ? "WHEAT" : "BARLEY");
    cells.add("{\"row\": " + row + "}");
    return cells;
  }

  private static String tenth(int row) {
    return row % 10 == 0 ? String.valueOf(row / 10) : row / 10 + "." + row % 10;
  }

  /** Without zeros at the end of parts of a second. */
  private static String parts(String time) {
    return time.replaceFirst("0+$", "").replaceFirst("\\.$", "");
  }

  @ParameterizedTest
  @MethodSource("ways")
  void everyTypeIsRead(OtherLibrary.How how) {
    Path file = folder.resolve("every.parquet");
    OtherLibrary.write(file, EVERY_TYPE, how, ROWS, OtherProgramsTest::fill);
    List<List<@Nullable String>> rows = OwnRows.of(Tables.file(file));
    assertThat(rows).hasSize(ROWS);
    for (int row = 0; row < ROWS; row++) {
      assertThat(rows.get(row)).as("row " + row).isEqualTo(expected(row));
    }
  }

  @Test
  void typesComeWithTheColumns() {
    Path file = folder.resolve("every.parquet");
    OtherLibrary.write(
        file, EVERY_TYPE, ways().findFirst().orElseThrow(), 1, OtherProgramsTest::fill);
    Table table = Tables.file(file);
    assertThat(table.type("code")).isNull();
    assertThat(table.type("truth")).isEqualTo(ColumnType.of(ColumnType.Kind.BOOLEAN));
    assertThat(table.type("whole")).isEqualTo(ColumnType.of(ColumnType.Kind.INTEGER));
    assertThat(table.type("dfixed")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(table.type("day")).isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    assertThat(table.type("stamp")).isEqualTo(ColumnType.of(ColumnType.Kind.DATE_TIME));
    assertThat(table.type("moment")).isNull();
  }

  private Path written(String columns, OtherLibrary.Row row) {
    Path file = folder.resolve("one.parquet");
    OtherLibrary.write(
        file,
        MessageTypeParser.parseMessageType("message m { " + columns + " }"),
        ways().findFirst().orElseThrow(),
        3,
        row);
    return file;
  }

  @Test
  void whatNoCellHoldsIsRefusedByName() {
    ParquetTest.assertTold(
        written(
            "required group address { required binary city (STRING); } repeated int32 marks;",
            (group, row) -> group.addGroup("address").add("city", "x")),
        "columns address, marks hold lists or columns of their own");
    ParquetTest.assertTold(
        written(
            "required fixed_len_byte_array(3) raw;",
            (group, row) -> group.add("raw", Binary.fromConstantByteArray(new byte[3]))),
        "column raw holds bytes, which are no text");
    ParquetTest.assertTold(
        written(
            "required binary raw (BSON);",
            (group, row) -> group.add("raw", Binary.fromConstantByteArray(new byte[3]))),
        "column raw holds bytes, which are no text");
    ParquetTest.assertTold(
        written(
            "required fixed_len_byte_array(12) span (INTERVAL);",
            (group, row) -> group.add("span", Binary.fromConstantByteArray(new byte[12]))),
        "column span holds spans of time");
  }

  @Test
  void bytesThatAreNoTextAreToldWithTheirRow() {
    Path file =
        written(
            "required binary name;",
            (group, row) ->
                group.add(
                    "name",
                    Binary.fromConstantByteArray(
                        row < 2 ? new byte[] {'o', 'k'} : new byte[] {(byte) 0xFF})));
    ParquetTest.assertTold(file, "column name, row 3: it holds bytes that are no UTF-8 text");
  }
}
