package org.abletwine.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Where steps begin and end: what they pass over, how much they take, when two are equal. */
class StepEdgesTest {

  private static boolean concerns(String step, String cell) {
    byte[] text = ("[" + cell + "]").getBytes(StandardCharsets.UTF_8);
    CellStep one = (CellStep) Normalise.parse(List.of(step)).get(0);
    return one.concerns(text, 1, text.length - 1);
  }

  /** What is in its final form is passed over without making characters of it. */
  @ParameterizedTest
  @CsvSource(
      quoteCharacter = '`',
      value = {
        "collapse-spaces,``",
        "collapse-spaces,a",
        "collapse-spaces,` a b c `",
        "collapse-spaces,a!b",
        "ignore-accents,plain ~",
        "ignore-punctuation,azAZ 09",
        "ignore-punctuation,``",
        "digits-only,0123456789",
        "digits-only,``",
        "pad-zeros=3,abc",
        "pad-zeros=3,éèê",
        "pad-zeros=3,abcd",
        "pad-zeros=3,``",
        "as-number,0",
        "as-number,9",
        "as-number,10",
        "as-number,123456789",
      })
  void whatIsInItsFinalFormIsPassedOver(String step, String cell) {
    assertThat(concerns(step, cell)).isFalse();
  }

  @ParameterizedTest
  @CsvSource(
      quoteCharacter = '`',
      value = {
        "collapse-spaces,a  b",
        "collapse-spaces,`  `",
        "collapse-spaces,a\tb",
        "collapse-spaces,a\u00A0b",
        "collapse-spaces,a\u001Fb",
        "ignore-accents,é",
        "ignore-punctuation,/",
        "ignore-punctuation,:",
        "ignore-punctuation,@",
        "ignore-punctuation,[",
        "ignore-punctuation,{",
        "ignore-punctuation,!",
        "ignore-punctuation,é",
        "digits-only,/",
        "digits-only,:",
        "digits-only,1x",
        "digits-only,x1",
        "pad-zeros=3,ab",
        "pad-zeros=3,éé",
        "as-number,00",
        "as-number,07",
        "as-number,1.0",
        "as-number,1/",
        "as-number,1:",
        "as-number,``",
        "as-date=yyyyMMdd,2",
      })
  void whatMayChangeIsLookedAt(String step, String cell) {
    assertThat(concerns(step, cell)).isTrue();
  }

  @Test
  void anEmptyCellHasNoDate() {
    assertThat(concerns("as-date=yyyyMMdd", "")).isFalse();
  }

  private static String apply(String step, String cell) {
    return Normalise.parse(List.of(step)).get(0).apply(cell);
  }

  /** Numbers of up to sixty characters are read, exponents of up to sixty written out. */
  @Test
  void numbersAreReadUpToALength() {
    assertThat(apply("as-number", "0".repeat(59) + "7")).isEqualTo("7");
    assertThat(apply("as-number", "0".repeat(60) + "7")).isEqualTo("0".repeat(60) + "7");
    assertThat(apply("as-number", "1e60")).isEqualTo("1" + "0".repeat(60));
    assertThat(apply("as-number", "1e61")).isEqualTo("1E+61");
    assertThat(apply("as-number", "1e-60")).isEqualTo("0." + "0".repeat(59) + "1");
    assertThat(apply("as-number", "1e-61")).isEqualTo("1E-61");
    String wide = "\u0660".repeat(59) + "\u0667";
    assertThat(apply("as-number", wide)).as("digits of two bytes").isEqualTo("7");
  }

  @Test
  void whatIsPutInHasALength() {
    String cell = "x".repeat(1_000_000);
    assertThat(apply("replace=x => y", cell)).isEqualTo("y".repeat(1_000_000));
    assertThatThrownBy(() -> apply("replace=x => y", cell + "x"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("makes a key of more than 1000000 characters");
  }

  @ParameterizedTest
  @ValueSource(strings = {"first", "last", "pad-zeros"})
  void countsAreFromOneToAThousand(String step) {
    assertThat(Normalise.parse(List.of(step + "=1", step + "=1000"))).hasSize(2);
    for (String wrong : List.of("0", "1001")) {
      assertThatThrownBy(() -> Normalise.parse(List.of(step + "=" + wrong)))
          .isInstanceOf(SettingException.class)
          .hasMessageContaining("takes a number from 1 to 1000, not " + wrong);
    }
  }

  @Test
  void replacementsAreChecked() {
    assertThatThrownBy(() -> Normalise.replace("(a)(b)", "$3"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("groups up to $2");
    assertThatThrownBy(() -> Normalise.replace("ab", "$1"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("no groups");
    assertThatThrownBy(() -> Normalise.named("replace", "a -> b"))
        .isInstanceOf(SettingException.class)
        .hasMessage("replace: write it as PATTERN => TEXT");
    assertThat(Normalise.named("replace", " => x").apply("ab")).isEqualTo("xaxbx");
    assertThatThrownBy(() -> Normalise.replace("ab[", "x"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("at character 3");
    assertThatThrownBy(() -> Normalise.named("trim", ""))
        .isInstanceOf(SettingException.class)
        .hasMessage("normalise: trim takes no argument");
  }

  @Test
  void stepsAreEqualByWhatTheyDo() {
    List<String> all =
        List.of(
            "trim",
            "ignore-case",
            "first=3",
            "last=3",
            "first=4",
            "drop-prefix=a",
            "drop-suffix=a",
            "as-date=dd/MM/yyyy",
            "as-date=dd/MM/yyyy|yyyyMMdd",
            "replace=a => b",
            "replace=a => c",
            "replace=b => b");
    for (String one : all) {
      for (String other : all) {
        NormaliseStep a = Normalise.parse(List.of(one)).get(0);
        NormaliseStep b = Normalise.parse(List.of(other)).get(0);
        assertThat(a.equals(b)).as(one + " and " + other).isEqualTo(one.equals(other));
        assertThat(a.hashCode() == b.hashCode()).isEqualTo(one.equals(other));
      }
      NormaliseStep step = Normalise.parse(List.of(one)).get(0);
      assertThat(step).isNotEqualTo(null).isNotEqualTo(one);
      assertThat(step.toString()).isEqualTo(step.name()).isNotEmpty();
    }
    assertThat(Normalise.first(3).name()).isEqualTo("first: 3");
    assertThat(Normalise.dropSuffix("/W").name()).isEqualTo("drop-suffix: /W");
  }

  /** Every character there is, as a space and as none, at both ends of other characters. */
  @Test
  void everySpaceIsKnownByItsBytes() {
    for (int c = 1; c <= 0x20000; c++) {
      if (c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE) {
        continue;
      }
      String one = new String(Character.toChars(c));
      boolean space = c < 0x10000 && Spaces.isSpace((char) c);
      if (!(c >= 0x202A && c <= 0x202E || c >= 0x2066 && c <= 0x2069)) { // marks of direction
        assertThat(space).as("U+%04X", c).isEqualTo(StepOracle.space(c));
      }
      byte[] text = ("x" + one + "x").getBytes(StandardCharsets.UTF_8);
      int bytes = text.length - 2;
      assertThat(Spaces.length(text, 1, text.length - 1)).isEqualTo(space ? bytes : 0);
      assertThat(Spaces.lengthBefore(text, 0, text.length - 1)).isEqualTo(space ? bytes : 0);
      assertThat(Spaces.lengthBefore(text, 1, text.length - 1)).isEqualTo(space ? bytes : 0);
    }
  }

  /** A step that knows texts only is applied to cells, nulls passed over. */
  private record Upper(String name) implements NormaliseStep {
    private static final long serialVersionUID = 1L;

    @Override
    public String apply(String value) {
      return value.toUpperCase(java.util.Locale.ROOT) + "!";
    }
  }

  @Test
  void aStepOfTextsIsAppliedToCells() {
    Batch batch = OneRow.of("ab", null, "");
    CellVector cells = new CellVector();
    cells.clear();
    cells.append("ab");
    cells.appendNull();
    cells.append("é");
    CellVector view = new CellVector();
    batch.copySlices(view, 0);
    CellsStep.apply(new Upper("upper"), cells, 3);
    CellsStep.apply(new Upper("upper"), view, 1);
    assertThat(cells.get(0)).isEqualTo("AB!");
    assertThat(cells.get(1)).isNull();
    assertThat(cells.get(2)).isEqualTo("É!");
    assertThat(view.get(0)).isEqualTo("AB!");
    assertThat(batch.column(0).get(0)).as("the row stays as it is").isEqualTo("ab");
  }

  private static EncodedKeys encoded(
      List<List<NormaliseStep>> steps, EncodedKeys into, String... row) {
    int[] columns = java.util.stream.IntStream.range(0, row.length).toArray();
    new KeyEncoder(columns, steps).encode(OneRow.of(row), into);
    return into;
  }

  @Test
  void keysOfPartsTellWhatIsBlankAndWhatWasChanged() {
    List<List<NormaliseStep>> steps = List.of(List.of(Normalise.trim()), List.of());
    EncodedKeys keys = encoded(steps, new EncodedKeys(), " a", "b");
    assertThat(keys.changed[0]).isTrue();
    assertThat(keys.blankParts[0]).isZero();
    assertThat(keys.ends[1]).isEqualTo(3);
    assertThat(new byte[] {keys.bytes[0], keys.bytes[1], keys.bytes[2]})
        .containsExactly('a', 0xFF, 'b');
    int hash = keys.hashes[0];
    encoded(steps, keys, "a", "b");
    assertThat(keys.changed[0]).as("as it was written").isFalse();
    assertThat(keys.hashes[0]).isEqualTo(hash);
    encoded(steps, keys, "  ", "b");
    assertThat(keys.blankParts[0]).isEqualTo(1);
    assertThat(keys.changed[0]).isTrue();
    encoded(steps, keys, "a", null);
    assertThat(keys.blankParts[0]).isEqualTo(2);
    encoded(steps, keys, "", "");
    assertThat(keys.blankParts[0]).isEqualTo(3);
    assertThat(keys.hashes[0]).isNotEqualTo(hash);
    assertThat(keys).hasToString("EncodedKeys[1 rows]");
  }

  @Test
  void aKeyHasAtMostThirtyOneParts() {
    int[] columns = new int[31];
    List<List<NormaliseStep>> steps = java.util.Collections.nCopies(31, List.of());
    new KeyEncoder(columns, steps);
    assertThatThrownBy(
            () -> new KeyEncoder(new int[32], java.util.Collections.nCopies(32, List.of())))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new KeyEncoder(new int[30], steps))
        .isInstanceOf(IllegalArgumentException.class);
  }

  /** A long key after a short one, and the other way round, in keys used again. */
  @Test
  void keysAreUsedAgain() {
    EncodedKeys keys = new EncodedKeys();
    KeyEncoder encoder = new KeyEncoder(new int[] {0}, List.of(List.of(Normalise.trim())));
    for (int length : new int[] {1, 1_017, 5, 5_000, 3}) {
      Batch batch = new Batch(1);
      String key = "k".repeat(length);
      for (int row = 0; row < 3; row++) {
        batch.addCell(row == 1 ? " " : key + row);
        batch.endRow(0);
      }
      encoder.encode(batch, keys);
      assertThat(keys.rows()).isEqualTo(3);
      assertThat(keys.ends[3]).isEqualTo(2 * (length + 1));
      assertThat(new String(keys.bytes, 0, length + 1, StandardCharsets.UTF_8)).isEqualTo(key + 0);
      assertThat(keys.blankParts[0] + 2 * keys.blankParts[1] + 4 * keys.blankParts[2]).isEqualTo(2);
      assertThat(keys.hashes[0]).isNotEqualTo(keys.hashes[2]);
      assertThat(keys.bytes.length).isGreaterThanOrEqualTo(keys.ends[3] + 8);
    }
  }
}
