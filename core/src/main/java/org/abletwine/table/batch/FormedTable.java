package org.abletwine.table.batch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/**
 * A table of which some columns write numbers in a form of their own, told by an example. Their
 * cells are numbers as all others are from here on: a digit that is written otherwise than the
 * example says is an error that names row and column, since it may mean something else, and cells
 * without a digit stay as they are. Safe to share between threads.
 */
public final class FormedTable extends OverTable implements RangedTable {
  private final Map<String, NumberForm> forms;

  private FormedTable(BatchTable table, Map<String, NumberForm> forms) {
    super(table);
    this.forms = forms;
  }

  /**
   * A table as its options say it writes numbers.
   *
   * @param table the table
   * @param options how it is read
   * @return the table itself when nothing is said of the form of numbers
   * @throws SettingException when an example cannot be understood
   */
  public static Table of(Table table, TableOptions options) {
    Map<String, NumberForm> forms = new LinkedHashMap<>();
    options
        .types()
        .forEach(
            (column, type) -> {
              if (type.kind().numeric() && !type.patterns().isEmpty()) {
                forms.put(column, form(column, type));
              }
            });
    return forms.isEmpty() ? table : new FormedTable(BatchTable.of(table), forms);
  }

  private static NumberForm form(String column, ColumnType type) {
    String example = type.patterns().get(0);
    try {
      return NumberForm.of(example, type.kind() == ColumnType.Kind.INTEGER);
    } catch (IllegalArgumentException e) {
      throw new SettingException(
          "types, "
              + column
              + ": \""
              + example
              + "\" is no example of a number: "
              + e.getMessage());
    }
  }

  @Override
  public @Nullable ColumnType type(String column) {
    ColumnType type = table.type(column);
    return type == null || !forms.containsKey(column) ? type : ColumnType.of(type.kind());
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    return forms.containsKey(column) ? type(column) : table.likely(column);
  }

  @Override
  public List<Stretch> stretches(long bytes) {
    return RangedTable.of(table).stretches(bytes);
  }

  @Override
  public Stretch.Looked look(Stretch stretch) {
    return RangedTable.of(table).look(stretch);
  }

  @Override
  public BatchTable rows(Stretch.Range range) {
    return new FormedTable(RangedTable.of(table).rows(range), forms);
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    List<Column> columns = new ArrayList<>();
    int needed = first;
    for (Map.Entry<String, NumberForm> form : forms.entrySet()) {
      int at = schema().indexOf(form.getKey());
      if (at >= 0) {
        columns.add(new Column(form.getKey(), at, form.getValue()));
        needed = Math.max(needed, at + 1);
      }
    }
    return new FormedPieces(table.pieces(needed, wanted), columns);
  }

  /** A column and its form. */
  private record Column(String name, int at, NumberForm form) {}

  private final class FormedPieces implements Pieces {
    private final Pieces pieces;
    private final List<Column> columns;

    FormedPieces(Pieces pieces, List<Column> columns) {
      this.pieces = pieces;
      this.columns = columns;
    }

    @Override
    public Piece piece() {
      return new FormedPiece(pieces.piece(), columns);
    }

    @Override
    public boolean next(Piece into) {
      return pieces.next(((FormedPiece) into).piece);
    }

    @Override
    public long rows() {
      return pieces.rows();
    }

    @Override
    public long bytesRead() {
      return pieces.bytesRead();
    }

    @Override
    public void close() {
      pieces.close();
    }
  }

  private final class FormedPiece implements Pieces.Piece {
    private final Pieces.Piece piece;
    private final List<Column> columns;
    private final CellVector formed = new CellVector();

    FormedPiece(Pieces.Piece piece, List<Column> columns) {
      this.piece = piece;
      this.columns = columns;
    }

    @Override
    public @Nullable Batch read() {
      Batch batch;
      try {
        batch = piece.read();
      } catch (DataException e) {
        form(piece.batch()); // the rows before the one that could not be read
        throw e;
      }
      if (batch != null) {
        form(batch);
      }
      return batch;
    }

    /** Turns the numbers of a batch; the first that is none ends it, and is told. */
    private void form(Batch batch) {
      DataException wrong = null;
      int rows = batch.rows();
      for (int row = 0; row < rows; row++) {
        batch.complete(row);
      }
      for (Column column : columns) {
        CellVector cells = batch.column(column.at);
        formed.clear();
        for (int row = 0; row < rows; row++) {
          String text = cells.get(row);
          String plain = text == null ? null : column.form.plain(text);
          if (text != null && plain == null && text.chars().anyMatch(Character::isDigit)) {
            rows = row;
            wrong =
                new DataException(
                    name()
                        + " row "
                        + batch.rowNumber(row)
                        + ", column "
                        + column.name
                        + ": \""
                        + text
                        + "\" is not written as "
                        + column.form
                        + ", which its type says; correct it, or state another example");
            break;
          }
          formed.append(plain == null || plain.equals(text) ? null : plain);
        }
        replace(batch, column.at, formed);
      }
      if (wrong != null) {
        batch.pick(IntStream.range(0, rows).toArray(), rows);
        throw wrong;
      }
    }

    /** Puts other text in place of cells of a base column; null leaves a cell as it is. */
    private static void replace(Batch batch, int column, CellVector cells) {
      int at = batch.text().length;
      int more = CellVector.SLACK;
      for (int row = 0; row < cells.rows(); row++) {
        more += cells.ends[row] - cells.starts[row];
      }
      byte[] text = Arrays.copyOf(batch.text(), at + more);
      for (int row = 0; row < cells.rows(); row++) {
        int start = cells.starts[row];
        if (start >= 0) {
          int length = cells.ends[row] - start;
          int base = batch.baseRow(row);
          int cell = base * batch.baseColumns() + column;
          System.arraycopy(cells.text, start, text, at, length);
          batch.cellStarts()[cell] = at;
          batch.cellEnds()[cell] = at + length;
          batch.cellMarks()[cell] = Batch.ALTERED;
          batch.altered(base);
          at += length;
        }
      }
      batch.extended(text);
    }

    @Override
    public Batch batch() {
      return piece.batch();
    }

    @Override
    public void atOnce() {
      piece.atOnce();
    }
  }

  @Override
  public String toString() {
    return "FormedTable[" + table + "]";
  }
}
