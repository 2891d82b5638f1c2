package org.abletwine.formats.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.CsvRecordHandler;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CodingErrorAction;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.DataException;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;

/**
 * Finds the form of a file from its beginning, where it is not stated.
 *
 * <p>Delimiter: of comma, semicolon, tab and pipe, the one that splits most records into the same
 * number of cells, more than one. Quote: the double quote, unless a column is written in single
 * quotes throughout. Header: there is one, unless most cells of the first record are numbers.
 */
final class DialectFinder {
  private static final char[] DELIMITERS = {',', ';', '\t', '|'};
  private static final int RECORDS = 100;

  /** Bytes that the first row may take. */
  static final int MOST_HEAD = 1 << 25;

  private DialectFinder() {}

  /**
   * Finds the form of a source, from as much of its beginning as its first row takes.
   *
   * @throws DataException when the first row does not end within {@link #MOST_HEAD} bytes
   */
  static Dialect find(ByteSource source, TableOptions options) {
    for (int size = ByteSource.HEAD; size <= MOST_HEAD; size *= 4) {
      byte[] head = source.head(size);
      Dialect found = find(head, head.length < size, options);
      if (found != null) {
        return found;
      }
      if (head.length < size) {
        throw new DataException(
            source.name()
                + " line 1: a quote opens in the first row and is not closed; close it, or state"
                + " the quote character of the file");
      }
    }
    throw new DataException(
        source.name()
            + " line 1: the first row does not end within "
            + MOST_HEAD
            + " bytes; check that the file is delimited text, and that each quote is closed");
  }

  /** The form of a source that begins so; null when its first row goes on beyond. */
  private static @Nullable Dialect find(byte[] head, boolean whole, TableOptions options) {
    Encodings encoding = Encodings.find(head, options.encoding());
    String text = decode(head, encoding);
    char quote = options.quote() == null ? '"' : options.quote();
    Character stated = options.delimiter();
    char delimiter = stated == null ? bestDelimiter(text, quote, !whole) : stated;
    if (options.quote() == null && singleQuoted(text, delimiter)) {
      quote = '\'';
    }
    List<List<String>> records = records(text, delimiter, quote, !whole);
    if (records.isEmpty() && !text.isBlank()) {
      return null;
    }
    boolean header = options.header() == null ? looksLikeHeader(records) : options.header();
    List<String> first = records.isEmpty() ? List.of() : records.get(0);
    return new Dialect(encoding, delimiter, quote, header, lineEnd(text), first);
  }

  private static String decode(byte[] head, Encodings encoding) {
    CharBuffer chars = CharBuffer.allocate(head.length + 1);
    ByteBuffer bytes =
        ByteBuffer.wrap(head, encoding.markLength(), head.length - encoding.markLength());
    // Lenient here: the real read names the place of an invalid byte.
    encoding
        .charset()
        .newDecoder()
        .onMalformedInput(CodingErrorAction.REPLACE)
        .onUnmappableCharacter(CodingErrorAction.REPLACE)
        .decode(bytes, chars, false);
    return chars.flip().toString();
  }

  private static String lineEnd(String text) {
    int at = text.indexOf('\n');
    return at > 0 && text.charAt(at - 1) == '\r' ? "\r\n" : "\n";
  }

  private static char bestDelimiter(String text, char quote, boolean cutOff) {
    char best = ',';
    double bestScore = 0;
    for (char candidate : DELIMITERS) {
      if (text.indexOf(candidate) < 0) {
        continue;
      }
      Map<Integer, Integer> counts = new HashMap<>();
      List<List<String>> records = records(text, candidate, quote, cutOff);
      for (List<String> record : records) {
        counts.merge(record.size(), 1, Integer::sum);
      }
      for (Map.Entry<Integer, Integer> count : counts.entrySet()) {
        if (count.getKey() > 1) {
          double score = (double) count.getValue() / records.size() + count.getKey() * 1e-4;
          if (score > bestScore) {
            bestScore = score;
            best = candidate;
          }
        }
      }
    }
    return best;
  }

  /** Records of the text; the last one is left out when it may be cut off. */
  private static List<List<String>> records(
      String text, char delimiter, char quote, boolean cutOff) {
    List<List<String>> records = new ArrayList<>();
    try (CsvReader<CsvRecord> reader =
        CsvReader.builder()
            .fieldSeparator(delimiter)
            .quoteCharacter(quote)
            .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
            .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
            .maxBufferSize(MOST_HEAD)
            .build(
                CsvRecordHandler.of(
                    limits ->
                        limits
                            .maxFields(MOST_HEAD)
                            .maxFieldSize(MOST_HEAD)
                            .maxRecordSize(MOST_HEAD)),
                text)) {
      for (CsvRecord record : reader) {
        records.add(record.getFields());
        if (records.size() == RECORDS) {
          return records;
        }
      }
    } catch (CsvParseException | IOException e) {
      return records; // an unclosed quote: what came before it is evidence enough
    }
    if (cutOff && !records.isEmpty()) {
      records.remove(records.size() - 1);
    }
    return records;
  }

  /**
   * Whether cells open and close with single quotes, at least two of them and none with double.
   * Most texts have few quotes, or none: only those are looked at.
   */
  static boolean singleQuoted(String text, char delimiter) {
    int opened = 0;
    int closed = 0;
    for (int at = text.indexOf('\''); at >= 0; at = text.indexOf('\'', at + 1)) {
      char after = at + 1 == text.length() ? '\n' : text.charAt(at + 1);
      opened += opens(text, at, delimiter) ? 1 : 0;
      closed += after == delimiter || after == '\n' || after == '\r' ? 1 : 0;
    }
    if (opened < 2 || opened != closed) {
      return false;
    }
    int at = text.indexOf('"');
    while (at >= 0 && !opens(text, at, delimiter)) {
      at = text.indexOf('"', at + 1);
    }
    return at < 0;
  }

  /** Whether a cell begins at a place. */
  private static boolean opens(String text, int at, char delimiter) {
    char before = at == 0 ? '\n' : text.charAt(at - 1);
    return before == delimiter || before == '\n';
  }

  private static boolean looksLikeHeader(List<List<String>> records) {
    if (records.isEmpty()) {
      return true;
    }
    List<String> first = records.get(0);
    long numbers =
        first.stream().filter(cell -> cell.strip().matches("[+-]?\\d+([.,]\\d+)?")).count();
    boolean repeated = first.stream().distinct().count() < first.size();
    return numbers * 2 <= first.size() && !(repeated && numbers > 0);
  }
}
