package org.abletwine.formats.csv;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.abletwine.formats.packed.PackedFile;
import org.abletwine.formats.packed.Packing;
import org.abletwine.table.ColumnType;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/**
 * Writes delimited text in UTF-8, with the delimiter and line end of the source. A cell that came
 * in quotes leaves in quotes, one that came without leaves without; a fetched value is quoted when
 * it holds the delimiter, a quote or a line break. Null is written as nothing, empty text as two
 * quotes.
 */
final class CsvSink implements BatchSink {
  private static final byte[] NOTHING = {};

  private final Path target;
  private final OutputOptions options;
  private @Nullable Recoding recoding;
  private @Nullable PackedFile file;
  private RowEncoder encoder = new RowEncoder(',', '"', "\n", null);
  private char delimiter = ',';
  private char quote = '"';
  private String lineEnd = "\n";
  private List<@Nullable ColumnType> types = List.of();
  private boolean sameDelimiter;
  private Section section = Section.WHOLE;
  private @Nullable NumberForm @Nullable [] forms;

  CsvSink(Path target, OutputOptions options) {
    this.target = target;
    this.options = options;
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = new ArrayList<>(columns);
  }

  @Override
  public byte[] section(Section only) {
    section = only;
    return NOTHING;
  }

  /** The form of the columns that are known to hold numbers with decimal places. */
  private @Nullable NumberForm @Nullable [] forms(int columns) {
    String example = options.decimal();
    if (example == null) {
      return null;
    }
    NumberForm form = NumberForm.of(example, false);
    @Nullable NumberForm[] of = new NumberForm[columns];
    for (int i = 0; i < Math.min(columns, types.size()); i++) {
      ColumnType type = types.get(i);
      of[i] = type != null && type.kind() == ColumnType.Kind.NUMBER ? form : null;
    }
    return of;
  }

  @Override
  public void start(Table source, Schema columns) {
    Map<String, String> traits = source.traits();
    boolean tabs = Packing.inner(target).toLowerCase(Locale.ROOT).endsWith(".tsv");
    Character stated = options.delimiter();
    delimiter =
        stated != null ? stated : tabs ? '\t' : traits.getOrDefault("delimiter", ",").charAt(0);
    sameDelimiter = traits.getOrDefault("delimiter", "").equals(String.valueOf(delimiter));
    quote = traits.getOrDefault("quote", "\"").charAt(0);
    String end = options.lineEnd();
    lineEnd = end == null ? traits.getOrDefault("line-end", "\n") : end;
    encoder = new RowEncoder(delimiter, quote, lineEnd, null);
    forms = forms(columns.size());
    String encoding = options.encoding();
    Charset charset = encoding == null ? StandardCharsets.UTF_8 : Encodings.named(encoding);
    Boolean mark = options.mark();
    boolean marked = mark == null ? encoding == null && traits.containsKey("mark") : mark;
    recoding =
        charset.equals(StandardCharsets.UTF_8)
            ? null
            : new Recoding(target, charset, options.unknown(), delimiter, quote, columns);
    file = new PackedFile(target);
    if (marked && section.begins()) {
      byte[] first = Encodings.mark(charset);
      file.write(first, first.length);
    }
    if (section.begins()) {
      writeHeader(columns);
    }
    encoder = new RowEncoder(delimiter, quote, lineEnd, forms);
  }

  private void writeHeader(Schema columns) {
    Batch none = new Batch(0);
    none.endRow();
    int[] numbers = new int[columns.size()];
    for (int i = 0; i < numbers.length; i++) {
      CellVector cell = none.addColumn();
      cell.append(columns.names().get(i));
      numbers[i] = i;
    }
    write(none, numbers);
  }

  @Override
  public Encoder encoder() {
    return new CsvEncoder(new RowEncoder(delimiter, quote, lineEnd, forms), this::put);
  }

  @Override
  public boolean copiesText() {
    return sameDelimiter && options.decimal() == null;
  }

  /** One worker's part: its rows as bytes. */
  private record CsvEncoder(RowEncoder rows, RowEncoder.Target target) implements Encoder {
    @Override
    public void add(Batch batch, int @Nullable [] which, int count, int[] columns) {
      rows.add(batch, which, count, columns);
    }

    @Override
    public void flush() {
      rows.take(target);
    }
  }

  @Override
  public void write(Batch batch, int[] columns) {
    encoder.encode(batch, columns, this::put);
  }

  private void put(byte[] bytes, int length) {
    Recoding other = recoding;
    byte[] written = other == null ? bytes : other.of(bytes, length);
    Objects.requireNonNull(file).write(written, other == null ? length : written.length);
  }

  @Override
  public void complete() {
    if (file != null) {
      file.complete();
    }
  }

  @Override
  public @Nullable Path target() {
    return file == null ? null : file.target();
  }

  @Override
  public @Nullable Path beside() {
    return file == null ? null : file.beside();
  }

  @Override
  public void commit() {
    if (file != null) {
      file.commit();
    }
  }

  @Override
  public String form() {
    String name =
        switch (delimiter) {
          case ',' -> "comma";
          case ';' -> "semicolon";
          case '\t' -> "tab";
          case '|' -> "pipe";
          default -> "'" + delimiter + "'";
        };
    return name
        + ", "
        + (lineEnd.equals("\n") ? "LF" : "CRLF")
        + ", "
        + (recoding == null ? "UTF-8" : recoding)
        + ", quotes as they came and where needed"
        + (options.decimal() == null ? "" : ", decimals as " + options.decimal());
  }

  @Override
  public long bytesWritten() {
    return file == null ? 0 : file.size();
  }

  @Override
  public void close() {
    if (file != null) {
      file.close();
    }
  }
}
