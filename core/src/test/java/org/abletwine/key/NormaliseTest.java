package org.abletwine.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NormaliseTest {

  private static String apply(String step, String cell) {
    CellVector cells = new CellVector();
    cells.clear();
    cells.append("before");
    cells.append(cell);
    cells.appendNull();
    for (NormaliseStep one : Normalise.parse(List.of(step))) {
      CellsStep.apply(one, cells, 3);
    }
    assertThat(cells.get(2)).as("null stays null").isNull();
    return String.valueOf(cells.get(1));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "collapse-spaces;a  b;a b",
        "collapse-spaces;a\u00A0\u2009b;a b",
        "collapse-spaces;a b;a b",
        "ignore-case;KEL/W;kel/w",
        "ignore-case;Straße;strasse",
        "ignore-case;STRASSE;strasse",
        "ignore-case;ΣΊΣΥΦΟΣ;σίσυφοσ",
        "ignore-case;Σίσυφος;σίσυφοσ",
        "ignore-case;ＡＢ１;ab1",
        "ignore-case;E\u0301;é",
        "ignore-case;\u0131;i",
        "ignore-accents;Château;Chateau",
        "ignore-accents;Bro\u0308nn;Bronn",
        "ignore-accents;plain;plain",
        "ignore-punctuation;Miller's-Hope (2);MillersHope 2",
        "drop-leading-zeros;00412;412",
        "drop-leading-zeros;000;0",
        "drop-leading-zeros;0x;x",
        "pad-zeros=6;412;000412",
        "pad-zeros=2;412;412",
        "digits-only;G-0412 b;0412",
        "digits-only;\u0664\u0662;42",
        "drop-prefix=G-;G-12;12",
        "drop-prefix=G-;G-;G-",
        "drop-suffix=/W;KEL/W;KEL",
        "drop-suffix=/W;KEL/X;KEL/X",
        "first=3;abcdef;abc",
        "first=3;ab;ab",
        "last=2;\uD83C\uDF3Eb\uD83C\uDF3E;b\uD83C\uDF3E",
        "as-number;007;7",
        "as-number;7.0;7",
        "as-number;1e3;1000",
        "as-number;-0;0",
        "as-number;+7.50;7.5",
        "as-number;seven;seven",
        "as-number;1e999999999;1E+999999999",
        "as-date=dd/MM/yyyy|yyyyMMdd;14/08/2026;2026-08-14",
        "as-date=dd/MM/yyyy|yyyyMMdd;20260814;2026-08-14",
        "as-date=dd/MM/yyyy;31/02/2026;31/02/2026",
        "replace=^(\\w)-(\\d+)$ => $1$2;G-12;G12",
      })
  void eachStepDoesWhatItsNameSays(String step, String cell, String expected) {
    assertThat(apply(step, cell)).isEqualTo(expected);
  }

  @Test
  void wrongStepsAreRefused() {
    assertRefused("trimm", "did you mean \"trim\"?");
    assertRefused("pad-zeros", "needs an argument, such as pad-zeros: 6");
    assertRefused("pad-zeros=x", "takes a whole number");
    assertRefused("first=0", "from 1 to 1000");
    assertRefused("trim=2", "takes no argument");
    assertRefused("drop-suffix=", "not empty");
    assertRefused("replace=( => x", "does not compile", "character");
    assertRefused("as-date=bb", "not a date pattern");
  }

  private static void assertRefused(String step, String... parts) {
    assertThatThrownBy(() -> Normalise.parse(List.of(step)))
        .isInstanceOf(SettingException.class)
        .message()
        .contains(parts);
  }

  /** Two cells have equal comparison bytes exactly when the steps make them equal texts. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void encodedKeysAgreeWithThePlainTexts(long seed) {
    Random random = new Random(seed);
    List<String> pool =
        List.of(
            "trim",
            "collapse-spaces",
            "ignore-case",
            "ignore-accents",
            "drop-leading-zeros",
            "as-number",
            "drop-suffix=/W",
            "first=4");
    List<NormaliseStep> steps =
        Normalise.parse(List.of(pool.get(random.nextInt(8)), pool.get(random.nextInt(8))));
    String[] letters = {"a", "A", "0", "00", "é", "E\u0301", " ", "\u00A0", "/W", "7", ".0", "ß"};
    int rows = 300;
    Batch batch = new Batch(1);
    String[] texts = new String[rows];
    for (int row = 0; row < rows; row++) {
      StringBuilder cell = new StringBuilder();
      for (int i = random.nextInt(4); i >= 0; i--) {
        cell.append(letters[random.nextInt(letters.length)]);
      }
      batch.addCell(cell.toString());
      batch.endRow(0);
      CellVector one = new CellVector();
      one.clear();
      one.append(cell.toString());
      steps.forEach(step -> CellsStep.apply(step, one, 1));
      texts[row] = String.valueOf(one.get(0));
    }
    EncodedKeys keys = new EncodedKeys();
    new KeyEncoder(new int[] {0}, List.of(steps)).encode(batch, keys);
    for (int a = 0; a < rows; a++) {
      assertThat(keys.changed[a]).isEqualTo(!texts[a].equals(batch.column(0).get(a)));
      for (int b = 0; b < rows; b++) {
        boolean same =
            java.util.Arrays.equals(
                keys.bytes,
                keys.ends[a],
                keys.ends[a + 1],
                keys.bytes,
                keys.ends[b],
                keys.ends[b + 1]);
        assertThat(same).isEqualTo(texts[a].equals(texts[b]));
      }
    }
  }
}
