package org.abletwine.parquet;

import java.util.BitSet;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.TableReader;
import org.apache.parquet.VersionParser;
import org.apache.parquet.column.ColumnReader;
import org.apache.parquet.column.impl.ColumnReaderImpl;
import org.apache.parquet.format.ColumnChunk;
import org.apache.parquet.format.ColumnMetaData;
import org.apache.parquet.format.RowGroup;
import org.apache.parquet.io.api.PrimitiveConverter;
import org.jspecify.annotations.Nullable;

/**
 * Goes through the rows of a file, group by group. Columns that nobody looks at are not read. Used
 * by one thread.
 */
final class ParquetReader implements TableReader {
  private static final int NO_COLUMN = -1;

  private final ParquetFile file;
  private final ParquetColumn[] columns;
  private final CellForm[] forms;
  private final Set<String> nulls;
  private final @Nullable BitSet looked;
  private final Codec codec = new Codec();
  private final Iterator<RowGroup> groups;
  private final VersionParser.@Nullable ParsedVersion writer;
  private final @Nullable ColumnReader[] readers;
  private final @Nullable ChunkPages[] pages;
  private long left;
  private long row;

  /**
   * @param file closed with this reader
   * @param looked the columns that are looked at; null for all
   */
  ParquetReader(ParquetFile file, Set<String> nulls, @Nullable BitSet looked) {
    this.file = file;
    this.nulls = nulls;
    this.looked = looked;
    columns = file.columns().toArray(ParquetColumn[]::new);
    forms = file.columns().stream().map(ParquetColumn::cells).toArray(CellForm[]::new);
    readers = new ColumnReader[columns.length];
    pages = new ChunkPages[columns.length];
    groups = file.groups().iterator();
    writer = version(file.writer());
  }

  /** Some programs of old wrote what has to be read with care, and are known by their version. */
  private static VersionParser.@Nullable ParsedVersion version(@Nullable String program) {
    try {
      return program == null ? null : VersionParser.parse(program);
    } catch (VersionParser.VersionParseException | RuntimeException e) {
      return null;
    }
  }

  @Override
  public boolean read(Batch into) {
    into.clear(row + 1, '\0');
    int column = NO_COLUMN;
    try {
      while (!into.full()) {
        if (left == 0) {
          if (!groups.hasNext()) {
            break;
          }
          RowGroup group = groups.next();
          for (column = 0; column < columns.length; column++) {
            open(group, column);
          }
          left = group.getNum_rows();
          continue;
        }
        for (column = 0; column < columns.length; column++) {
          add(into, column);
        }
        column = NO_COLUMN;
        into.endRow();
        row++;
        left--;
      }
      return into.rows() > 0;
    } catch (DataException e) {
      throw e;
    } catch (RuntimeException e) {
      throw new DataException(
          file.path()
              + (column == NO_COLUMN ? "" : ", column " + columns[column].name())
              + ", row "
              + (row + 1)
              + ": "
              + (e instanceof IllegalArgumentException
                  ? e.getMessage()
                  : "the file is damaged: " + told(e))
              + "; get the file again, or write it anew",
          e);
    }
  }

  private static String told(RuntimeException e) {
    String message = e.getMessage();
    return message == null ? "its values cannot be read" : message.lines().findFirst().orElse("");
  }

  private void open(RowGroup group, int column) {
    readers[column] = null;
    if (looked != null && !looked.get(column) || group.getNum_rows() == 0) {
      return;
    }
    if (group.getNum_rows() < 0 || group.getColumnsSize() != columns.length) {
      throw new IllegalArgumentException(
          "a group of "
              + group.getNum_rows()
              + " rows has "
              + group.getColumnsSize()
              + " columns, and the file "
              + columns.length);
    }
    ColumnChunk chunk = group.getColumns().get(column);
    ColumnMetaData data = chunk.getMeta_data();
    if (data == null || chunk.isSetFile_path()) {
      throw new IllegalArgumentException("its pages are in another file, or encrypted");
    }
    if (!List.of(columns[column].name()).equals(data.getPath_in_schema())) {
      throw new IllegalArgumentException("column " + data.getPath_in_schema() + " is in its place");
    }
    if (data.getCodec() == null || data.getType() != columns[column].physical()) {
      throw new IllegalArgumentException("its pages are written in a way not known");
    }
    ChunkPages found = new ChunkPages(file, codec, data, group.getNum_rows());
    pages[column] = found;
    readers[column] =
        new ColumnReaderImpl(
            columns[column].descriptor(), found, new PrimitiveConverter() {}, writer);
  }

  private void add(Batch into, int column) {
    ColumnReader reader = readers[column];
    if (reader == null) {
      into.addCell(null);
      return;
    }
    if (reader.getCurrentDefinitionLevel() < columns[column].level()) {
      into.addCell(null);
    } else if (nulls.isEmpty()) {
      forms[column].add(reader, into);
    } else {
      add(into, column, reader);
    }
    reader.consume();
  }

  /** Adds a cell that may be one of the words that stand for null. */
  private void add(Batch into, int column, ColumnReader reader) {
    Batch one = alone;
    one.clear(1, '\0');
    forms[column].add(reader, one);
    one.endRow();
    String text = one.column(0).get(0);
    into.addCell(nulls.contains(Objects.requireNonNull(text)) ? null : text);
  }

  private final Batch alone = new Batch(1);

  @Override
  public long bytesRead() {
    long most = 0;
    for (ChunkPages one : pages) {
      most = Math.max(most, one == null ? 0 : one.at());
    }
    return most;
  }

  @Override
  public void close() {
    file.close();
  }
}
