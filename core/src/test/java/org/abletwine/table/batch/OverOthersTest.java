package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.abletwine.MemoryTable;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Tables and sinks that stand for another say what that one says. */
class OverOthersTest {

  /** A table of one's own that says something of everything. */
  private static final class Own implements Table {
    private int again;
    private int closed;

    @Override
    public String name() {
      return "own";
    }

    @Override
    public Schema schema() {
      return new Schema(List.of("no", "kg"));
    }

    @Override
    public void readAgain() {
      again++;
    }

    @Override
    public long sizeInBytes() {
      return 77;
    }

    @Override
    public @Nullable ColumnType type(String column) {
      return column.equals("kg")
          ? new ColumnType(ColumnType.Kind.NUMBER, List.of("1.234,56"))
          : column.equals("no") ? ColumnType.of(ColumnType.Kind.INTEGER) : null;
    }

    @Override
    public boolean isPrivate(String column) {
      return column.equals("no");
    }

    @Override
    public List<String> remarks() {
      return List.of("odd");
    }

    @Override
    public Map<String, String> traits() {
      return Map.of("delimiter", "pipe");
    }

    @Override
    public Rows rows() {
      Iterator<List<String>> left =
          List.of(
                  List.of("1", "1.234,5"),
                  List.of("2", "none"),
                  List.of("3", "12.34"),
                  List.of("4"))
              .iterator();
      return new Rows() {
        @Override
        public @Nullable List<@Nullable String> next() {
          return left.hasNext() ? List.copyOf(left.next()) : null;
        }

        @Override
        public void close() {
          closed++;
        }
      };
    }
  }

  private static TableOptions typed(String example) {
    return TableOptions.builder()
        .types(Map.of("kg", new ColumnType(ColumnType.Kind.NUMBER, List.of(example))))
        .build();
  }

  @Test
  void whatIsSaidOfATableIsSaidOfTheOneThatStandsForIt() {
    Own own = new Own();
    BatchTable batches = BatchTable.of(own);
    Table formed = FormedTable.of(own, typed("1.234,56"));
    Table whole = RangedTable.of(own);
    for (Table table : List.of(batches, formed, whole)) {
      assertThat(table.name()).isEqualTo("own");
      assertThat(table.schema().names()).containsExactly("no", "kg");
      assertThat(table.sizeInBytes()).isEqualTo(77);
      assertThat(table.isPrivate("no")).isTrue();
      assertThat(table.isPrivate("kg")).isFalse();
      assertThat(table.remarks()).containsExactly("odd");
      assertThat(table.traits()).containsEntry("delimiter", "pipe");
      assertThat(table.type("no")).isEqualTo(ColumnType.of(ColumnType.Kind.INTEGER));
      assertThat(table.type("none")).isNull();
      assertThat(((BatchTable) table).likely("no")).isEqualTo(table.type("no"));
      assertThat(((BatchTable) table).likely("kg")).isEqualTo(table.type("kg"));
      table.readAgain();
    }
    assertThat(own.again).isEqualTo(3);
    assertThat(whole.type("kg")).isEqualTo(own.type("kg"));
    assertThat(formed.type("kg"))
        .as("numbers of a form of their own are numbers from here on")
        .isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(formed.toString()).startsWith("FormedTable[");
    assertThat(whole.toString()).startsWith("WholeTable[");
    assertThat(RangedTable.of(whole)).isSameAs(whole);
    assertThat(BatchTable.of(batches)).isSameAs(batches);
  }

  @Test
  void aFormThatIsNoneIsRefusedAndNothingSaidChangesNothing() {
    Own own = new Own();
    assertThat(FormedTable.of(own, TableOptions.builder().build())).isSameAs(own);
    assertThatThrownBy(() -> FormedTable.of(own, typed("1.234")))
        .isInstanceOf(SettingException.class)
        .hasMessageStartingWith("types, kg: \"1.234\" is no example of a number: it does not tell");
  }

  /** The rows before a failure, and what the failure says. */
  private static List<String> read(BatchTable table) {
    return read(table, null);
  }

  private static List<String> read(BatchTable table, @Nullable BitSet wanted) {
    List<String> rows = new ArrayList<>();
    try (Pieces pieces = table.pieces(1, wanted)) {
      Pieces.Piece piece = pieces.piece();
      piece.atOnce();
      while (pieces.next(piece)) {
        try {
          take(piece.read(), rows);
        } catch (DataException e) {
          take(piece.batch(), rows);
          rows.add(e.getMessage());
          return rows;
        }
      }
    }
    return rows;
  }

  private static void take(@Nullable Batch batch, List<String> rows) {
    for (int row = 0; batch != null && row < batch.rows(); row++) {
      rows.add(batch.column(0).get(row) + " " + batch.column(1).get(row));
    }
  }

  @Test
  void rowsBeforeOneThatCannotBeReadAreFormedToo() {
    Own own = new Own();
    String ragged =
        "own, row 4: 1 cells, but there are 2 columns; give one cell for each, null where there is"
            + " no value";
    assertThat(read(BatchTable.of(own))).containsExactly("1 1.234,5", "2 none", "3 12.34", ragged);
    BitSet second = new BitSet();
    second.set(2);
    assertThat(read(BatchTable.of(new Own()), second)).containsExactly("2 none", ragged);
    assertThat(read(BatchTable.of(new Own()), new BitSet())).containsExactly(ragged);
    assertThat(own.closed).isEqualTo(1);
    assertThat(read((BatchTable) FormedTable.of(own, typed("1.234,56"))))
        .containsExactly(
            "1 1234.5",
            "2 none",
            "own row 3, column kg: \"12.34\" is not written as 1.234,56, which its type says;"
                + " correct it, or state another example");
    assertThat(read((BatchTable) FormedTable.of(own, typed("12,345.67"))))
        .as("of two failures that of the first row")
        .containsExactly(
            "own row 1, column kg: \"1.234,5\" is not written as 12,345.67, which its type says;"
                + " correct it, or state another example");
    assertThat(own.closed).isEqualTo(3);
  }

  @Test
  void formedRowsAreReadInStretchesToo() {
    MemoryTable plain = MemoryTable.of("t", "no,kg", "1,5.5", "2,1.5");
    RangedTable formed =
        RangedTable.of(
            FormedTable.of(
                plain,
                TableOptions.builder()
                    .types(Map.of("no", new ColumnType(ColumnType.Kind.INTEGER, List.of("1'234"))))
                    .build()));
    List<Stretch> stretches = formed.stretches(1);
    assertThat(stretches).containsExactly(new Stretch(0, 0, -1));
    Stretch.Looked looked = formed.look(stretches.get(0));
    assertThat(looked.open()).isEqualTo(new Stretch.Held(0, 0, 0, 2, 0, false));
    assertThat(read(formed.rows(Stretch.rows(List.of(looked)).get(0))))
        .containsExactly("1 5.5", "2 1.5");
    try (Pieces pieces = formed.pieces(1, null)) {
      Pieces.Piece piece = pieces.piece();
      while (pieces.next(piece)) {
        assertThat(piece.read()).isSameAs(piece.batch());
      }
      assertThat(pieces.rows()).isEqualTo(2);
    }
  }

  @Test
  void aSinkOfOnesOwnIsGivenRows() {
    List<String> taken = new ArrayList<>();
    TableSink own =
        new TableSink() {
          @Override
          public void start(Table table, Schema schema) {
            taken.add("start " + table.name() + " " + schema.names());
          }

          @Override
          public void write(List<@Nullable String> row) {
            taken.add("" + row);
          }

          @Override
          public void commit() {
            taken.add("commit");
          }

          @Override
          public void close() {
            taken.add("close");
          }
        };
    BatchSink sink = BatchSink.of(own);
    sink.start(new Own(), new Schema(List.of("b", "a")));
    Batch batch = new Batch(2);
    batch.clear(1, ',');
    for (int row = 0; row < 3; row++) {
      batch.addCell("a" + row);
      batch.addCell(row == 1 ? null : "b" + row);
      batch.endRow();
    }
    BatchSink.Encoder encoder = sink.encoder();
    encoder.add(batch, null, 3, new int[] {1, 0});
    encoder.add(batch, new int[] {2, 0}, 2, new int[] {1, 0});
    assertThat(taken).as("nothing is written yet").hasSize(1);
    encoder.flush();
    encoder.flush();
    sink.write(List.of("x", "y"));
    sink.write(batch, new int[] {0, 0});
    sink.commit();
    sink.close();
    assertThat(taken)
        .containsExactly(
            "start own [b, a]",
            "[b0, a0]",
            "[null, a1]",
            "[b2, a2]",
            "[b2, a2]",
            "[b0, a0]",
            "[x, y]",
            "[a0, a0]",
            "[a1, a1]",
            "[a2, a2]",
            "commit",
            "close");
    assertThat(sink.copiesText()).isFalse();
    assertThat(sink.looksOnlyAtColumns()).isFalse();
    assertThat(sink.bytesWritten()).isZero();
    assertThat(sink.takesRowsBeforeAFailure()).isFalse();
    assertThat(BatchSink.of(sink)).isSameAs(sink);
  }

  @Test
  void whatASectionHoldsOfTheWhole() {
    for (BatchSink.Section section : BatchSink.Section.values()) {
      assertThat(section.begins())
          .isEqualTo(section == BatchSink.Section.WHOLE || section == BatchSink.Section.HEAD);
      assertThat(section.ends())
          .isEqualTo(section == BatchSink.Section.WHOLE || section == BatchSink.Section.TAIL);
    }
  }
}
