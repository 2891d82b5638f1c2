package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.abletwine.plan.tell.Words;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Lines are broken between words, tables fit, nothing of a number is lost. */
class ScreenTest {
  @ParameterizedTest
  @CsvSource({
    "'one two three', 20, 'one two three'",
    "'one two three', 7, 'one two|three'",
    "'one two three', 6, 'one|two|three'",
    "'abcdefghij', 4, 'abcd|efgh|ij'",
    "'a abcdefghij b', 4, 'a|abcd|efgh|ij b'",
    "'', 5, ''"
  })
  void textsAreBrokenBetweenWords(String text, int width, String lines) {
    assertThat(String.join("|", Screen.wrapped(text, width))).isEqualTo(lines);
  }

  @Test
  void coloursTakeNoRoomAndAreNeverBroken() {
    String text = Ink.BAD.on("two words", true) + " and more";
    List<String> lines = Screen.wrapped(text, 9);
    assertThat(lines.stream().map(Ink::plain).toList()).containsExactly("two words", "and more");
  }

  @Test
  void aTableIsMadeNarrowerInItsTextsAlone() {
    System.setProperty("abletwine.columns", "40");
    try {
      TextTable table = new TextTable("lrl");
      table.cell("a name that is rather long").cell("1,234,567").cell("what is said of it").end();
      table.cell("b").cell("8").cell("short").end();
      List<String> lines = table.render(false);
      assertThat(lines).allMatch(line -> line.length() <= 40);
      assertThat(lines.get(0))
          .startsWith("  a name tha")
          .contains("\u2026", "1,234,567", "what is");
      assertThat(String.join(" ", lines)).contains("what is said").contains("of it");
    } finally {
      System.clearProperty("abletwine.columns");
    }
  }

  @Test
  void aLineIsGoneOnWithUnderItsBeginning() {
    System.setProperty("abletwine.columns", "40");
    try {
      assertThat(Screen.line("  " + "word ".repeat(12).strip()))
          .hasSize(2)
          .allMatch(line -> line.length() <= 40)
          .last()
          .asString()
          .startsWith("      word");
    } finally {
      System.clearProperty("abletwine.columns");
    }
  }

  @ParameterizedTest
  @CsvSource({
    "'2775 of 3000', '2,775 of 3,000'",
    "'sum is 14468178.51', 'sum is 14,468,178.51'",
    "'0.12345', '0.12345'",
    "'2026-08-01', '2026-08-01'",
    "'999', '999'"
  })
  void longNumbersArePartedAndDatesAreNot(String text, String parted) {
    assertThat(Words.grouped(text)).isEqualTo(parted);
  }
}
