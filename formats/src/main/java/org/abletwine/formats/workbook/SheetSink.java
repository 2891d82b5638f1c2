package org.abletwine.formats.workbook;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/** Writes a sheet of a workbook; other sinks may write others of the same file. */
final class SheetSink implements BatchSink {
  private final BookFile book;
  private final BookFile.SheetPart sheet;
  private List<@Nullable ColumnType> types = List.of();
  private List<String> names = List.of();
  private long rows;
  private final boolean stated;
  private boolean begun;
  private int[] styles = {};

  /**
   * @param target the file
   * @param name the sheet's name; null for one that is found
   * @param beside a sink that writes another sheet of the file; null for none
   */
  SheetSink(Path target, @Nullable String name, @Nullable SheetSink beside) {
    book = beside == null ? new BookFile(target) : beside.book;
    sheet = book.sheet(name);
    stated = name != null;
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = new ArrayList<>(columns);
  }

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
    if (names.size() > CellArea.MOST_COLUMNS) {
      throw new DataException(
          book
              + ": "
              + names.size()
              + " columns; a sheet holds "
              + CellArea.MOST_COLUMNS
              + ": write .csv, or fewer with drop-columns");
    }
    book.begin(sheet, names);
    @Nullable NumberForm[] forms = SheetEncoder.forms(names.size(), types);
    styles = new int[forms.length];
    for (int i = 0; i < forms.length; i++) {
      styles[i] = forms[i] == null ? 0 : book.form(forms[i]);
    }
  }

  private SheetEncoder fresh() {
    return book.ods()
        ? new OdsEncoder(names, types, styles)
        : new XlsxEncoder(names, types, styles);
  }

  @Override
  public Encoder encoder() {
    SheetEncoder own = fresh();
    return new Encoder() {
      @Override
      public void add(Batch batch, int @Nullable [] which, int count, int[] columns) {
        try {
          own.add(batch, which, count, columns);
        } catch (DataException e) {
          throw new DataException(book + " " + e.getMessage(), e);
        }
      }

      @Override
      public void flush() {
        take(own);
      }
    };
  }

  @Override
  public void write(Batch batch, int[] columns) {
    Encoder all = encoder();
    all.add(batch, null, batch.rows(), columns);
    all.flush();
  }

  private void take(SheetEncoder encoder) {
    rows += encoder.rows();
    if (rows >= CellArea.MOST_ROWS) {
      throw new DataException(
          book
              + ": more than "
              + (CellArea.MOST_ROWS - 1)
              + " rows, which a sheet does not hold; write .csv, or several files");
    }
    if (encoder.length() > 0) {
      head(encoder.widths());
    }
    book.write(sheet, encoder.bytes(), encoder.length());
    encoder.clear();
  }

  /** Writes the head, whose columns are as wide as the first rows need. */
  private void head(int[] widths) {
    if (!begun) {
      begun = true;
      book.head(sheet, widths);
      SheetEncoder head = fresh();
      head.header(names);
      book.write(sheet, head.bytes(), head.length());
    }
  }

  @Override
  public void complete() {
    if (!names.isEmpty()) {
      head(new int[names.size()]);
    }
    book.complete(sheet, rows);
  }

  @Override
  public void commit() {
    complete();
    book.commit(sheet);
  }

  @Override
  public @Nullable Path target() {
    return book.first(sheet) ? book.target() : null;
  }

  @Override
  public @Nullable Path beside() {
    return book.beside();
  }

  @Override
  public String form() {
    long as =
        types.stream()
            .filter(Objects::nonNull)
            .filter(type -> type.kind() != ColumnType.Kind.TEXT || !type.patterns().isEmpty())
            .count();
    return (stated ? "" : "sheet " + sheet.name() + ", ")
        + (as == 0
            ? "every value as text: no column is known to hold anything else"
            : as
                + (as == 1 ? " column" : " columns")
                + " of numbers, days or times, all else as text");
  }

  @Override
  public long bytesWritten() {
    return book.size();
  }

  @Override
  public void close() {
    book.close(sheet);
  }
}
