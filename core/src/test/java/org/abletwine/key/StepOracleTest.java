package org.abletwine.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.table.batch.CellVector;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Each normalise step, alone and after others, against doing the same to one string at a time. */
class StepOracleTest {
  private static final String[] PIECES = {
    "a",
    "B",
    "xyz",
    "0",
    "00",
    "7",
    "-",
    "+",
    ".",
    "1e3",
    "e",
    " ",
    "  ",
    "\t",
    "\u00A0",
    "\u2009",
    "\u200B",
    "\uFEFF",
    "\u3000",
    "é",
    "E\u0301",
    "ö",
    "o\u0308",
    "ß",
    "ẞ",
    "Σ",
    "ς",
    "ﬁ",
    "Ａ",
    "９",
    "\u0664",
    "ж",
    "Ж",
    "/W",
    "G-",
    "'",
    "\"",
    "€",
    "_",
    "\uD83C\uDF3E",
    "Ø",
    "ł",
    "ǆ"
  };

  private static String cell(Random random) {
    StringBuilder cell = new StringBuilder();
    for (int i = random.nextInt(5); i >= 0; i--) {
      cell.append(PIECES[random.nextInt(PIECES.length)]);
    }
    return cell.toString();
  }

  /** Applies steps to many cells at once, a null among them. */
  private static List<String> apply(List<String> names, List<String> cells) {
    CellVector vector = new CellVector();
    vector.clear();
    cells.forEach(vector::append);
    vector.appendNull();
    for (NormaliseStep step : Normalise.parse(names)) {
      CellsStep.apply(step, vector, cells.size() + 1);
    }
    assertThat(vector.get(cells.size())).as("null stays null").isNull();
    List<String> out = new ArrayList<>();
    for (int row = 0; row < cells.size(); row++) {
      out.add(String.valueOf(vector.get(row)));
    }
    return out;
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "trim",
        "collapse-spaces",
        "ignore-case",
        "ignore-accents",
        "ignore-punctuation",
        "drop-leading-zeros",
        "pad-zeros=6",
        "digits-only",
        "drop-prefix=G-",
        "drop-suffix=/W",
        "first=3",
        "last=3",
        "as-number"
      })
  void eachStepAgreesWithItsOracle(String step) {
    Random random = new Random(step.hashCode());
    List<String> cells = new ArrayList<>();
    for (int i = 0; i < 4_000; i++) {
      cells.add(cell(random));
    }
    List<String> stepped = apply(List.of(step), cells);
    for (int i = 0; i < cells.size(); i++) {
      assertThat(stepped.get(i))
          .as("%s of \"%s\"", step, cells.get(i))
          .isEqualTo(StepOracle.apply(step, cells.get(i)));
    }
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void stepsOneAfterTheOtherAgreeToo(long seed) {
    String[] pool = {
      "trim",
      "collapse-spaces",
      "ignore-punctuation",
      "drop-leading-zeros",
      "drop-suffix=/W",
      "drop-prefix=G-",
      "first=4",
      "last=2",
      "digits-only",
      "pad-zeros=5",
      "as-number"
    };
    Random random = new Random(seed);
    List<String> names = new ArrayList<>();
    for (int i = 0; i < 2 + random.nextInt(4); i++) {
      names.add(pool[random.nextInt(pool.length)]);
    }
    List<String> cells = new ArrayList<>();
    for (int i = 0; i < 1_000; i++) {
      cells.add(cell(random));
    }
    List<String> stepped = apply(names, cells);
    for (int i = 0; i < cells.size(); i++) {
      String expected = cells.get(i);
      for (String name : names) {
        expected = StepOracle.apply(name, expected);
      }
      assertThat(stepped.get(i)).as("%s of \"%s\"", names, cells.get(i)).isEqualTo(expected);
    }
  }
}
