package org.abletwine.formats.csv;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;

/** Called by the parser for every cell; copies it into the batch being filled. */
final class BatchFiller extends CsvCallbackHandler<Boolean> {
  private final ByteSource source;
  private final Schema schema;
  private final int columns;
  private final boolean pad;
  private final NullWords nulls;

  private Batch batch = new Batch(0);
  private boolean skipping;
  private long line;
  private int fields;
  private byte rowMark;
  private int lineBreaks;
  private boolean emptyLine;

  BatchFiller(ByteSource source, Schema schema, TableOptions options) {
    this.source = source;
    this.schema = schema;
    this.columns = schema.size();
    this.pad = options.pad();
    this.nulls = new NullWords(options.nulls());
  }

  /** Passes over the next record: the header. */
  void skipRecord() {
    skipping = true;
  }

  void fill(Batch target) {
    batch = target;
    skipping = false;
  }

  /** Where the cell being read begins, for messages. */
  String place() {
    String where = source.name() + " line " + (line + lineBreaks);
    return fields < columns ? where + ", column \"" + schema.names().get(fields) + "\"" : where;
  }

  @Override
  protected RecordType getRecordType() {
    return emptyLine ? RecordType.EMPTY : RecordType.DATA;
  }

  @Override
  protected int getFieldCount() {
    return fields;
  }

  @Override
  protected void beginRecord(long startingLineNumber) {
    line = startingLineNumber;
    fields = 0;
    rowMark = 0;
    lineBreaks = 0;
    emptyLine = false;
  }

  @Override
  protected void addField(char[] buffer, int offset, int length, boolean quoted) {
    if (skipping) {
      fields++;
      return;
    }
    byte mark = 0;
    if (quoted) {
      mark = Batch.QUOTED;
      countLineBreaks(buffer, offset, length);
    } else if (length == 0 || nulls.mayHold(length) && nulls.hold(buffer, offset, length)) {
      mark = Batch.NULL;
    }
    if (fields < columns) {
      rowMark |= mark;
      batch.addCell(buffer, offset, length, mark);
    } else if (!pad || length > 0) {
      batch.abandonRow();
      throw tooLong();
    }
    fields++;
  }

  private void countLineBreaks(char[] buffer, int offset, int length) {
    for (int i = offset; i < offset + length; i++) {
      if (buffer[i] == '\n') {
        lineBreaks++;
      }
    }
  }

  @Override
  protected void setComment(char[] buffer, int offset, int length) {
    throw new IllegalStateException("comments are not asked for");
  }

  @Override
  protected void setEmpty() {
    emptyLine = true;
  }

  @Override
  protected Boolean buildRecord() {
    if (skipping) {
      return Boolean.TRUE;
    }
    if (emptyLine && columns > 1) {
      return Boolean.FALSE;
    }
    if (fields < columns) {
      padRow();
    }
    batch.endRow(rowMark);
    return Boolean.TRUE;
  }

  private void padRow() {
    if (!pad && !emptyLine) {
      int found = fields;
      batch.abandonRow();
      throw new DataException(
          source.name()
              + " line "
              + line
              + ": "
              + cells(found)
              + " where the header has "
              + columns
              + "; correct the line, or state ragged: pad to fill it up with nulls");
    }
    rowMark |= Batch.NULL;
    while (fields++ < columns) {
      batch.addCell(new char[0], 0, 0, Batch.NULL);
    }
  }

  private DataException tooLong() {
    return new DataException(
        source.name()
            + " line "
            + line
            + ": more cells than the "
            + columns
            + " of the header"
            + "; a cell that holds the delimiter must stand in quotes");
  }

  private static String cells(int count) {
    return count == 1 ? "1 cell" : count + " cells";
  }
}
