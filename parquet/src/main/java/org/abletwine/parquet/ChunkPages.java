package org.abletwine.parquet;

import java.io.IOException;
import java.io.InputStream;
import java.util.zip.CRC32;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.column.Encoding;
import org.apache.parquet.column.page.DataPage;
import org.apache.parquet.column.page.DataPageV1;
import org.apache.parquet.column.page.DataPageV2;
import org.apache.parquet.column.page.DictionaryPage;
import org.apache.parquet.column.page.PageReader;
import org.apache.parquet.format.ColumnMetaData;
import org.apache.parquet.format.DataPageHeader;
import org.apache.parquet.format.DataPageHeaderV2;
import org.apache.parquet.format.PageHeader;
import org.apache.parquet.format.PageType;
import org.apache.parquet.format.Util;
import org.jspecify.annotations.Nullable;

/**
 * The pages of one column in one group of rows, one after the other: a page is in memory at a time,
 * and the dictionary. What a header says is held against what there can be before anything is made
 * room for. Used by one thread.
 */
final class ChunkPages implements PageReader {
  /** Bytes of a page, unpacked, at most. */
  private static final int MOST_BYTES = 1 << 30;

  /** Bytes that are read at once while headers are looked for. */
  private static final int AHEAD = 1 << 16;

  /** Bytes that a value of a dictionary takes at least: its length, or itself. */
  private static final int LEAST_VALUE = 4;

  private final ParquetFile file;
  private final Codec codec;
  private final ColumnMetaData column;
  private final long rows;
  private long at;
  private long left;
  private byte[] window = {};
  private long windowStart;
  private @Nullable PageHeader held;

  /**
   * @param rows how many rows the group has
   */
  ChunkPages(ParquetFile file, Codec codec, ColumnMetaData column, long rows) {
    this.file = file;
    this.codec = codec;
    this.column = column;
    this.rows = rows;
    long data = column.getData_page_offset();
    long words = column.isSetDictionary_page_offset() ? column.getDictionary_page_offset() : 0;
    at = words > 0 && words < data ? words : data;
    left = column.getNum_values();
    if (left != rows) {
      throw new IllegalArgumentException("it has " + left + " values in " + rows + " rows");
    }
    if (at < 0 || at >= file.size()) {
      throw new IllegalArgumentException("its pages are said to begin at byte " + at);
    }
  }

  /** Bytes of the file from where the next page begins. */
  private final class Window extends InputStream {
    private long next = at;

    @Override
    public int read() {
      if (next >= file.size()) {
        return -1;
      }
      if (next < windowStart || next >= windowStart + window.length) {
        windowStart = next;
        window = file.bytes(next, (int) Math.min(AHEAD, file.size() - next));
      }
      return window[(int) (next++ - windowStart)] & 0xFF;
    }
  }

  private PageHeader header() {
    PageHeader known = held;
    if (known != null) {
      held = null;
      return known;
    }
    Window in = new Window();
    try {
      PageHeader header = Util.readPageHeader(in);
      at = in.next;
      int packed = header.getCompressed_page_size();
      int plain = header.getUncompressed_page_size();
      if (packed < 0 || packed > file.size() - at || plain < 0 || plain > MOST_BYTES) {
        throw new IllegalArgumentException(
            "a page is said to be of " + packed + " bytes, and " + plain + " unpacked");
      }
      return header;
    } catch (IOException e) {
      throw new IllegalArgumentException("a page at byte " + at + " has no head", e);
    }
  }

  private byte[] body(PageHeader header) {
    int length = header.getCompressed_page_size();
    byte[] bytes;
    if (at >= windowStart && at + length <= windowStart + window.length) {
      bytes = new byte[length];
      System.arraycopy(window, (int) (at - windowStart), bytes, 0, length);
    } else {
      bytes = file.bytes(at, length);
    }
    if (header.isSetCrc()) {
      CRC32 sum = new CRC32();
      sum.update(bytes, 0, length);
      if ((int) sum.getValue() != header.getCrc()) {
        throw new IllegalArgumentException("a page at byte " + at + " has another sum than stated");
      }
    }
    at += length;
    return bytes;
  }

  private byte[] plain(PageHeader header) {
    byte[] bytes = body(header);
    return codec.unpack(
        column.getCodec(), bytes, 0, bytes.length, header.getUncompressed_page_size());
  }

  @Override
  public @Nullable DictionaryPage readDictionaryPage() {
    PageHeader header = header();
    if (header.getType() != PageType.DICTIONARY_PAGE) {
      held = header;
      return null;
    }
    byte[] bytes = plain(header);
    int values = header.getDictionary_page_header().getNum_values();
    boolean fits = values >= 0 && values <= bytes.length / LEAST_VALUE + 1;
    if (!fits && column.getType() != org.apache.parquet.format.Type.FIXED_LEN_BYTE_ARRAY
        || values < 0
        || values > bytes.length) {
      throw new IllegalArgumentException(
          "its dictionary is said to hold " + values + " values in " + bytes.length + " bytes");
    }
    Encoding encoding = encoding(header.getDictionary_page_header().getEncoding());
    return new DictionaryPage(BytesInput.from(bytes), values, encoding);
  }

  @Override
  public long getTotalValueCount() {
    return rows;
  }

  @Override
  public @Nullable DataPage readPage() {
    while (left > 0) {
      PageHeader header = header();
      switch (header.getType()) {
        case DATA_PAGE -> {
          return first(header);
        }
        case DATA_PAGE_V2 -> {
          return second(header);
        }
        default -> body(header); // nothing that is needed
      }
    }
    return null;
  }

  private void took(int values) {
    if (values < 0 || values > left) {
      throw new IllegalArgumentException(
          "a page is said to hold " + values + " values where " + left + " are left");
    }
    left -= values;
  }

  private DataPage first(PageHeader header) {
    DataPageHeader head = header.getData_page_header();
    took(head.getNum_values());
    byte[] bytes = plain(header);
    return new DataPageV1(
        BytesInput.from(bytes),
        head.getNum_values(),
        bytes.length,
        null,
        encoding(head.getRepetition_level_encoding()),
        encoding(head.getDefinition_level_encoding()),
        encoding(head.getEncoding()));
  }

  private DataPage second(PageHeader header) {
    DataPageHeaderV2 head = header.getData_page_header_v2();
    took(head.getNum_values());
    byte[] bytes = body(header);
    int repeated = head.getRepetition_levels_byte_length();
    int defined = head.getDefinition_levels_byte_length();
    int levels = repeated + defined;
    if (repeated < 0
        || defined < 0
        || levels < 0
        || levels > bytes.length
        || levels > header.getUncompressed_page_size()) {
      throw new IllegalArgumentException("a page is said to have " + levels + " bytes of levels");
    }
    int size = header.getUncompressed_page_size() - levels;
    byte[] data =
        head.isIs_compressed() && size > 0
            ? codec.unpack(column.getCodec(), bytes, levels, bytes.length - levels, size)
            : java.util.Arrays.copyOfRange(bytes, levels, bytes.length);
    return DataPageV2.uncompressed(
        head.getNum_values(),
        head.getNum_nulls(),
        head.getNum_values(),
        BytesInput.from(bytes, 0, repeated),
        BytesInput.from(bytes, repeated, defined),
        encoding(head.getEncoding()),
        BytesInput.from(data),
        null);
  }

  private static Encoding encoding(org.apache.parquet.format.@Nullable Encoding encoding) {
    if (encoding == null) {
      throw new IllegalArgumentException("a page is written in a way not known");
    }
    return Encoding.valueOf(encoding.name());
  }

  /** Returns where the next page begins. */
  long at() {
    return at;
  }
}
