package org.abletwine.formats.csv;

import java.util.BitSet;
import org.abletwine.table.Batch;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableReader;
import org.jspecify.annotations.Nullable;

/** Reads delimited text into batches: cut into pieces, and these into cells where they lie. */
final class CsvTableReader implements TableReader {
  private final ByteSource source;
  private final Dialect dialect;
  private final Schema schema;
  private final TableOptions options;
  private final Decoding decoding;
  private final Cutter cutter;
  private int first;
  private @Nullable BitSet wanted;
  private @Nullable RowScanner scanner;

  CsvTableReader(ByteSource source, Dialect dialect, Schema schema, TableOptions options) {
    this.source = source;
    this.dialect = dialect;
    this.schema = schema;
    this.options = options;
    this.decoding = new Decoding(source, dialect.encoding());
    this.cutter = new Cutter(decoding, dialect, schema.size());
    this.first = schema.size();
  }

  @Override
  public boolean read(Batch into) {
    RowScanner scanning = scanner;
    if (scanning == null) {
      scanning = new RowScanner(source.name(), dialect, schema, options, wanted, first);
      scanner = scanning;
    }
    while (!scanning.read(into)) {
      if (!next(scanning)) {
        return false;
      }
    }
    return true;
  }

  @Override
  public boolean read(Batch into, BitSet rows) {
    wanted = rows;
    return read(into);
  }

  @Override
  public void noteFirst(int count) {
    first = count;
  }

  /** Goes on to the next piece in which there are rows to be noted. */
  private boolean next(RowScanner scanning) {
    BitSet rows = wanted;
    while (true) {
      // Batches that are still looked at lie in the pieces before, so each is a new one.
      CsvPiece piece = new CsvPiece();
      if (rows != null && rows.nextSetBit((int) cutter.nextRow()) < 0 || !cutter.next(piece)) {
        return false;
      }
      int next = rows == null ? 0 : rows.nextSetBit((int) piece.row);
      if (rows == null || next < cutter.nextRow()) {
        scanning.begin(piece, decoding);
        return true;
      }
    }
  }

  @Override
  public long bytesRead() {
    return decoding.bytesRead();
  }

  @Override
  public void close() {
    decoding.close();
  }
}
