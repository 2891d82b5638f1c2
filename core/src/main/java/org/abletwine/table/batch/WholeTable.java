package org.abletwine.table.batch;

import java.util.List;

/** A table that is read as a whole, in a single stretch. */
final class WholeTable extends OverTable implements RangedTable {
  WholeTable(BatchTable table) {
    super(table);
  }

  @Override
  public List<Stretch> stretches(long bytes) {
    return List.of(new Stretch(0, 0, -1));
  }

  @Override
  public Stretch.Looked look(Stretch stretch) {
    try (Pieces pieces = pieces(1, null)) {
      Pieces.Piece piece = pieces.piece();
      while (pieces.next(piece)) {
        // to the end: how many rows there are is known then, and a wrong one is met by who takes it
      }
      return new Stretch.Looked(stretch, new Stretch.Held(0, 0, 0, pieces.rows(), 0, false), null);
    }
  }

  @Override
  public BatchTable rows(Stretch.Range range) {
    return table;
  }
}
