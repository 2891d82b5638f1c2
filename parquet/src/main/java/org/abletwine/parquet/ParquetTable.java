package org.abletwine.parquet;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.jspecify.annotations.Nullable;

/** A Parquet file as a table. Its foot is read once, on first need. */
final class ParquetTable implements BatchTable {
  private final Path path;
  private final TableOptions options;
  private @Nullable List<ParquetColumn> columns;
  private @Nullable Schema schema;

  ParquetTable(Path path, TableOptions options) {
    this.path = path;
    this.options = options;
  }

  @Override
  public String name() {
    return String.valueOf(path.getFileName());
  }

  private synchronized List<ParquetColumn> columns() {
    List<ParquetColumn> known = columns;
    if (known == null) {
      try (ParquetFile file = new ParquetFile(path)) {
        known = file.columns();
      }
      columns = known;
    }
    return known;
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = new Schema(columns().stream().map(ParquetColumn::name).toList());
      schema = known;
    }
    return known;
  }

  @Override
  public boolean isPrivate(String column) {
    return options.hidden().contains(column);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    ColumnType stated = options.types().get(column);
    int at = stated == null ? schema().indexOf(column) : -1;
    return at < 0 ? stated : columns().get(at).type();
  }

  @Override
  public long sizeInBytes() {
    try {
      return Files.size(path);
    } catch (IOException e) {
      return 0;
    }
  }

  @Override
  public boolean byColumn() {
    return true;
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return pieces(first, wanted, null);
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted, @Nullable BitSet looked) {
    return new BatchPieces(
        new ParquetReader(new ParquetFile(path), Set.copyOf(options.nulls()), looked),
        schema().size(),
        wanted);
  }

  @Override
  public String toString() {
    return "ParquetTable[" + name() + "]";
  }
}
