package org.abletwine.formats.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.abletwine.table.output.Output;
import org.abletwine.table.output.OutputFile;
import org.jspecify.annotations.Nullable;

/**
 * Writes rows of text one by one to a comma-separated file: beside its target, and moved into place
 * on commit. For lists that people read, not for the rows of a table. Not safe for use by several
 * threads at once.
 */
public final class CsvRows implements Output {
  private final OutputFile file;
  private final CsvWriter writer;
  private long rows = -1;
  private boolean complete;

  /**
   * @param target the file
   * @param header the column names
   * @throws org.abletwine.table.DataException when it cannot be written there
   */
  public CsvRows(Path target, String... header) {
    file = new OutputFile(target);
    writer =
        CsvWriter.builder()
            .lineDelimiter(de.siegmar.fastcsv.writer.LineDelimiter.LF)
            .build(new OutputStreamWriter(new Into(file), StandardCharsets.UTF_8));
    row(header);
  }

  /**
   * Writes one row.
   *
   * @param cells its cells
   */
  public void row(String... cells) {
    writer.writeRecord(cells);
    rows++;
  }

  /** Returns how many rows were written, the header not counted. */
  public long rows() {
    return rows;
  }

  @Override
  public void complete() {
    if (complete) {
      return;
    }
    complete = true;
    try {
      writer.close();
    } catch (IOException e) {
      throw new IllegalStateException("an output file reports its own errors", e);
    }
    file.complete();
  }

  @Override
  public void commit() {
    complete();
    file.commit();
  }

  @Override
  public Path target() {
    return file.target();
  }

  @Override
  public @Nullable Path beside() {
    return file.beside();
  }

  @Override
  public void close() {
    file.close();
  }

  private static final class Into extends OutputStream {
    private final OutputFile file;

    Into(OutputFile file) {
      this.file = file;
    }

    @Override
    public void write(int b) {
      file.write(new byte[] {(byte) b}, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
      file.write(
          from == 0 ? bytes : java.util.Arrays.copyOfRange(bytes, from, from + length), length);
    }
  }
}
