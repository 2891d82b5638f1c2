package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import org.abletwine.MemoryTable;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Several tables as one: rows numbered on, columns matched by name. */
class ManyTablesTest {
  private static final MemoryTable MAY =
      MemoryTable.of("may", "no,kg,bay", "1,10,a", "2,20,b", "3,,a", "4,40,c", "5,50,d");
  private static final MemoryTable JUNE = MemoryTable.of("june", "bay,no,kg", "a,6,60", "e,7,70");
  private static final MemoryTable JULY = MemoryTable.of("july", "no,kg", "8,80", "9,90");

  /** All rows that are given, each its number and its cells. */
  private static List<String> rows(BatchTable table, @Nullable BitSet wanted, boolean whole) {
    List<String> rows = new ArrayList<>();
    int columns = table.schema().size();
    try (Pieces pieces = table.pieces(columns, wanted)) {
      Pieces.Piece piece = pieces.piece();
      if (whole) {
        piece.atOnce();
      }
      while (pieces.next(piece)) {
        for (Batch batch = piece.read(); batch != null; batch = piece.read()) {
          assertThat(batch).isSameAs(piece.batch());
          for (int row = 0; row < batch.rows(); row++) {
            batch.complete(row);
            StringBuilder line = new StringBuilder().append(batch.rowNumber(row));
            for (int column = 0; column < columns; column++) {
              line.append(' ').append(batch.column(column).get(row));
            }
            rows.add(line.toString());
          }
        }
      }
    }
    return rows;
  }

  private static ManyTables many(@Nullable String source, boolean pad, Table... tables) {
    return new ManyTables("season", List.of(tables), source, pad);
  }

  @Test
  void rowsAreNumberedOnAndColumnsMatchedByName() {
    ManyTables both = many(null, false, MAY, JUNE);
    assertThat(both.schema().names()).containsExactly("no", "kg", "bay");
    assertThat(both.name()).isEqualTo("season");
    for (boolean whole : new boolean[] {false, true}) {
      assertThat(rows(both, null, whole))
          .containsExactly(
              "1 1 10 a", "2 2 20 b", "3 3 null a", "4 4 40 c", "5 5 50 d", "6 6 60 a", "7 7 70 e");
    }
    BitSet wanted = new BitSet();
    wanted.set(2);
    wanted.set(5, 7);
    assertThat(rows(both, wanted, false)).containsExactly("2 2 20 b", "5 5 50 d", "6 6 60 a");
  }

  @Test
  void whatATableHasNotIsNullWherePadded() {
    ManyTables all = many("file", true, MAY, JULY, JUNE);
    assertThat(all.schema().names()).containsExactly("no", "kg", "bay", "file");
    assertThat(rows(all, null, false))
        .startsWith("1 1 10 a may")
        .contains("6 8 80 null july", "7 9 90 null july", "8 6 60 a june")
        .hasSize(9);
  }

  @Test
  void columnsThatDifferAndASourceThatIsThereAreErrors() {
    assertThatThrownBy(() -> many(null, false, MAY, JULY).schema())
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith("july has no column \"bay\", which may has; give all files");
    assertThatThrownBy(() -> many(null, false, JULY, MAY).schema())
        .hasMessageStartingWith("may has a column \"bay\", which july has not; give all files");
    assertThatThrownBy(() -> many("kg", true, MAY, JULY).schema())
        .hasMessage("season: there is a column \"kg\" already; name the source otherwise");
  }

  private static OverTable over(MemoryTable table, long size, String... remarks) {
    return new OverTable(table) {
      @Override
      public long sizeInBytes() {
        return size;
      }

      @Override
      public List<String> remarks() {
        return Arrays.asList(remarks);
      }

      @Override
      public boolean isPrivate(String column) {
        return column.equals(table.name());
      }

      @Override
      public Map<String, String> traits() {
        return Map.of("delimiter", table.name());
      }

      @Override
      public @Nullable ColumnType likely(String column) {
        return column.equals("kg") ? ColumnType.of(ColumnType.Kind.INTEGER) : null;
      }
    };
  }

  @Test
  void whatIsSaidOfAllIsWhatTheTablesSay() {
    ManyTables all = many(null, true, over(MAY, 30, "odd", "ends"), over(JUNE, 12, "june too"));
    assertThat(all.sizeInBytes()).isEqualTo(42);
    assertThat(all.remarks()).containsExactly("may: odd", "may: ends", "june: june too");
    assertThat(all.isPrivate("june")).isTrue();
    assertThat(all.isPrivate("july")).isFalse();
    assertThat(all.traits()).isEqualTo(Map.of("delimiter", "may"));
    assertThat(all.likely("kg")).isEqualTo(ColumnType.of(ColumnType.Kind.INTEGER));
    assertThat(all.likely("none")).isNull();
    assertThat(many(null, true, MAY, over(JUNE, 12)).sizeInBytes()).isEqualTo(-1);
    assertThat(all).hasToString("ManyTables[season, 2 tables]");
  }

  @Test
  void aTypeIsThatOfAllTablesThatHaveTheColumn() {
    MemoryTable day = MemoryTable.of("a", "day,n", "1,1").typed("day", ColumnType.Kind.DATE);
    MemoryTable same = MemoryTable.of("b", "day,n", "1,1").typed("day", ColumnType.Kind.DATE);
    MemoryTable other = MemoryTable.of("c", "day", "1").typed("day", ColumnType.Kind.TEXT);
    MemoryTable without = MemoryTable.of("d", "n", "1");
    assertThat(many(null, true, day, same, without).type("day"))
        .isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    assertThat(many(null, true, day, other).type("day")).isNull();
    assertThat(many(null, true, day, without).type("n")).isNull();
    MemoryTable unknown = MemoryTable.of("e", "day", "1");
    assertThat(many(null, true, unknown, day).type("day")).isNull();
    assertThat(many(null, true, day, unknown).type("day")).isNull();
  }

  @Test
  void rangesAreRowsOfTheWholeWithTheirNumbers() {
    ManyTables all = many("file", true, MAY, JULY, JUNE);
    List<Stretch> stretches = all.stretches(1);
    assertThat(stretches)
        .containsExactly(new Stretch(0, 0, -1), new Stretch(1, 0, -1), new Stretch(2, 0, -1));
    List<Stretch.Range> ranges = Stretch.rows(stretches.stream().map(all::look).toList());
    List<String> read = new ArrayList<>();
    for (Stretch.Range range : ranges) {
      BatchTable part = all.rows(range);
      assertThat(part.schema().names()).isEqualTo(all.schema().names());
      read.addAll(rows(part, null, false));
    }
    assertThat(read).isEqualTo(rows(all, null, false));
  }

  @Test
  void rowsBeforeAFailureAreNumberedToo() {
    BatchTable ragged =
        BatchTable.of(
            org.abletwine.table.Tables.of(
                "ragged", List.of("no", "kg"), List.of(List.of("a", "b"), List.of("c"))));
    ManyTables all = many("file", true, JULY, ragged);
    try (Pieces pieces = all.pieces(3, null)) {
      Pieces.Piece piece = pieces.piece();
      assertThatThrownBy(
              () -> {
                while (pieces.next(piece)) {
                  while (piece.read() != null) {
                    assertThat(piece.batch().firstRow()).as("of july").isEqualTo(1);
                  }
                }
              })
          .isInstanceOf(DataException.class)
          .hasMessageContaining("ragged, row 2");
      assertThat(piece.batch().rows()).isEqualTo(1);
      assertThat(piece.batch().rowNumber(0)).as("behind the two of july").isEqualTo(3);
      assertThat(piece.batch().column(2).get(0)).isEqualTo("ragged");
    }
  }

  @Test
  void rowsAndBytesGonePastAreCounted() {
    ManyTables all = many(null, true, MAY, JULY);
    try (Pieces pieces = all.pieces(1, null)) {
      Pieces.Piece piece = pieces.piece();
      assertThat(pieces.rows()).isZero();
      while (pieces.next(piece)) {
        assertThat(pieces.bytesRead()).isZero();
      }
      assertThat(pieces.rows()).isEqualTo(7);
    }
  }
}
