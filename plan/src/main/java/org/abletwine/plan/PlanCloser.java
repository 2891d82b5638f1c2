package org.abletwine.plan;

import org.abletwine.figures.LookupFigures;
import org.abletwine.lookup.Outcome;
import org.abletwine.plan.tell.Closer;
import org.abletwine.plan.tell.Words;

/**
 * How to look closer at rows of a plan: keys that may be misspelt in the draft of corrections, all
 * others by following the first of them.
 */
public final class PlanCloser implements Closer {
  private final String plan;
  private final boolean drafts;

  private PlanCloser(String plan, boolean drafts) {
    this.plan = plan;
    this.drafts = drafts;
  }

  /**
   * @param plan the plan file as a person would write it
   * @param drafts whether the plan drafts corrections
   */
  public static Closer of(String plan, boolean drafts) {
    return new PlanCloser(plan, drafts);
  }

  @Override
  public String one() {
    return "trace " + plan + " --row N";
  }

  @Override
  public Look look(LookupFigures lookup, Outcome outcome) {
    LookupFigures.Firsts firsts = lookup.outcomes().firsts();
    boolean plain =
        !lookup.fits().byRule()
            && lookup.blankParts().size() == 1
            && lookup.outcomes().wouldMatch() == 0;
    if (outcome == Outcome.UNMATCHED && plain && drafts && !lookup.privateKey()) {
      return new Look("corrections draft", false);
    }
    long row =
        switch (outcome) {
          case UNMATCHED -> firsts.unmatched();
          case AMBIGUOUS -> firsts.ambiguous();
          default -> firsts.blankKey();
        };
    return row == 0 ? Look.NONE : new Look("row " + Words.count(row), false);
  }
}
