package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CellVectorTest {
  private static List<@Nullable String> cells(CellVector vector) {
    List<@Nullable String> cells = new ArrayList<>();
    for (int row = 0; row < vector.rows(); row++) {
      cells.add(vector.get(row));
    }
    return cells;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void holdsWhatIsAppendedHoweverItIs(long seed) {
    Random random = new Random(seed);
    CellVector vector = new CellVector();
    for (int round = 0; round < 3; round++) {
      List<@Nullable String> expected = new ArrayList<>();
      if (random.nextBoolean()) {
        vector.clear();
      } else {
        vector.clearNarrow();
      }
      for (int row = 0; row < 300; row++) {
        String text = "v" + random.nextInt(1_000_000);
        byte[] latin = text.getBytes(StandardCharsets.ISO_8859_1);
        switch (random.nextInt(seed % 2 == 0 ? 5 : 8)) {
          case 0 -> vector.appendNull();
          case 1 -> vector.append(text);
          case 2 -> vector.append((String) null);
          case 3 -> vector.appendNarrow(latin, 0, latin.length, false);
          case 4 -> {
            int at = vector.claimNarrow(20);
            System.arraycopy(latin, 0, vector.bytes, at, latin.length);
            vector.finishNarrow(at, at + latin.length);
          }
          case 5 -> vector.append(text.toCharArray(), 0, text.length());
          case 6 -> {
            text += "ж";
            vector.append(text);
          }
          default -> {
            byte[] wide = text.getBytes(StandardCharsets.UTF_16BE);
            vector.appendWide(wide, 0, wide.length);
          }
        }
        boolean isNull = vector.isNull(vector.rows() - 1);
        expected.add(isNull ? null : text);
      }
      assertThat(cells(vector)).isEqualTo(expected);
      assertThat(vector.narrow()).as("get turns it into characters").isFalse();
    }
  }

  @Test
  void reasonsFollowTheirRows() {
    CellVector vector = new CellVector();
    vector.clear();
    vector.append("a");
    vector.appendNull();
    vector.because(3);
    vector.append("b");
    vector.appendNull();
    vector.because(3, 5);
    assertThat(vector.reason(0)).isZero();
    assertThat(vector.reason(1)).isEqualTo(3);
    vector.pick(new int[] {3, 1, 1, 0}, 4);
    assertThat(List.of(vector.reason(0), vector.reason(1), vector.reason(2), vector.reason(3)))
        .containsExactly(5, 3, 3, 0);
    vector.clear();
    vector.appendNull();
    assertThat(vector.reason(0)).as("reasons of another batch are forgotten").isZero();
  }

  @Test
  void aViewIsCopiedBeforeItIsChanged() {
    char[] shared = "oatswheat".toCharArray();
    CellVector view = new CellVector();
    view.viewOf(shared, 3);
    int[][] slices = {{0, 4}, {4, 9}, {-1, -1}};
    for (int row = 0; row < 3; row++) {
      view.starts[row] = slices[row][0];
      view.ends[row] = slices[row][1];
    }
    view.takeOwnership();
    view.replace(0, "barley and rye");
    assertThat(cells(view)).containsExactly("barley and rye", "wheat", null);
    assertThat(new String(shared)).isEqualTo("oatswheat");
  }

  @Test
  void cellsOfABatchCanBeReadAsBytesWhereTheyAreAscii() {
    Batch batch = new Batch(2);
    batch.clear(1, ',');
    String line = "oats,12\n" + "Brönn,7\n";
    char[] room = batch.room(line.length());
    line.getChars(0, line.length(), room, 0);
    batch.took(line.length());
    batch.addSlice(0, 4, 0);
    batch.addSlice(5, 7, 0);
    batch.endRow(0);
    batch.addSlice(8, 13, 0);
    batch.addSlice(14, 15, 0);
    batch.endRow(0);
    CellVector names = batch.column(0);
    assertThat(names.inBytes(1)).as("its neighbourhood is not ASCII").isFalse();
    assertThat(cells(names)).containsExactly("oats", "Brönn");
  }

  /** What a reader writes anew, as for a quote that was doubled, is the same in bytes. */
  @Test
  void charactersWrittenAnewAreFollowedByTheirBytes() {
    Batch batch = new Batch(1);
    batch.clear(1, ',');
    String line = "\"a\"\"b\"\n";
    char[] room = batch.room(line.length());
    line.getChars(0, line.length(), room, 0);
    batch.took(line.length());
    room[3] = 'b';
    batch.rewrote(1, 4);
    batch.addSlice(1, 4, Batch.QUOTED | Batch.ALTERED);
    batch.endRow(Batch.QUOTED | Batch.ALTERED);
    CellVector cells = batch.column(0);
    assertThat(cells.inBytes(0)).isTrue();
    assertThat(new String(cells.bytes, cells.starts[0], 3, StandardCharsets.US_ASCII))
        .isEqualTo(cells.get(0))
        .isEqualTo("a\"b");
  }

  /** A computed column that is null to its end was never given a mark for those rows. */
  @Test
  void rowsOfNothingButNullsCanBePicked() {
    CellVector cells = new CellVector();
    cells.clearNarrow();
    for (int row = 0; row < 40; row++) {
      cells.appendNull();
    }
    cells.pick(new int[] {39, 0, 20}, 3);
    assertThat(cells.isNull(0)).isTrue();
    assertThat(cells.get(2)).isNull();
    CellVector some = new CellVector();
    some.clearNarrow();
    some.append("first");
    for (int row = 0; row < 40; row++) {
      some.appendNull();
    }
    some.pick(new int[] {40, 0}, 2);
    assertThat(some.get(0)).isNull();
    assertThat(some.get(1)).isEqualTo("first");
  }
}
