package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.abletwine.table.text.Utf8;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Literals found in one pass, and near misses, against trying each in turn. */
class AutomatonTest {
  private static String word(Random random, int most) {
    StringBuilder word = new StringBuilder();
    int length = 1 + random.nextInt(most);
    for (int i = 0; i < length; i++) {
      word.append(List.of("a", "b", "c", "é", "\uD83C\uDF3E").get(random.nextInt(5)));
    }
    return word.toString();
  }

  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void everyLiteralIsFoundAndNoOther(boolean anywhere) {
    Random random = new Random(anywhere ? 1 : 2);
    for (int round = 0; round < 200; round++) {
      List<String> literals = new ArrayList<>();
      int count = 1 + random.nextInt(30);
      for (int i = 0; i < count; i++) {
        literals.add(word(random, 5));
      }
      LiteralAutomaton automaton = new LiteralAutomaton(literals, anywhere);
      String text = word(random, 40);
      byte[] padded = Utf8.bytes("##" + text + "##");
      TreeSet<Integer> found = new TreeSet<>();
      if (anywhere) {
        automaton.anywhere(padded, 2, padded.length - 2, found::add);
      } else {
        automaton.atStart(padded, 2, padded.length - 2, found::add);
      }
      TreeSet<Integer> expected = new TreeSet<>();
      for (int i = 0; i < literals.size(); i++) {
        if (anywhere ? text.contains(literals.get(i)) : text.startsWith(literals.get(i))) {
          expected.add(i);
        }
      }
      assertThat(found).as(literals + " in " + text).isEqualTo(expected);
    }
  }
}
