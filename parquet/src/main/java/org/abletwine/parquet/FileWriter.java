package org.abletwine.parquet;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.packed.FileStream;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.column.ColumnWriteStore;
import org.apache.parquet.column.ColumnWriter;
import org.apache.parquet.column.ParquetProperties;
import org.apache.parquet.column.impl.ColumnWriteStoreV1;
import org.apache.parquet.column.page.PageWriteStore;
import org.apache.parquet.column.page.PageWriter;
import org.apache.parquet.format.ColumnChunk;
import org.apache.parquet.format.ColumnOrder;
import org.apache.parquet.format.FileMetaData;
import org.apache.parquet.format.RowGroup;
import org.apache.parquet.format.SchemaElement;
import org.apache.parquet.format.TypeDefinedOrder;
import org.apache.parquet.format.Util;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.Type;

/** Writes a file, group of rows by group of rows. Used by one thread. */
final class FileWriter {
  /** Bytes of a group of rows in memory, about. */
  private static final long GROUP_BYTES = 32L << 20;

  /** Rows after which its size is looked at. */
  private static final int LOOK = 1024;

  private final FileStream out;
  private final List<SchemaElement> schema = new ArrayList<>();
  private final MessageType message;
  private final ColumnWriter[] columns;
  private final List<RowGroup> groups = new ArrayList<>();
  private final Codec codec = new Codec();
  private Map<ColumnDescriptor, ChunkWriter> chunks = new LinkedHashMap<>();
  private ColumnWriteStore store;
  private long at;
  private long rows;
  private long inGroup;

  FileWriter(FileStream out, List<String> names, List<ColumnShape> shapes) throws IOException {
    this.out = out;
    schema.add(new SchemaElement("table").setNum_children(names.size()));
    List<Type> types = new ArrayList<>();
    for (int i = 0; i < names.size(); i++) {
      schema.add(shapes.get(i).element(names.get(i)));
      types.add(shapes.get(i).type(names.get(i)));
    }
    message = new MessageType("table", types);
    columns = new ColumnWriter[names.size()];
    put(ParquetFile.MAGIC);
    store = fresh();
  }

  private void put(byte[] bytes) throws IOException {
    out.write(bytes, 0, bytes.length);
    at += bytes.length;
  }

  private ColumnWriteStore fresh() {
    chunks = new LinkedHashMap<>();
    Map<ColumnDescriptor, ChunkWriter> into = chunks;
    message.getColumns().forEach(column -> into.put(column, new ChunkWriter(column, codec)));
    PageWriteStore pages =
        new PageWriteStore() {
          @Override
          public PageWriter getPageWriter(ColumnDescriptor column) {
            ChunkWriter chunk = into.get(column);
            if (chunk == null) {
              throw new IllegalStateException("no column " + column);
            }
            return chunk;
          }
        };
    ColumnWriteStore made =
        new ColumnWriteStoreV1(
            message,
            pages,
            ParquetProperties.builder()
                .withWriterVersion(ParquetProperties.WriterVersion.PARQUET_1_0)
                .withSizeStatisticsEnabled(false)
                .build());
    int next = 0;
    for (ColumnDescriptor column : message.getColumns()) {
      columns[next++] = made.getColumnWriter(column);
    }
    return made;
  }

  /** Returns the writer of a column for the row that is being written. */
  ColumnWriter column(int column) {
    return columns[column];
  }

  void endRow() throws IOException {
    store.endRecord();
    rows++;
    inGroup++;
    if (inGroup % LOOK == 0 && store.getBufferedSize() > GROUP_BYTES) {
      endGroup();
      store = fresh();
    }
  }

  private void endGroup() throws IOException {
    if (inGroup == 0) {
      return;
    }
    store.flush();
    List<ColumnChunk> written = new ArrayList<>();
    long begin = at;
    long plain = 0;
    for (ChunkWriter chunk : chunks.values()) {
      ColumnChunk one = chunk.writeTo(out, at);
      at += chunk.getMemSize();
      plain += one.getMeta_data().getTotal_uncompressed_size();
      written.add(one);
    }
    store.close();
    groups.add(
        new RowGroup(written, plain, inGroup)
            .setFile_offset(begin)
            .setTotal_compressed_size(at - begin)
            .setOrdinal((short) groups.size()));
    inGroup = 0;
  }

  /** Writes what is left, and the foot. */
  void end() throws IOException {
    endGroup();
    FileMetaData foot = new FileMetaData(1, schema, rows, groups);
    foot.setCreated_by("able-twine version 0.1.0");
    List<ColumnOrder> orders = new ArrayList<>();
    for (int i = 0; i < columns.length; i++) {
      orders.add(ColumnOrder.TYPE_ORDER(new TypeDefinedOrder()));
    }
    foot.setColumn_orders(orders);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    Util.writeFileMetaData(foot, bytes);
    put(bytes.toByteArray());
    put(ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt(bytes.size()).array());
    put(ParquetFile.MAGIC);
  }
}
