package org.abletwine.formats.csv;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableReader;

/** Reads delimited text into batches, through the parser's callbacks: no string per cell. */
final class CsvTableReader implements TableReader {
  private final ByteSource source;
  private final Dialect dialect;
  private final DecodingReader text;
  private final BatchFiller filler;
  private final CsvReader<Boolean> parser;
  private final CloseableIterator<Boolean> records;
  private long rowsRead;
  private boolean headerDone;

  CsvTableReader(ByteSource source, Dialect dialect, Schema schema, TableOptions options) {
    this.source = source;
    this.dialect = dialect;
    this.filler = new BatchFiller(source, schema, options, dialect.quote());
    this.text = new DecodingReader(source, dialect.encoding(), filler);
    this.parser =
        CsvReader.builder()
            .fieldSeparator(dialect.delimiter())
            .quoteCharacter(dialect.quote())
            .allowUnclosedQuote(false)
            .skipEmptyLines(schema.size() > 1)
            .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
            .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
            .build(filler, text);
    this.records = parser.iterator();
    this.headerDone = !dialect.header();
  }

  @Override
  public boolean read(Batch into) {
    into.clear(rowsRead + 1, dialect.delimiter());
    try {
      filler.fill(into);
      if (!headerDone) {
        headerDone = true;
        filler.skipRecord();
        if (!records.hasNext()) {
          return false;
        }
        records.next();
        filler.readRecords();
      }
      while (!into.full() && records.hasNext()) {
        records.next();
      }
    } catch (CsvParseException e) {
      throw malformed(e);
    } catch (UncheckedIOException e) {
      throw new DataException("cannot read " + source.name() + ": " + e.getCause().getMessage(), e);
    }
    filler.keepRest();
    rowsRead += into.rows();
    return into.rows() > 0;
  }

  private DataException malformed(CsvParseException e) {
    Throwable cause = e;
    while (cause != null) {
      if (cause instanceof DataException known) {
        return known;
      }
      cause = cause.getCause();
    }
    String place = filler.place();
    String message = String.valueOf(e.getMessage());
    if (message.contains("after closing quote")) {
      return new DataException(
          place + ": text follows a closing quote; write a quote inside a quoted cell twice", e);
    }
    return new DataException(
        place
            + ": the quote that opens here is not closed; close it, or write it twice if it"
            + " belongs to the text",
        e);
  }

  @Override
  public long bytesRead() {
    return text.bytesRead();
  }

  @Override
  public void close() {
    try {
      parser.close();
    } catch (IOException e) {
      // reading is over; nothing depends on the close
    }
  }
}
