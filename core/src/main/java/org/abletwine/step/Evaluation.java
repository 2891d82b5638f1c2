package org.abletwine.step;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * How expressions are evaluated.
 *
 * @param errorsAreNull whether a row that cannot be computed gets null, and not ends the run
 * @param today what CURRENT_DATE is; null to refuse it
 */
public record Evaluation(boolean errorsAreNull, @Nullable LocalDate today) {
  /** Errors end the run, and there is no current date. */
  public static final Evaluation STRICT = new Evaluation(false, null);
}
