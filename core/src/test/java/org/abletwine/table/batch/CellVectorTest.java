package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Utf8;
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
      vector.clear();
      for (int row = 0; row < 300; row++) {
        String text = (random.nextBoolean() ? "v" : "ж\uD83C\uDF3E") + random.nextInt(1_000_000);
        byte[] bytes = Utf8.bytes(text);
        switch (random.nextInt(7)) {
          case 0 -> vector.appendNull();
          case 1 -> vector.append(text);
          case 2 -> vector.append((String) null);
          case 3 -> vector.append(bytes, 0, bytes.length, true);
          case 4 -> {
            int at = vector.room(20);
            System.arraycopy(bytes, 0, vector.text, at, bytes.length);
            vector.took(at, at + bytes.length);
          }
          case 5 -> vector.append(bytes, 0, bytes.length);
          default -> {
            CellVector other = OneRow.of("x", text).column(1);
            vector.append(other, 0);
          }
        }
        boolean isNull = vector.isNull(row);
        expected.add(isNull ? null : text);
        assertThat(vector.isBlank(row)).isEqualTo(isNull);
        CellVector same = OneRow.of(text, text + "1").column(0);
        assertThat(vector.equal(row, same, 0)).isEqualTo(!isNull);
        assertThat(vector.equal(row, OneRow.of(text + "1").column(0), 0)).isFalse();
        assertThat(isNull || vector.hash(row) == same.hash(0)).isTrue();
      }
      assertThat(cells(vector)).isEqualTo(expected);
    }
  }

  @Test
  void halfOfACharacterIsRefused() {
    CellVector vector = new CellVector();
    vector.clear();
    for (String half : List.of("a\uD83C", "\uDF3Eb", "\uD83C\uD83C", "\uDF3E")) {
      assertThatThrownBy(() -> vector.append(half))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("half of a surrogate pair, at character");
    }
    assertThat(vector.rows()).isZero();
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
    byte[] shared = Utf8.bytes("oatswheat");
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
    assertThat(Utf8.text(shared, 0, shared.length)).isEqualTo("oatswheat");
  }

  /** A computed column that is null to its end was never given a mark for those rows. */
  @Test
  void rowsOfNothingButNullsCanBePicked() {
    CellVector cells = new CellVector();
    cells.clear();
    for (int row = 0; row < 40; row++) {
      cells.appendNull();
    }
    cells.pick(new int[] {39, 0, 20}, 3);
    assertThat(cells.isNull(0)).isTrue();
    assertThat(cells.get(2)).isNull();
    CellVector some = new CellVector();
    some.clear();
    some.append("first");
    for (int row = 0; row < 40; row++) {
      some.appendNull();
    }
    some.pick(new int[] {40, 0}, 2);
    assertThat(some.get(0)).isNull();
    assertThat(some.get(1)).isEqualTo("first");
  }
}
