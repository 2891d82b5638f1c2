package org.abletwine.parquet;

import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.abletwine.formats.packed.FileStream;
import org.abletwine.formats.packed.Spool;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.output.OutputFile;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Writes a Parquet file. What a column holds stands before its first value there, and how many
 * decimal places it needs is known after the last: so the rows are kept in a temporary file,
 * packed, until their end, and written then.
 */
final class ParquetSink implements BatchSink {
  /** Bytes kept in memory before they go to the temporary file. */
  private static final int HELD = 1 << 16;

  /** Columns that a message names. */
  private static final int NAMED = 3;

  private static final int SHOWN = 30;

  private final Path target;
  private List<@Nullable ColumnType> types = List.of();
  private List<String> names = List.of();
  private Set<String> hidden = Set.of();
  private ColumnFacts[] facts = {};
  private @Nullable OutputFile file;
  private @Nullable Spool spool;
  private byte[] held = new byte[2 * HELD];
  private int length;
  private long rows;
  private long size;
  private boolean complete;

  ParquetSink(Path target) {
    this.target = target;
  }

  @Override
  public void keepPrivate(List<String> columns) {
    hidden = Set.copyOf(columns);
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = new ArrayList<>(columns);
  }

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
    facts = new ColumnFacts[names.size()];
    for (int i = 0; i < facts.length; i++) {
      facts[i] = new ColumnFacts(i < types.size() ? types.get(i) : null);
    }
    file = new OutputFile(target);
    spool = new Spool(String.valueOf(target.getFileName()));
  }

  @Override
  public void write(Batch batch, int[] columns) {
    CellVector[] cells = new CellVector[columns.length];
    for (int i = 0; i < cells.length; i++) {
      CellVector cell = batch.column(columns[i]);
      cells[i] = cell.inNumbers() ? cell.asText(new CellVector()) : cell;
    }
    for (int row = 0; row < batch.rows(); row++) {
      rows++;
      for (int column = 0; column < cells.length; column++) {
        CellVector of = cells[column];
        int start = of.starts[row];
        if (start < 0) {
          keep(new byte[0], 0, -1);
        } else {
          facts[column].met(of.text, start, of.ends[row], rows);
          keep(of.text, start, of.ends[row]);
        }
      }
      if (length > HELD) {
        send();
      }
    }
  }

  /** Keeps a cell: its length plus one, seven bits a byte, and its bytes; zero for null. */
  private void keep(byte[] text, int start, int end) {
    int bytes = Math.max(0, end - start);
    if (length + bytes + 5 > held.length) {
      held = Arrays.copyOf(held, Math.max(length + bytes + 5, 2 * held.length));
    }
    int left = end < start ? 0 : bytes + 1;
    while (left > 0x7F) {
      held[length++] = (byte) (left | 0x80);
      left >>>= 7;
    }
    held[length++] = (byte) left;
    System.arraycopy(text, start, held, length, bytes);
    length += bytes;
  }

  private void send() {
    Spool into = spool;
    if (into != null) {
      into.write(held, length);
    }
    length = 0;
  }

  @Override
  public void complete() {
    OutputFile into = file;
    Spool from = spool;
    if (complete || into == null || from == null) {
      return;
    }
    send();
    from.end();
    try (FileStream out = new FileStream(into);
        DataInputStream in = new DataInputStream(from.plain())) {
      List<ColumnShape> shapes = Arrays.stream(facts).map(ColumnFacts::shape).toList();
      FileWriter writer = new FileWriter(out, names, shapes);
      byte[] cell = new byte[HELD];
      for (long row = 0; row < rows; row++) {
        for (int column = 0; column < shapes.size(); column++) {
          int bytes = next(in);
          if (bytes < 0) {
            writer.column(column).writeNull(0, 0);
          } else {
            cell = bytes > cell.length ? new byte[2 * bytes] : cell;
            in.readFully(cell, 0, bytes);
            shapes.get(column).write(writer.column(column), cell, 0, bytes);
          }
        }
        writer.endRow();
      }
      writer.end();
      out.flush();
      size = out.count();
    } catch (IOException e) {
      throw new DataException("cannot write " + target + ": " + e.getMessage(), e);
    }
    from.close();
    into.complete();
    complete = true;
  }

  private static int next(DataInputStream in) throws IOException {
    int value = 0;
    for (int shift = 0; ; shift += 7) {
      int part = in.read();
      if (part < 0) {
        throw new EOFException("what was kept aside has ended");
      }
      value |= (part & 0x7F) << shift;
      if (part < 0x80) {
        return value - 1;
      }
    }
  }

  @Override
  public void commit() {
    complete();
    if (file != null) {
      file.commit();
    }
  }

  @Override
  public Path target() {
    return target;
  }

  @Override
  public @Nullable Path beside() {
    return file == null ? null : file.beside();
  }

  @Override
  public String form() {
    List<String> said = new ArrayList<>();
    long typed =
        Arrays.stream(facts).filter(one -> one.shape().kind() != ColumnShape.Kind.TEXT).count();
    said.add(
        typed == 0
            ? "every column as text: none is known to hold anything else"
            : typed
                + (typed == 1 ? " column" : " columns")
                + " of numbers, days, times or truths, all else as text");
    List<String> evened = new ArrayList<>();
    int texts = 0;
    for (int i = 0; i < facts.length; i++) {
      String misfit = Veil.over(hidden.contains(names.get(i)), facts[i].misfit());
      if (misfit != null && texts++ < NAMED) {
        said.add(
            names.get(i)
                + " as text for \""
                + (misfit.length() > SHOWN ? misfit.substring(0, SHOWN) + "…" : misfit)
                + "\" in row "
                + facts[i].misfitRow());
      } else if (misfit == null && facts[i].evened()) {
        evened.add(names.get(i) + " to " + facts[i].places());
      }
    }
    if (texts > NAMED) {
      said.add((texts - NAMED) + " more as text for such a cell");
    }
    if (!evened.isEmpty()) {
      said.add(
          "decimal places made even: "
              + String.join(", ", evened.subList(0, Math.min(NAMED, evened.size())))
              + (evened.size() > NAMED ? " and " + (evened.size() - NAMED) + " more" : ""));
    }
    return String.join("; ", said);
  }

  @Override
  public long bytesWritten() {
    return size;
  }

  @Override
  public void close() {
    if (spool != null) {
      spool.close();
    }
    if (file != null) {
      file.close();
    }
  }
}
