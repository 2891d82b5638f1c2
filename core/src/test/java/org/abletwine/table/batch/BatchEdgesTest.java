package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Rows as a reader fills them, against the lists they were made of; and copies of them. */
class BatchEdgesTest {
  private static final UnseenCells UNSEEN =
      (text, start, end, starts, ends, marks, first) -> {
        int any = 0;
        int cell = first;
        for (int from = start, at = start; at <= end; at++) {
          if (at == end || text[at] == ';') {
            boolean quoted = from < at && text[from] == '"';
            starts[cell] = quoted ? from + 1 : from;
            ends[cell] = quoted ? at - 1 : at;
            marks[cell] = from == at ? Batch.NULL : quoted ? Batch.QUOTED : 0;
            any |= marks[cell++];
            from = at + 1;
          }
        }
        return any;
      };

  /** A row: its cells, and which of them stood in quotes. */
  private record Row(List<String> cells, boolean[] quoted) {
    String raw() {
      List<String> all = new ArrayList<>();
      for (int i = 0; i < quoted.length; i++) {
        all.add(quoted[i] ? '"' + cells.get(i) + '"' : cells.get(i));
      }
      return String.join(";", all);
    }

    @Nullable String value(int column) {
      return cells.get(column).isEmpty() && !quoted[column] ? null : cells.get(column);
    }

    boolean any() {
      boolean any = false;
      for (boolean one : quoted) {
        any |= one;
      }
      return any;
    }
  }

  private static Row row(Random random, int columns) {
    List<String> cells = new ArrayList<>();
    boolean[] quoted = new boolean[columns];
    boolean plain = random.nextBoolean();
    for (int column = 0; column < columns; column++) {
      quoted[column] = !plain && random.nextBoolean();
      cells.add("é".repeat(random.nextInt(3)) + "x".repeat(random.nextInt(40)));
    }
    return new Row(cells, quoted);
  }

  /** Notes a row as a reader does: all cells, or the first few of a plain one. */
  private static void fill(Batch batch, Row row, int noted) {
    byte[] bytes = (row.raw() + "\n").getBytes(StandardCharsets.UTF_8);
    int at = batch.used();
    System.arraycopy(bytes, 0, batch.room(bytes.length), at, bytes.length);
    batch.took(bytes.length);
    int end = at + bytes.length - 1;
    int any = 0;
    int place = batch.beginRow();
    for (int column = 0; column < noted; column++) {
      int length = row.cells().get(column).getBytes(StandardCharsets.UTF_8).length;
      int start = row.quoted()[column] ? at + 1 : at;
      int mark = row.value(column) == null ? Batch.NULL : row.quoted()[column] ? Batch.QUOTED : 0;
      batch.cellStarts()[place + column] = start;
      batch.cellEnds()[place + column] = start + length;
      batch.cellMarks()[place + column] = (byte) mark;
      any |= mark;
      at = start + length + (row.quoted()[column] ? 2 : 1);
    }
    batch.note(noted);
    assertThat(batch.cellsInRow()).isEqualTo(noted);
    if (noted == row.cells().size()) {
      batch.endRow(any);
    } else {
      batch.endPartialRow(any, at, end, UNSEEN);
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void cellsAreThoseThatStoodThere(long seed) {
    Random random = new Random(seed);
    int columns = 1 + random.nextInt(6);
    int noted = 1 + random.nextInt(columns);
    Batch batch = new Batch(columns);
    batch.takeAll();
    for (int round = 0; round < 3; round++) {
      batch.clear(101, ';');
      assertThat(batch.separator()).isEqualTo(';');
      List<Row> rows = new ArrayList<>();
      for (int i = random.nextInt(300); i >= 0; i--) {
        Row row = row(random, columns);
        rows.add(row);
        fill(batch, row, random.nextInt(8) == 0 ? columns : noted);
      }
      if (round > 0) {
        int[] wanted = random.ints(rows.size() + 5, 0, rows.size()).toArray();
        batch.pick(wanted, wanted.length);
        rows = Arrays.stream(wanted).mapToObj(rows::get).toList();
        assertThat(batch.baseRows()).isEqualTo(wanted);
        assertThat(batch.rowNumber(2)).isEqualTo(101 + wanted[2]);
      }
      check(batch, rows, columns);
    }
  }

  private static void check(Batch batch, List<Row> rows, int columns) {
    CellVector one = new CellVector();
    assertThat(batch.rows()).isEqualTo(rows.size());
    for (int at = 0; at < rows.size(); at++) {
      Row row = rows.get(at);
      int base = batch.baseRow(at);
      String raw = text(batch, batch.rawStart(base, 0), batch.rowEnd(base));
      assertThat(raw).isEqualTo(row.raw());
      batch.complete(at);
      assertThat(text(batch, batch.rawStart(base, 0), batch.rowEnd(base))).isEqualTo(row.raw());
      int marks = 0;
      for (int column = 0; column < columns; column++) {
        batch.cell(at, column, one);
        assertThat(one.get(0)).isEqualTo(row.value(column));
        assertThat(text(batch, batch.baseStart(base, column), batch.baseEnd(base, column)))
            .isEqualTo(row.cells().get(column));
        String quote = row.quoted()[column] ? "\"" : "";
        if (row.value(column) != null) {
          assertThat(text(batch, batch.rawStart(base, column), batch.rawEnd(base, column)))
              .isEqualTo(quote + row.cells().get(column) + quote);
        }
        assertThat((batch.baseMark(base, column) & Batch.NULL) != 0)
            .isEqualTo(row.value(column) == null);
        marks |= batch.baseMark(base, column) & Batch.NULL;
      }
      assertThat(batch.rowMark(base) & Batch.NULL).isEqualTo(marks);
    }
    for (int column = 0; column < columns; column++) {
      CellVector view = batch.column(column);
      CellVector copied = new CellVector();
      batch.copySlices(copied, column);
      for (int at = 0; at < rows.size(); at++) {
        assertThat(view.get(at)).isEqualTo(rows.get(at).value(column)).isEqualTo(copied.get(at));
      }
    }
    assertThat(batch.toString()).startsWith("Batch[rows 101 to ").contains(rows.size() + " kept");
  }

  private static String text(Batch batch, int start, int end) {
    return new String(batch.text(), start, end - start, StandardCharsets.UTF_8);
  }

  /** A reader stops at so many rows, or at so much text; one that takes all goes on. */
  @Test
  void aBatchIsFullAtItsBounds() {
    Batch batch = new Batch(1);
    for (int row = 0; row < Batch.ROWS; row++) {
      assertThat(batch.full()).isFalse();
      batch.addCell("x");
      batch.endRow();
    }
    assertThat(batch.full()).isTrue();
    batch.clear(1, ',');
    batch.addCell("x".repeat((1 << 22) - 2));
    batch.endRow();
    assertThat(batch.full()).isFalse();
    batch.addCell("");
    batch.endRow();
    assertThat(batch.full()).as("4 MiB").isTrue();
    batch.takeAll();
    assertThat(batch.full()).isFalse();
    Batch wide = new Batch(1 << 19);
    for (int row = 0; row < 2; row++) {
      assertThat(wide.full()).isFalse();
      for (int column = 0; column < 1 << 19; column++) {
        wide.addCell(null);
      }
      wide.endRow();
    }
    assertThat(wide.full()).as("a million cells").isTrue();
  }

  @Test
  void someRowsOfATableAreCopied() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 1; row <= 100; row++) {
      rows.add(new @Nullable String[] {"" + row, row % 4 == 0 ? null : "v" + row});
    }
    MemoryTable table = new MemoryTable("t", List.of("a", "b"), rows, 7);
    ListSink sink = new ListSink();
    assertThat(RowCopy.copy(table, number -> number % 3 == 0, sink)).isEqualTo(33);
    assertThat(sink.committed()).isTrue();
    assertThat(sink.rows()).hasSize(33);
    assertThat(sink.rows().get(0)).containsExactly("3", "v3");
    assertThat(sink.rows().get(3)).containsExactly("12", null);
    assertThat(sink.rows().get(32)).containsExactly("99", "v99");
    try (Rows all = table.rows()) {
      for (@Nullable String[] row : rows) {
        assertThat(all.next()).containsExactly(row);
      }
      assertThat(all.next()).isNull();
      assertThat(all.next()).as("and again").isNull();
    }
  }

  /** Rows kept for their turn: several batches, some rows of each, other columns each time. */
  @Test
  void rowsAreKeptUntilTheirTurn() {
    List<List<@Nullable String>> written = new ArrayList<>();
    List<Long> numbers = new ArrayList<>();
    BatchSink sink =
        new BatchSink() {
          @Override
          public void start(Table source, Schema columns) {}

          @Override
          public void commit() {}

          @Override
          public void close() {}

          @Override
          public void write(Batch batch, int[] columns) {
            for (int row = 0; row < batch.rows(); row++) {
              List<@Nullable String> cells = new ArrayList<>();
              for (int column : columns) {
                cells.add(batch.column(column).get(row));
              }
              written.add(cells);
              numbers.add(batch.rowNumber(row));
            }
          }
        };
    CopiedRows kept = new CopiedRows(sink);
    kept.flush();
    assertThat(written).isEmpty();
    Batch batch = new Batch(2);
    for (int round = 0; round < 3; round++) {
      batch.clear(10L * round + 1, ',');
      for (int row = 0; row < 5; row++) {
        batch.addCell("r" + round + row);
        batch.addCell(row == 1 ? null : "");
        batch.endRow();
      }
      CellVector added = batch.addColumn();
      for (int row = 0; row < 5; row++) {
        added.append("x" + row);
      }
      kept.add(batch, new int[] {4, 1}, 2, new int[] {2, 0, 1});
      kept.add(batch, null, 2, new int[] {2, 0, 1});
    }
    assertThat(written).as("nothing before its turn").isEmpty();
    kept.flush();
    assertThat(written).hasSize(12);
    assertThat(written.get(0)).containsExactly("x4", "r04", "");
    assertThat(written.get(1)).containsExactly("x1", "r01", null);
    assertThat(written.get(11)).containsExactly("x1", "r21", null);
    assertThat(numbers).startsWith(5L, 2L, 1L, 2L, 15L, 12L, 11L).endsWith(21L, 22L);
    kept.add(batch, new int[] {3}, 1, new int[] {0});
    kept.flush();
    kept.flush();
    assertThat(written).hasSize(13);
    assertThat(written.get(12)).containsExactly("r23");
  }

  @Test
  void numbersAreWrittenOutWithTheirReasons() {
    CellVector numbers = new CellVector();
    int nulls =
        numbers.takeNumbers(
            new boolean[] {true, false, true, false},
            new long[] {-150, 0, 7, 0},
            new byte[] {2, 0, 0, 0},
            4);
    assertThat(nulls).isEqualTo(2);
    numbers.because(1, 40);
    assertThat(numbers.inNumbers()).isTrue();
    assertThat(numbers.get(0)).isEqualTo("-1.50");
    CellVector scratch = new CellVector();
    CellVector text = numbers.asText(scratch);
    assertThat(text).isSameAs(scratch).isNotSameAs(numbers);
    assertThat(text.asText(new CellVector())).as("text already").isSameAs(text);
    assertThat(Arrays.asList(text.get(0), text.get(1), text.get(2), text.get(3)))
        .containsExactly("-1.50", null, "7", null);
    assertThat(text.reason(1)).isEqualTo(40);
    assertThat(text.reason(3)).isZero();
    assertThat(text.needsNoQuotes(0)).isTrue();
    assertThat(text).hasToString("CellVector[4 rows]");
    numbers.takeNumbers(new boolean[40], new long[40], new byte[40], 40);
    assertThat(numbers.reason(1)).as("forgotten").isZero();
    assertThat(numbers.rows()).isEqualTo(40);
  }

  @Test
  void cellsComeWithTheirReasonsAndOrigins() {
    Batch batch = new Batch(1);
    for (int row = 0; row < 40; row++) {
      batch.addCell("b" + row);
      batch.endRow();
    }
    CellVector first = batch.addColumn();
    for (int row = 0; row < 40; row++) {
      if (row % 3 == 0) {
        first.appendNull();
        first.because(100 + row);
      } else if (row % 3 == 1) {
        first.appendAsCame(batch, 0, row);
      } else {
        first.append("own" + row);
      }
    }
    CellVector second = batch.addColumn();
    for (int row = 0; row < 40; row++) {
      second.appendAsCame(batch, 1, row);
    }
    for (int row = 0; row < 40; row++) {
      assertThat(second.get(row)).isEqualTo(first.get(row));
      assertThat(second.reason(row)).isEqualTo(row % 3 == 0 ? 100 + row : 0);
      assertThat(second.cameFrom(row)).isEqualTo(row % 3 == 1 ? 0 : -1);
    }
    batch.pick(new int[] {39, 0, 37, 1}, 4);
    CellVector picked = batch.column(2);
    assertThat(picked.reason(0)).isEqualTo(139);
    assertThat(picked.cameFrom(2)).isZero();
    assertThat(picked.cameFrom(0)).isEqualTo(-1);
    assertThat(picked.get(2)).isEqualTo("b37");
  }

  @Test
  void aViewIsMadeItsOwnWithAllItsBytes() {
    Batch batch = new Batch(1);
    for (int row = 0; row < 30; row++) {
      batch.addCell("x".repeat(row * 7) + row);
      batch.endRow();
    }
    CellVector view = new CellVector();
    batch.copySlices(view, 0);
    byte[] shared = view.text;
    view.takeOwnership();
    byte[] own = view.text;
    assertThat(own).isNotSameAs(shared);
    view.takeOwnership();
    assertThat(view.text).as("once is enough").isSameAs(own);
    for (int row = 0; row < 30; row++) {
      assertThat(view.get(row)).isEqualTo("x".repeat(row * 7) + row);
      assertThat(view.hash(row)).isEqualTo(batch.column(0).hash(row)).isNotZero();
      view.replace(row, "r" + row);
      assertThat(view.get(row)).isEqualTo("r" + row);
    }
    assertThat(batch.column(0).get(29)).endsWith("xx29");
  }
}
