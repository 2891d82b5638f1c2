package org.abletwine.formats.csv;

import java.util.BitSet;
import org.abletwine.table.Batch;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableReader;

/** Reads delimited text into batches: decoded there, and cut into cells where it lies. */
final class CsvTableReader implements TableReader {
  private final Dialect dialect;
  private final Decoding decoding;
  private final RowScanner scanner;
  private boolean sparse;
  private boolean atEnd;

  CsvTableReader(ByteSource source, Dialect dialect, Schema schema, TableOptions options) {
    this.dialect = dialect;
    this.decoding = new Decoding(source, dialect.encoding());
    this.scanner = new RowScanner(source.name(), dialect, schema, options);
  }

  @Override
  public boolean read(Batch into) {
    fill(into);
    return into.rows() > 0;
  }

  @Override
  public boolean read(Batch into, BitSet wanted) {
    sparse = true;
    scanner.only(wanted);
    do {
      fill(into);
    } while (into.rows() == 0 && !atEnd && !scanner.pastLast());
    return into.rows() > 0;
  }

  @Override
  public void noteFirst(int count) {
    scanner.noteFirst(count);
  }

  private void fill(Batch into) {
    into.clear(scanner.nextRow(), dialect.delimiter());
    scanner.begin(into);
    scanner.scan();
    while (!scanner.done() && !atEnd) {
      int unwanted = scanner.unwanted();
      if (unwanted > 0) {
        scanner.passedOver(decoding.passOver(dialect.quote(), unwanted));
        if (scanner.pastLast()) {
          break;
        }
      }
      atEnd = !(sparse ? decoding.decodeLine(into) : decoding.decodeInto(into));
      if (atEnd) {
        scanner.finish();
      } else {
        scanner.scan();
      }
    }
    scanner.end();
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
