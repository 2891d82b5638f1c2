package org.abletwine.compute;

import org.jspecify.annotations.Nullable;

/**
 * One value less another where neither has a stated type: numbers mostly, and in rows where that
 * cannot be, days between dates of ISO 8601.
 */
final class UntypedDifference extends Node {
  private final Node numbers;
  private final Node days;
  private final Frame.Trial asNumbers = new Frame.Trial();
  private final Frame.Trial asDays = new Frame.Trial();

  /**
   * @param numbers the difference of numbers
   * @param days the days between dates
   */
  UntypedDifference(Node numbers, Node days) {
    super(Kind.NUMBER);
    this.numbers = numbers;
    this.days = days;
  }

  @Override
  Values eval(Frame frame, boolean @Nullable [] asked) {
    asNumbers.over(frame.batch());
    Values tried = numbers.eval(asNumbers, asked);
    return asNumbers.failures() == 0 ? tried : super.eval(frame, asked);
  }

  /** After {@link #numbers} was evaluated: takes its values, and looks at the other rows again. */
  @Override
  void compute(Frame frame, boolean @Nullable [] asked) {
    Values tried = numbers.out;
    boolean[] again = new boolean[frame.rows()];
    for (int row = 0; row < again.length; row++) {
      again[row] = asNumbers.failed(row);
      if (!again[row]) {
        Choosing.copy(tried, row, out, Kind.NUMBER);
      }
    }
    asDays.over(frame.batch());
    Values between = days.eval(asDays, again);
    for (int row = 0; row < again.length; row++) {
      if (again[row] && asDays.failed(row)) {
        frame.error(row, asNumbers.message(row));
      } else if (again[row]) {
        Choosing.copy(between, row, out, Kind.NUMBER);
      }
    }
    out.survey(frame.rows());
  }
}
