package org.abletwine.key;

import static org.assertj.core.api.Assertions.assertThat;

import org.abletwine.key.encode.CellsStep;
import org.abletwine.table.batch.CellVector;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TrimTest {

  @ParameterizedTest
  @ValueSource(
      chars = {
        ' ', '\t', '\n', '\r', '\u000B', '\u0085', '\u00A0', '\u1680', '\u2000', '\u2009', '\u200B',
        '\u200D', '\u2028', '\u202F', '\u205F', '\u2060', '\u3000', '\uFEFF'
      })
  void everySpaceGoesAtBothEndsAndStaysInside(char space) {
    CellVector cells = new CellVector();
    cells.clear();
    cells.append(space + "a" + space + "b" + space + space);
    cells.appendNull();
    cells.append(String.valueOf(space));
    CellsStep.apply(Normalise.trim(), cells, 3);
    assertThat(cells.get(0)).isEqualTo("a" + space + "b");
    assertThat(cells.get(1)).isNull();
    assertThat(cells.get(2)).isEmpty();
  }
}
