package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import org.abletwine.table.DataException;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.ByteCursor;
import org.junit.jupiter.api.Test;

/** Answers on disk: each row finds its first one, and not from the beginning. */
class AnswersTest {
  /** So many answers may lie before the one that is looked for, beside those of one row. */
  private static final int NEAR = 2 * 256;

  private static void add(Answers answers, long number, int length) {
    byte[] bytes = new byte[length + 3];
    Arrays.fill(bytes, (byte) number);
    answers.add(number, bytes, 2, length);
  }

  /** Goes from a place to the first answer of a row, and returns how many lie between. */
  private static int before(Answers answers, long place, long number) {
    ByteCursor cursor = answers.cursor();
    cursor.seek(place);
    int passed = 0;
    while (answers.more(cursor.place())) {
      long met = cursor.number();
      long length = cursor.number();
      if (met == number) {
        return passed;
      }
      assertThat(met).as("no answer of the row lies before the place").isLessThan(number);
      passed++;
      cursor.seek(cursor.place() + length);
    }
    throw new AssertionError("no answer of row " + number + " from " + place + " on");
  }

  @Test
  void eachRowFindsItsFirstAnswerNearWhereItLooks() {
    Random random = new Random(5);
    try (SpillFile file = SpillFile.temporary()) {
      Answers answers = new Answers(file);
      int rows = 40_000;
      long first = 3;
      for (long row = 0; row < rows; row++) {
        // Some rows have several answers: the step before made several rows of them.
        int times = row % 5_000 == 17 ? 700 : row % 3 == 0 ? 2 : 1;
        for (int i = 0; i < times; i++) {
          add(answers, first + row * 2, random.nextInt(60));
        }
      }
      answers.putOut();
      assertThat(answers.more(0)).isTrue();
      assertThat(answers.more(answers.bytes() - 1)).isTrue();
      assertThat(answers.more(answers.bytes())).isFalse();
      for (long row = 0; row < rows; row += row < 20 ? 1 : 1 + random.nextInt(40)) {
        long number = first + row * 2;
        assertThat(before(answers, answers.before(number), number)).isLessThan(NEAR);
      }
      assertThat(answers.before(0)).isZero();
    }
  }

  @Test
  void whatIsPutOutIsAllThereWasAndOnlyMuchIsPutOutEarly() {
    try (SpillFile file = SpillFile.temporary()) {
      Answers answers = new Answers(file);
      assertThat(answers.before(7)).isZero();
      add(answers, 1, 500);
      assertThat(file.size()).as("kept until there is more").isZero();
      for (long row = 2; row <= 4_000; row++) {
        add(answers, row, 500);
      }
      assertThat(file.size()).isBetween(1L << 20, 4_000L * 503);
      assertThat(answers.more(file.size())).isFalse();
      answers.putOut();
      assertThat(answers.bytes()).isEqualTo(file.size()).isEqualTo(127L * 503 + 3_873L * 504);
      answers.putOut();
      assertThat(answers.bytes()).isEqualTo(127L * 503 + 3_873L * 504);
    }
  }

  @Test
  void aRowWithoutAnAnswerMeetsWhatEndedTheRun() {
    try (SpillFile file = SpillFile.temporary()) {
      Answers answers = new Answers(file);
      assertThat(answers.none(8))
          .isInstanceOf(IllegalStateException.class)
          .hasMessage("row 8 has no answer");
      DataException stopped = new DataException("row 9 cannot be read");
      answers.stoppedBy(stopped);
      assertThat(answers.none(9)).isSameAs(stopped);
      answers.stoppedBy(null);
      assertThat(answers.none(9)).isNotSameAs(stopped);
      assertThatThrownBy(answers::found).hasMessage("all rows are answered");
    }
  }
}
