package org.abletwine.parquet;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.table.DataException;
import org.apache.parquet.format.FieldRepetitionType;
import org.apache.parquet.format.FileMetaData;
import org.apache.parquet.format.RowGroup;
import org.apache.parquet.format.SchemaElement;
import org.apache.parquet.format.Util;
import org.jspecify.annotations.Nullable;

/** An open Parquet file and what its foot says. Used by one thread. */
final class ParquetFile implements AutoCloseable {
  static final byte[] MAGIC = {'P', 'A', 'R', '1'};

  /** The length of the foot, and four letters. */
  private static final int TAIL = 8;

  /** Names of columns that a message shows. */
  private static final int SHOWN = 5;

  private final Path path;
  private final FileChannel channel;
  private final long size;
  private final FileMetaData foot;
  private final List<ParquetColumn> columns;

  ParquetFile(Path path) {
    this.path = path;
    try {
      channel = FileChannel.open(path, StandardOpenOption.READ);
    } catch (NoSuchFileException e) {
      throw new DataException("there is no file " + path, e);
    } catch (IOException e) {
      throw new DataException("cannot read " + path + ": " + e.getMessage(), e);
    }
    try {
      size = channel.size();
      foot = foot();
      columns = columns(foot.getSchema());
    } catch (IOException e) {
      close();
      throw new DataException("cannot read " + path + ": " + e.getMessage(), e);
    } catch (RuntimeException e) {
      close();
      throw e instanceof DataException ? e : damaged("its foot cannot be read", e);
    }
  }

  private FileMetaData foot() throws IOException {
    byte[] head = size < MAGIC.length ? new byte[0] : bytes(0, MAGIC.length);
    String begins = new String(head, StandardCharsets.ISO_8859_1);
    if (begins.equals("PARE")) {
      throw encrypted();
    }
    if (!begins.equals("PAR1")) {
      throw new DataException(
          path + " is no Parquet file, whatever its ending says; give it the ending of what it is");
    }
    if (size < MAGIC.length + TAIL) {
      throw damaged("it is cut off after " + size + " bytes", null);
    }
    ByteBuffer tail = ByteBuffer.wrap(bytes(size - TAIL, TAIL)).order(ByteOrder.LITTLE_ENDIAN);
    int length = tail.getInt(0);
    String ends = new String(tail.array(), 4, 4, StandardCharsets.ISO_8859_1);
    if (ends.equals("PARE")) {
      throw encrypted();
    }
    if (!ends.equals("PAR1")) {
      throw damaged("it is cut off: byte " + size + " does not end it", null);
    }
    if (length <= 0 || length > size - MAGIC.length - TAIL) {
      throw damaged("its foot is said to be " + length + " bytes long", null);
    }
    FileMetaData read =
        Util.readFileMetaData(new ByteArrayInputStream(bytes(size - TAIL - length, length)));
    if (read.isSetEncryption_algorithm()) {
      throw encrypted();
    }
    long rows = read.getRow_groups().stream().mapToLong(RowGroup::getNum_rows).sum();
    if (rows != read.getNum_rows()) {
      throw damaged(
          "its groups have " + rows + " rows, and its foot says " + read.getNum_rows(), null);
    }
    return read;
  }

  private DataException encrypted() {
    return new DataException(path + " is encrypted; ask for it without");
  }

  private DataException damaged(String what, @Nullable Throwable cause) {
    return new DataException(path + " is damaged: " + what + "; get it again", cause);
  }

  private List<ParquetColumn> columns(List<SchemaElement> schema) {
    int count = schema.isEmpty() ? 0 : schema.get(0).getNum_children();
    List<ParquetColumn> found = new ArrayList<>();
    List<String> nested = new ArrayList<>();
    int at = 1;
    for (int i = 0; i < count; i++) {
      SchemaElement element = schema.get(at);
      if (element.getNum_children() > 0) {
        nested.add(element.getName());
      } else if (element.getRepetition_type() == FieldRepetitionType.REPEATED) {
        nested.add(element.getName());
      } else {
        found.add(new ParquetColumn(element, path.getFileName() + ", column " + element.getName()));
      }
      at = behind(schema, at);
    }
    if (!nested.isEmpty()) {
      throw new DataException(
          path
              + ": "
              + (nested.size() == 1 ? "column " : "columns ")
              + String.join(", ", nested.subList(0, Math.min(SHOWN, nested.size())))
              + (nested.size() > SHOWN ? " and " + (nested.size() - SHOWN) + " more" : "")
              + (nested.size() == 1 ? " holds" : " hold")
              + " lists or columns of their own, which no cell holds; write the file without, or with"
              + " a column for each part");
    }
    if (found.isEmpty()) {
      throw new DataException(path + " has no columns");
    }
    Set<String> seen = new HashSet<>();
    for (ParquetColumn column : found) {
      if (!seen.add(column.name())) {
        throw new DataException(path + ": two columns are called \"" + column.name() + "\"");
      }
    }
    return found;
  }

  /** Where the next element stands that is not within one. */
  private static int behind(List<SchemaElement> schema, int at) {
    int next = at + 1;
    for (int left = schema.get(at).getNum_children(); left > 0; left--) {
      next = behind(schema, next);
    }
    return next;
  }

  Path path() {
    return path;
  }

  List<ParquetColumn> columns() {
    return columns;
  }

  List<RowGroup> groups() {
    return foot.getRow_groups();
  }

  /** Returns the program that says it has written the file; null when none does. */
  @Nullable String writer() {
    return foot.getCreated_by();
  }

  long size() {
    return size;
  }

  /**
   * Reads bytes.
   *
   * @param from where, 0-based
   * @throws DataException when they are not there
   */
  byte[] bytes(long from, int length) {
    byte[] bytes = new byte[length];
    ByteBuffer into = ByteBuffer.wrap(bytes);
    try {
      while (into.hasRemaining()) {
        if (channel.read(into, from + into.position()) < 0) {
          throw damaged("it ends at byte " + (from + into.position()), null);
        }
      }
    } catch (IOException e) {
      throw new DataException("cannot read " + path + ": " + e.getMessage(), e);
    }
    return bytes;
  }

  @Override
  public void close() {
    try {
      channel.close();
    } catch (IOException e) {
      // it was only read
    }
  }
}
