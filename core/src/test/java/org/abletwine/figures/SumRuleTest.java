package org.abletwine.figures;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

/** Figures of a lookup whose outcomes do not add up to its rows cannot be made. */
class SumRuleTest {
  private static LookupFigures.Outcomes of(
      long rows, long matched, long unmatched, long ambiguous, long blank, long asked) {
    return new LookupFigures.Outcomes(
        rows,
        matched,
        unmatched,
        ambiguous,
        blank,
        asked,
        0,
        0,
        LookupFigures.Firsts.NONE,
        java.util.List.of());
  }

  @Test
  void outcomesAddUpToRows() {
    assertThat(of(15, 4, 3, 2, 1, 5).matched()).isEqualTo(4);
    for (int off = 0; off < 5; off++) {
      long[] outcomes = {4, 3, 2, 1, 5};
      outcomes[off]++;
      assertThatThrownBy(
              () -> of(15, outcomes[0], outcomes[1], outcomes[2], outcomes[3], outcomes[4]))
          .isInstanceOf(IllegalArgumentException.class)
          .hasMessage("outcomes do not add up to rows");
    }
  }
}
