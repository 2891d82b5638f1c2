package org.abletwine.parquet;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.zip.CRC32;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.column.page.DictionaryPage;
import org.apache.parquet.column.page.PageWriter;
import org.apache.parquet.column.statistics.SizeStatistics;
import org.apache.parquet.column.statistics.Statistics;
import org.apache.parquet.column.statistics.geospatial.GeospatialStatistics;
import org.apache.parquet.format.ColumnChunk;
import org.apache.parquet.format.ColumnMetaData;
import org.apache.parquet.format.CompressionCodec;
import org.apache.parquet.format.DataPageHeader;
import org.apache.parquet.format.DictionaryPageHeader;
import org.apache.parquet.format.Encoding;
import org.apache.parquet.format.PageHeader;
import org.apache.parquet.format.PageType;
import org.apache.parquet.format.Type;
import org.apache.parquet.format.Util;
import org.jspecify.annotations.Nullable;

/** The pages of one column in one group of rows, packed, until the group is complete. */
final class ChunkWriter implements PageWriter {
  /** Bytes of the least and the greatest value that the foot states, at most. */
  private static final int MOST_BOUND = 64;

  private final ColumnDescriptor column;
  private final Codec codec;
  private final ByteArrayOutputStream words = new ByteArrayOutputStream();
  private final ByteArrayOutputStream pages = new ByteArrayOutputStream();
  private final Set<Encoding> encodings = new TreeSet<>();
  private @Nullable Statistics<?> all;
  private long values;
  private long plain;

  ChunkWriter(ColumnDescriptor column, Codec codec) {
    this.column = column;
    this.codec = codec;
  }

  private static Encoding encoding(org.apache.parquet.column.Encoding encoding) {
    return Encoding.valueOf(encoding.name());
  }

  @Override
  public void writePage(
      BytesInput bytes,
      int count,
      int rows,
      Statistics<?> statistics,
      org.apache.parquet.column.Encoding repeated,
      org.apache.parquet.column.Encoding defined,
      org.apache.parquet.column.Encoding encoding)
      throws IOException {
    DataPageHeader head =
        new DataPageHeader(count, encoding(encoding), encoding(defined), encoding(repeated));
    encodings.addAll(List.of(encoding(encoding), encoding(defined), encoding(repeated)));
    put(
        PageType.DATA_PAGE,
        bytes.toInputStream().readAllBytes(),
        pages,
        header -> header.setData_page_header(head));
    values += count;
    Statistics<?> known = all;
    if (known == null) {
      all = statistics.copy();
    } else {
      known.mergeStatistics(statistics);
    }
  }

  /** For those who do not know how many rows a page has; it has as many as values here. */
  @Deprecated
  @Override
  public void writePage(
      BytesInput bytes,
      int count,
      Statistics<?> statistics,
      org.apache.parquet.column.Encoding repeated,
      org.apache.parquet.column.Encoding defined,
      org.apache.parquet.column.Encoding encoding)
      throws IOException {
    writePage(bytes, count, count, statistics, repeated, defined, encoding);
  }

  @Override
  public void writePage(
      BytesInput bytes,
      int count,
      int rows,
      Statistics<?> statistics,
      @Nullable SizeStatistics sizes,
      @Nullable GeospatialStatistics places,
      org.apache.parquet.column.Encoding repeated,
      org.apache.parquet.column.Encoding defined,
      org.apache.parquet.column.Encoding encoding)
      throws IOException {
    writePage(bytes, count, rows, statistics, repeated, defined, encoding);
  }

  @Override
  public void writePageV2(
      int rows,
      int nulls,
      int count,
      BytesInput repeated,
      BytesInput defined,
      org.apache.parquet.column.Encoding encoding,
      BytesInput data,
      Statistics<?> statistics) {
    throw new UnsupportedOperationException("pages are written as every program reads them");
  }

  @Override
  public void writeDictionaryPage(DictionaryPage page) throws IOException {
    DictionaryPageHeader head =
        new DictionaryPageHeader(page.getDictionarySize(), encoding(page.getEncoding()));
    encodings.add(encoding(page.getEncoding()));
    put(
        PageType.DICTIONARY_PAGE,
        page.getBytes().toInputStream().readAllBytes(),
        words,
        header -> header.setDictionary_page_header(head));
  }

  private void put(
      PageType type, byte[] bytes, ByteArrayOutputStream into, Consumer<PageHeader> more)
      throws IOException {
    byte[] packed = codec.pack(bytes);
    CRC32 sum = new CRC32();
    sum.update(packed, 0, packed.length);
    PageHeader header = new PageHeader(type, bytes.length, packed.length);
    header.setCrc((int) sum.getValue());
    more.accept(header);
    int before = into.size();
    Util.writePageHeader(header, into);
    plain += into.size() - before + bytes.length;
    into.write(packed, 0, packed.length);
  }

  @Override
  public long getMemSize() {
    return words.size() + pages.size();
  }

  @Override
  public long allocatedSize() {
    return getMemSize();
  }

  @Override
  public String memUsageString(String prefix) {
    return prefix + getMemSize();
  }

  /**
   * Writes the pages.
   *
   * @param at where they begin in the file
   * @return what the foot says of them
   */
  ColumnChunk writeTo(OutputStream out, long at) throws IOException {
    words.writeTo(out);
    pages.writeTo(out);
    ColumnMetaData data =
        new ColumnMetaData(
            type(),
            List.copyOf(encodings),
            List.of(column.getPath()),
            CompressionCodec.SNAPPY,
            values,
            plain,
            getMemSize(),
            at + words.size());
    if (words.size() > 0) {
      data.setDictionary_page_offset(at);
    }
    Statistics<?> known = all;
    if (known != null) {
      data.setStatistics(statistics(known));
    }
    return new ColumnChunk(at + words.size()).setMeta_data(data);
  }

  private Type type() {
    String name = column.getPrimitiveType().getPrimitiveTypeName().name();
    return Type.valueOf(name.equals("BINARY") ? "BYTE_ARRAY" : name);
  }

  private static org.apache.parquet.format.Statistics statistics(Statistics<?> known) {
    org.apache.parquet.format.Statistics written = new org.apache.parquet.format.Statistics();
    if (known.isNumNullsSet()) {
      written.setNull_count(known.getNumNulls());
    }
    if (known.hasNonNullValue()
        && known.getMinBytes().length <= MOST_BOUND
        && known.getMaxBytes().length <= MOST_BOUND) {
      written.setMin_value(known.getMinBytes());
      written.setMax_value(known.getMaxBytes());
    }
    return written;
  }
}
