package org.abletwine.lookup;

import java.io.Serializable;
import org.jspecify.annotations.Nullable;

/** What a lookup puts in place of null, for each outcome and attribute. Immutable. */
final class LookupFills implements Serializable {
  private static final long serialVersionUID = 1L;

  private final @Nullable String[][] byOutcome;

  LookupFills(Lookup lookup) {
    Outcome[] outcomes = Outcome.values();
    byOutcome = new @Nullable String[outcomes.length][lookup.bring.size()];
    for (Outcome outcome : outcomes) {
      for (int a = 0; a < lookup.bring.size(); a++) {
        byOutcome[outcome.ordinal()][a] =
            lookup.treatment(outcome).fill().values().get(lookup.bring.get(a).as());
      }
    }
  }

  /** For each attribute, in the order of the lookup; not to be changed. */
  @Nullable String[] of(int outcome) {
    return byOutcome[outcome];
  }

  @Nullable String of(int outcome, int attribute) {
    return byOutcome[outcome][attribute];
  }
}
