package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Normalise steps on patterns change only what is literal in them. */
class PatternStepsTest {
  private static @Nullable String stepped(Kind kind, String steps, @Nullable String pattern) {
    List<NormaliseStep> stated = Normalise.parse(List.of(steps.split(" ")));
    CellVector cells = RuleIndexTest.column(pattern, pattern);
    List<NormaliseStep> applied = PatternSteps.of(kind, stated);
    applied.forEach(step -> CellsStep.apply(step, cells, 2));
    assertThat(cells.get(1)).isEqualTo(cells.get(0));
    return cells.get(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "WILDCARD; ignore-case; A*B?C; a*b?c",
        "WILDCARD; ignore-punctuation; -*-?-; *?",
        "WILDCARD; trim; '  a * '; a *",
        "WILDCARD; collapse-spaces; 'a  b*  c'; 'a b* c'",
        "REGEX; trim; ' a\\ '; 'a\\ '",
        "REGEX; trim; '  a\\  '; 'a\\ '",
        "REGEX; trim; ' a\\\\ '; a\\\\",
        "REGEX; ignore-accents; é\\é[é]; e\\é[e]",
        "REGEX; ignore-accents; ß[ß]A\\D; ß[ß]A\\D",
        "REGEX; ignore-accents; [a]é; [a]e",
        "STARTS_WITH; ignore-case; A*; a*"
      })
  void stepsChangeOnlyWhatIsLiteral(Kind kind, String steps, String pattern, String expected) {
    assertThat(stepped(kind, steps, pattern)).isEqualTo(expected);
    assertThat(stepped(kind, steps, null)).isNull();
  }

  @Test
  void stepsThatCannotBeAppliedAreNamed() {
    List<NormaliseStep> steps = Normalise.parse(List.of("trim", "collapse-spaces", "first=2"));
    assertThat(PatternSteps.refused(Kind.REGEX, steps)).isEqualTo("collapse-spaces");
    assertThat(PatternSteps.refused(Kind.WILDCARD, steps)).isEqualTo("first: 2");
    assertThat(PatternSteps.refused(Kind.CONTAINS, steps)).isNull();
    assertThat(PatternSteps.refused(Kind.REGEX, steps.subList(0, 1))).isNull();
    assertThat(PatternSteps.folds(steps)).isFalse();
    assertThat(PatternSteps.folds(Normalise.parse(List.of("trim", "ignore-case")))).isTrue();
    List<NormaliseStep> signs = PatternSteps.of(Kind.REGEX, steps.subList(0, 1));
    assertThat(signs.get(0).name()).isEqualTo("literal stretches of patterns");
    assertThat(signs.get(0)).hasToString(signs.get(0).name());
    assertThat(PatternSteps.of(Kind.CONTAINS, steps)).isSameAs(steps);
  }
}
