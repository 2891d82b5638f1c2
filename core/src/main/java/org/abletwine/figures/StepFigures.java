package org.abletwine.figures;

/** What one step of a run counted. */
public sealed interface StepFigures
    permits LookupFigures,
        CorrectionFigures,
        CoalesceFigures,
        ColumnFigures,
        ComputeFigures,
        FormatFigures,
        GuardFigures,
        KeepFigures,
        RollupFigures,
        TotalFigures,
        ThatFigures {

  /** Returns the step's name. */
  String name();
}
