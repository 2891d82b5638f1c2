package org.abletwine.formats.csv;

import java.util.BitSet;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Stretch;
import org.jspecify.annotations.Nullable;

/** Delimited text in pieces: cut by one after the other, parsed by each for itself. */
final class CsvPieces implements Pieces {
  private final ByteSource source;
  private final Dialect dialect;
  private final Schema schema;
  private final TableOptions options;
  private final int first;
  private final @Nullable BitSet wanted;
  private final Decoding decoding;
  private final Cutter cutter;

  CsvPieces(
      ByteSource source,
      Dialect dialect,
      Schema schema,
      TableOptions options,
      Stretch.@Nullable Range range,
      int first,
      @Nullable BitSet wanted) {
    this.wanted = wanted;
    this.source = source;
    this.dialect = dialect;
    this.schema = schema;
    this.options = options;
    this.first = first;
    boolean begins = range == null || range.from() == 0;
    this.decoding =
        range == null
            ? new Decoding(source, dialect.encoding())
            : new Decoding(source, dialect.encoding(), range.from(), range.to());
    Cutter whole = new Cutter(decoding, dialect, schema.size());
    this.cutter =
        range == null || begins
            ? whole
            : whole.beginning(range.from(), range.row(), range.line(), false);
  }

  /** A piece with what parses it. */
  private final class Parsed implements Piece {
    private final CsvPiece text = new CsvPiece();
    private final RowScanner scanner =
        new RowScanner(source.name(), dialect, schema, options, wanted, first);
    private final Batch batch = new Batch(schema.size());
    private boolean begun = true;

    @Override
    public @Nullable Batch read() {
      if (!begun) {
        scanner.begin(text, decoding);
        begun = true;
      }
      return scanner.read(batch) ? batch : null;
    }

    @Override
    public Batch batch() {
      return batch;
    }

    @Override
    public void atOnce() {
      batch.takeAll();
    }
  }

  @Override
  public Piece piece() {
    return new Parsed();
  }

  @Override
  public boolean next(Piece into) {
    Parsed piece = (Parsed) into;
    piece.begun = false;
    boolean any = left() && cutter.next(piece.text);
    while (any && wanted != null && !concerns(piece.text, wanted)) {
      any = left() && cutter.next(piece.text);
    }
    return any;
  }

  /** Whether rows behind those cut are to be given. */
  private boolean left() {
    return wanted == null || wanted.nextSetBit((int) cutter.nextRow()) >= 0;
  }

  /** Whether a row of the piece just cut is to be given. */
  private boolean concerns(CsvPiece piece, BitSet rows) {
    int next = rows.nextSetBit((int) piece.row);
    return next >= 0 && next < cutter.nextRow();
  }

  @Override
  public long rows() {
    return cutter.nextRow() - 1;
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
