package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.jspecify.annotations.Nullable;

/** A sheet of a workbook as a table. Its head is read once, on first need. */
final class SheetTable implements BatchTable {
  private final ByteSource source;
  private final TableOptions options;
  private @Nullable SheetHead head;
  private @Nullable Schema schema;
  private List<String> remarks = List.of();
  private boolean isOds;

  /** Open since the head was read, for the first that reads the rows. */
  private @Nullable Workbook open;

  SheetTable(ByteSource source, TableOptions options) {
    this.source = source;
    this.options = options;
    source.readAgain();
  }

  @Override
  public String name() {
    TableOptions.Sheet part = options.sheet();
    String sheet = part == null ? null : part.sheet();
    return source.shortName() + (sheet == null ? "" : " sheet " + sheet);
  }

  private synchronized Workbook book() {
    Archive archive = new Archive(source.name(), source.archive());
    try {
      isOds = OdsBook.is(archive);
      if (isOds) {
        return new OdsBook(archive);
      }
      if (XlsxBook.is(archive)) {
        return new XlsxBook(archive);
      }
      throw new DataException(
          source.name()
              + " is an archive, but no workbook; if it holds a table, give it the ending .zip");
    } catch (RuntimeException e) {
      archive.close();
      throw e;
    }
  }

  private synchronized SheetHead head() {
    SheetHead known = head;
    if (known == null) {
      Workbook book = book();
      try {
        known = new SheetHeadFinder(book, source.shortName(), options).find();
      } catch (RuntimeException e) {
        book.close();
        throw e;
      }
      head = known;
      open = book;
    }
    return known;
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = new Schema(head().names());
      schema = known;
    }
    return known;
  }

  /** Whether any column is private, so that cells of no column are not shown either. */
  boolean hidesAny() {
    return !options.hidden().isEmpty();
  }

  @Override
  public boolean isPrivate(String column) {
    return options.hidden().contains(column);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return options.types().get(column);
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    ColumnType stated = type(column);
    int at = schema().indexOf(column);
    return stated != null || at < 0 ? stated : head().likely().get(at);
  }

  @Override
  public synchronized List<String> remarks() {
    return remarks;
  }

  /** Called once the sheet was read to its end. */
  synchronized void readWhole(List<String> found) {
    List<String> all = new ArrayList<>(found);
    boolean ods = source.name().toLowerCase(Locale.ROOT).endsWith(".ods");
    if (ods != isOds) {
      all.add(0, "it is an " + (isOds ? ".ods" : ".xlsx") + " file, whatever its ending says");
    }
    remarks = List.copyOf(all);
  }

  @Override
  public long sizeInBytes() {
    return source.size();
  }

  @Override
  public synchronized Pieces pieces(int first, @Nullable BitSet wanted) {
    SheetHead known = head();
    Workbook book = open == null ? book() : open;
    open = null;
    return new BatchPieces(
        new SheetReader(this, book, known, Set.copyOf(options.nulls())), known.columns(), wanted);
  }

  @Override
  public String toString() {
    return "SheetTable[" + name() + "]";
  }
}
