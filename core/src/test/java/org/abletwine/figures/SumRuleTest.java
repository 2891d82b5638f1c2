package org.abletwine.figures;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

/** Figures of a lookup whose outcomes do not add up to its rows cannot be made. */
class SumRuleTest {
  private static LookupFigures.Outcomes of(
      long rows, long matched, long unmatched, long ambiguous, long blank) {
    return new LookupFigures.Outcomes(
        rows, matched, unmatched, ambiguous, blank, 0, 0, LookupFigures.Firsts.NONE);
  }

  @Test
  void outcomesAddUpToRows() {
    assertThat(of(10, 4, 3, 2, 1).matched()).isEqualTo(4);
    for (int off = 0; off < 4; off++) {
      long[] outcomes = {4, 3, 2, 1};
      outcomes[off]++;
      assertThatThrownBy(() -> of(10, outcomes[0], outcomes[1], outcomes[2], outcomes[3]))
          .isInstanceOf(IllegalArgumentException.class)
          .hasMessage("outcomes do not add up to rows");
    }
  }
}
