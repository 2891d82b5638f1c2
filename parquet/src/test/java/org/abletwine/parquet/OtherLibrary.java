package org.abletwine.parquet;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.hadoop.conf.Configuration;
import org.apache.parquet.ParquetReadOptions;
import org.apache.parquet.column.ParquetProperties;
import org.apache.parquet.column.page.PageReadStore;
import org.apache.parquet.conf.ParquetConfiguration;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.example.data.GroupWriter;
import org.apache.parquet.example.data.simple.SimpleGroup;
import org.apache.parquet.example.data.simple.convert.GroupRecordConverter;
import org.apache.parquet.hadoop.ParquetFileReader;
import org.apache.parquet.hadoop.ParquetWriter;
import org.apache.parquet.hadoop.api.WriteSupport;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.apache.parquet.io.ColumnIOFactory;
import org.apache.parquet.io.LocalInputFile;
import org.apache.parquet.io.LocalOutputFile;
import org.apache.parquet.io.OutputFile;
import org.apache.parquet.io.RecordReader;
import org.apache.parquet.io.api.RecordConsumer;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.PrimitiveType;
import org.jspecify.annotations.Nullable;

/** Files as the library that most programs use reads and writes them: the oracle. */
final class OtherLibrary {
  private OtherLibrary() {}

  private static ParquetFileReader open(Path file) throws IOException {
    return new ParquetFileReader(
        new LocalInputFile(file),
        ParquetReadOptions.builder(new PlainParquetConfiguration())
            .usePageChecksumVerification(true)
            .withCodecFactory(new OtherCodecs())
            .build());
  }

  static String schema(Path file) {
    try (ParquetFileReader reader = open(file)) {
      return reader.getFileMetaData().getSchema().toString();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** All rows, each value as the text it would be. */
  static List<List<@Nullable String>> rows(Path file) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    try (ParquetFileReader reader = open(file)) {
      MessageType schema = reader.getFileMetaData().getSchema();
      for (PageReadStore pages = reader.readNextRowGroup();
          pages != null;
          pages = reader.readNextRowGroup()) {
        RecordReader<Group> records =
            new ColumnIOFactory()
                .getColumnIO(schema)
                .getRecordReader(pages, new GroupRecordConverter(schema));
        for (long i = 0; i < pages.getRowCount(); i++) {
          rows.add(cells(records.read(), schema));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return rows;
  }

  private static List<@Nullable String> cells(Group group, MessageType schema) {
    List<@Nullable String> cells = new ArrayList<>();
    for (int i = 0; i < schema.getFieldCount(); i++) {
      cells.add(
          group.getFieldRepetitionCount(i) == 0
              ? null
              : cell(group, i, schema.getType(i).asPrimitiveType()));
    }
    return cells;
  }

  private static String cell(Group group, int i, PrimitiveType type) {
    LogicalTypeAnnotation logical = type.getLogicalTypeAnnotation();
    if (logical instanceof LogicalTypeAnnotation.DecimalLogicalTypeAnnotation decimal) {
      BigInteger unscaled =
          switch (type.getPrimitiveTypeName()) {
            case INT32 -> BigInteger.valueOf(group.getInteger(i, 0));
            case INT64 -> BigInteger.valueOf(group.getLong(i, 0));
            default -> new BigInteger(group.getBinary(i, 0).getBytes());
          };
      return new BigDecimal(unscaled, decimal.getScale()).toPlainString();
    }
    if (logical instanceof LogicalTypeAnnotation.DateLogicalTypeAnnotation) {
      return LocalDate.ofEpochDay(group.getInteger(i, 0)).toString();
    }
    return switch (type.getPrimitiveTypeName()) {
      case BINARY -> group.getBinary(i, 0).toStringUsingUTF8();
      default -> group.getValueToString(i, 0);
    };
  }

  /** Writes rows of a schema. */
  private static final class Support extends WriteSupport<Group> {
    private final MessageType schema;
    private @Nullable GroupWriter writer;

    Support(MessageType schema) {
      this.schema = schema;
    }

    @Override
    @Deprecated // of the library, which asks for both
    public WriteContext init(Configuration configuration) {
      return new WriteContext(schema, Map.of());
    }

    @Override
    public WriteContext init(ParquetConfiguration configuration) {
      return new WriteContext(schema, Map.of());
    }

    @Override
    public void prepareForWrite(RecordConsumer consumer) {
      writer = new GroupWriter(consumer, schema);
    }

    @Override
    public void write(Group record) {
      if (writer != null) {
        writer.write(record);
      }
    }
  }

  private static final class Builder extends ParquetWriter.Builder<Group, Builder> {
    private final MessageType schema;

    Builder(OutputFile file, MessageType schema) {
      super(file);
      this.schema = schema;
    }

    @Override
    protected Builder self() {
      return this;
    }

    @Override
    @Deprecated // of the library, which asks for both
    protected WriteSupport<Group> getWriteSupport(Configuration configuration) {
      return new Support(schema);
    }

    @Override
    protected WriteSupport<Group> getWriteSupport(ParquetConfiguration configuration) {
      return new Support(schema);
    }
  }

  /** How pages are encoded. */
  record How(ParquetProperties.WriterVersion version, CompressionCodecName codec, boolean words) {}

  /** Writes rows as another program would. */
  static void write(Path file, MessageType schema, How how, int rows, Row maker) {
    try {
      Files.deleteIfExists(file);
      try (ParquetWriter<Group> writer =
          new Builder(new LocalOutputFile(file), schema)
              .withConf(new PlainParquetConfiguration())
              .withWriterVersion(how.version())
              .withCodecFactory(new OtherCodecs())
              .withCompressionCodec(how.codec())
              .withDictionaryEncoding(how.words())
              .withPageSize(4096)
              .withRowGroupSize(100_000L)
              .build()) {
        for (int row = 0; row < rows; row++) {
          Group group = new SimpleGroup(schema);
          maker.fill(group, row);
          writer.write(group);
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Fills a row. */
  interface Row {
    void fill(Group group, int row);
  }
}
