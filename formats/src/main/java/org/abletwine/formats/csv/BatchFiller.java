package org.abletwine.formats.csv;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;

/**
 * Called by the parser for every cell; notes where it is in the batch being filled.
 *
 * <p>The reader has decoded the text into the batch and given the parser a copy. Whatever the
 * parser does to its own buffer, it keeps text contiguous and only appends what it is given: so a
 * place in its buffer and the place in the batch differ by a number that changes only when it reads
 * on, and a cell is found in the batch without being copied. What was decoded beyond a batch's last
 * record is carried over to the next.
 */
final class BatchFiller extends CsvCallbackHandler<Boolean> {
  private final ByteSource source;
  private final Schema schema;
  private final int columns;
  private final boolean pad;
  private final char quote;
  private final NullWords nulls;

  private Batch batch = new Batch(0);
  private int shift;
  private char[] rest = new char[0];
  private int restLength;
  private int recordEnd;
  private boolean skipping;
  private @Nullable List<List<String>> collected;
  private long line;
  private int fields;
  private int rowMark;
  private int lineBreaks;
  private boolean emptyLine;

  BatchFiller(ByteSource source, Schema schema, TableOptions options, char quote) {
    this.quote = quote;
    this.source = source;
    this.schema = schema;
    this.columns = schema.size();
    this.pad = options.pad();
    this.nulls = new NullWords(options.nulls());
  }

  /**
   * A filler that collects records as text, for looking at the beginning of a file. It is of the
   * same class so that the parser's calls have one target only, which lets the compiler inline
   * them.
   */
  static BatchFiller collecting(ByteSource source, List<List<String>> records) {
    BatchFiller filler = new BatchFiller(source, new Schema(List.of()), TableOptions.NONE, '"');
    filler.skipping = true;
    filler.collected = records;
    return filler;
  }

  /** Passes over the next record: the header. */
  void skipRecord() {
    skipping = true;
  }

  /** Ends the passing over. */
  void readRecords() {
    skipping = false;
  }

  /** Begins a batch with the text carried over from the one before. */
  void fill(Batch target) {
    batch = target;
    System.arraycopy(rest, 0, target.room(restLength), 0, restLength);
    target.advance(restLength);
    shift -= recordEnd;
    recordEnd = 0;
  }

  /** Keeps the text after the batch's last record, before the batch is handed on. */
  void keepRest() {
    int used = batch.used();
    restLength = used - recordEnd;
    if (rest.length < restLength) {
      rest = new char[restLength];
    }
    System.arraycopy(batch.room(0), recordEnd, rest, 0, restLength);
  }

  Batch batch() {
    return batch;
  }

  /**
   * The parser has read on.
   *
   * @param newShift what to add to a place in its buffer to get the place in the batch
   */
  void textIsAt(int newShift) {
    shift = newShift;
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
      passOver(buffer, offset, length);
      return;
    }
    int start = offset + shift;
    int mark = 0;
    if (quoted) {
      mark = quotedMark(buffer, offset, length, start);
    } else if (length == 0 || nulls.mayHold(length) && nulls.hold(buffer, offset, length)) {
      mark = Batch.NULL;
    }
    if (fields < columns) {
      rowMark |= mark;
      batch.addSlice(start, start + length, mark);
    } else if (!pad || length > 0) {
      batch.abandonRow();
      throw tooLong();
    }
    recordEnd = start + length;
    fields++;
  }

  private void passOver(char[] buffer, int offset, int length) {
    recordEnd = offset + shift + length;
    List<List<String>> records = collected;
    if (records != null) {
      if (fields == 0) {
        records.add(new ArrayList<>());
      }
      records.get(records.size() - 1).add(new String(buffer, offset, length));
    }
    fields++;
  }

  /** A cell with quotes inside was unescaped in the parser's buffer: take that text over. */
  private int quotedMark(char[] buffer, int offset, int length, int start) {
    countLineBreaks(buffer, offset, length);
    char[] text = batch.room(0);
    int close = start + length;
    boolean asItStood =
        text[close] == quote
            && (close + 1 == batch.used() || text[close + 1] != quote)
            && Arrays.equals(text, start, close, buffer, offset, offset + length);
    if (asItStood) {
      return Batch.QUOTED;
    }
    System.arraycopy(buffer, offset, text, start, length);
    return Batch.QUOTED | Batch.ALTERED;
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
    rowMark |= Batch.NULL | Batch.ALTERED;
    while (fields++ < columns) {
      batch.addSlice(recordEnd, recordEnd, Batch.NULL | Batch.ALTERED);
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
