package org.abletwine.table.batch;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * Several tables read one after another as one: rows are numbered on, columns are matched by name.
 * Safe to share between threads.
 */
public final class ManyTables implements RangedTable {
  private final String name;
  private final List<BatchTable> tables;
  private final @Nullable String source;
  private final boolean pad;

  @GuardedBy("this") private @Nullable Schema schema;

  /**
   * @param name the name for messages
   * @param tables the tables, at least one
   * @param source a column to add that says which table a row is of; null for none
   * @param pad whether a column that a table has not is null there; else that is an error
   */
  public ManyTables(String name, List<Table> tables, @Nullable String source, boolean pad) {
    this.name = name;
    this.tables = tables.stream().map(BatchTable::of).toList();
    this.source = source;
    this.pad = pad;
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = together();
      schema = known;
    }
    return known;
  }

  private Schema together() {
    List<String> first = tables.get(0).schema().names();
    Set<String> names = new LinkedHashSet<>(first);
    for (Table table : tables) {
      List<String> own = table.schema().names();
      if (!pad) {
        requireAll(first, own, table, "has no column \"%s\", which %s has");
        requireAll(own, first, table, "has a column \"%s\", which %s has not");
      }
      names.addAll(own);
    }
    if (source != null && !names.add(source)) {
      throw new DataException(
          name + ": there is a column \"" + source + "\" already; name the source otherwise");
    }
    return new Schema(List.copyOf(names));
  }

  private void requireAll(List<String> wanted, List<String> had, Table table, String message) {
    for (String column : wanted) {
      if (!had.contains(column)) {
        throw new DataException(
            table.name()
                + " "
                + String.format(message, column, tables.get(0).name())
                + "; give all files the same columns, or read what is missing as null with ragged:"
                + " pad");
      }
    }
  }

  @Override
  public @Nullable ColumnType type(String column) {
    ColumnType type = null;
    for (Table table : tables) {
      if (table.schema().indexOf(column) >= 0) {
        ColumnType own = table.type(column);
        if (own == null || type != null && !type.equals(own)) {
          return null;
        }
        type = own;
      }
    }
    return type;
  }

  @Override
  public boolean isPrivate(String column) {
    return tables.stream().anyMatch(table -> table.isPrivate(column));
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    for (BatchTable table : tables) {
      if (table.schema().indexOf(column) >= 0) {
        return table.likely(column);
      }
    }
    return null;
  }

  @Override
  public List<String> remarks() {
    return tables.stream()
        .flatMap(table -> table.remarks().stream().map(remark -> table.name() + ": " + remark))
        .toList();
  }

  @Override
  public Map<String, String> traits() {
    return tables.get(0).traits();
  }

  @Override
  public void readAgain() {
    tables.forEach(Table::readAgain);
  }

  @Override
  public long sizeInBytes() {
    long sum = 0;
    for (Table table : tables) {
      long size = table.sizeInBytes();
      if (size < 0) {
        return -1;
      }
      sum += size;
    }
    return sum;
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return new ManyPieces(tables, 0, first, wanted);
  }

  @Override
  public List<Stretch> stretches(long bytes) {
    List<Stretch> all = new ArrayList<>();
    for (int file = 0; file < tables.size(); file++) {
      for (Stretch one : RangedTable.of(tables.get(file)).stretches(bytes)) {
        all.add(new Stretch(file, one.from(), one.to()));
      }
    }
    return all;
  }

  @Override
  public Stretch.Looked look(Stretch stretch) {
    return RangedTable.of(tables.get(stretch.file())).look(stretch);
  }

  @Override
  public BatchTable rows(Stretch.Range range) {
    List<BatchTable> one = List.of(RangedTable.of(tables.get(range.file())).rows(range));
    return new OverTable(this) {
      @Override
      public Pieces pieces(int first, @Nullable BitSet wanted) {
        return new ManyPieces(one, range.before(), first, wanted);
      }
    };
  }

  /** Whether rows of a table are rows of the whole as they are, in what they look like too. */
  private boolean asItIs(Table table) {
    return table.schema().names().equals(schema().names()) && table.traits().equals(traits());
  }

  /** The tables' pieces, one table after another. */
  private final class ManyPieces implements Pieces {
    private final List<BatchTable> read;
    private final int first;
    private final @Nullable BitSet wanted;
    private final List<Pieces> opened = new ArrayList<>();
    private int at = -1;

    /** Rows of the tables before the one that is read. */
    private long before;

    ManyPieces(List<BatchTable> read, long before, int first, @Nullable BitSet wanted) {
      this.read = read;
      this.before = before;
      this.first = first;
      this.wanted = wanted;
    }

    @Override
    public Piece piece() {
      return new ManyPiece(wanted);
    }

    @Override
    public boolean next(Piece into) {
      ManyPiece piece = (ManyPiece) into;
      while (at < read.size()) {
        Pieces current = at < 0 ? null : opened.get(at);
        if (current != null) {
          piece.begin(current, read.get(at), before);
          if (current.next(piece.inner())) {
            return true;
          }
          before += current.rows();
        }
        at++;
        if (at < read.size()) {
          BatchTable table = read.get(at);
          Pieces next = table.pieces(asItIs(table) ? first : table.schema().size(), null);
          synchronized (opened) {
            opened.add(next);
          }
        }
      }
      return false;
    }

    @Override
    public long rows() {
      return before;
    }

    @Override
    public long bytesRead() {
      synchronized (opened) {
        return opened.stream().mapToLong(Pieces::bytesRead).sum();
      }
    }

    @Override
    public void close() {
      synchronized (opened) {
        opened.forEach(Pieces::close);
      }
    }
  }

  /** A piece of whichever table is being read. Belongs to the worker that has it. */
  private final class ManyPiece implements Pieces.Piece {
    private final @Nullable BitSet wanted;
    private final Batch own = new Batch(schema().size());
    private final CellVector cell = new CellVector();
    private Pieces.@Nullable Piece inner;
    private @Nullable Pieces of;
    private @Nullable BatchTable table;
    private int @Nullable [] columns;
    private long before;
    private boolean whole;

    ManyPiece(@Nullable BitSet wanted) {
      this.wanted = wanted;
    }

    void begin(Pieces pieces, BatchTable from, long rowsBefore) {
      before = rowsBefore;
      if (of == pieces) {
        return;
      }
      of = pieces;
      table = from;
      Pieces.Piece fresh = pieces.piece();
      if (whole) {
        fresh.atOnce();
      }
      inner = fresh;
      List<String> names = schema().names();
      columns = asItIs(from) ? null : names.stream().mapToInt(from.schema()::indexOf).toArray();
    }

    Pieces.Piece inner() {
      return java.util.Objects.requireNonNull(inner);
    }

    @Override
    public @Nullable Batch read() {
      while (true) {
        Batch read;
        try {
          read = inner().read();
        } catch (DataException e) {
          numbered(inner().batch());
          throw e;
        }
        if (read == null) {
          return null;
        }
        Batch batch = numbered(read);
        if (wanted == null || BatchPieces.pick(batch, wanted)) {
          return batch;
        }
      }
    }

    /** The rows as those of the whole. */
    private Batch numbered(Batch batch) {
      if (columns == null) {
        batch.numberFrom(batch.firstRow() + before);
        return batch;
      }
      own.clear(batch.firstRow() + before, '\0');
      String from = source == null ? null : java.util.Objects.requireNonNull(table).name();
      for (int row = 0; row < batch.rows(); row++) {
        for (int i = 0; i < columns.length; i++) {
          if (columns[i] >= 0) {
            batch.cell(row, columns[i], cell);
            own.addCell(cell.text, cell.starts[0], cell.ends[0]);
          } else {
            own.addCell(i == columns.length - 1 ? from : null);
          }
        }
        own.endRow();
      }
      return own;
    }

    @Override
    public Batch batch() {
      return columns == null ? inner().batch() : own;
    }

    @Override
    public void atOnce() {
      whole = true;
      own.takeAll();
      if (inner != null) {
        inner.atOnce();
      }
    }
  }

  @Override
  public String toString() {
    return "ManyTables[" + name + ", " + tables.size() + " tables]";
  }
}
