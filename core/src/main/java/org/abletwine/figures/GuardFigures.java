package org.abletwine.figures;

/**
 * What guarding a spreadsheet from formulas counted.
 *
 * @param cells cells that an apostrophe was put before
 * @param example the first of them, in words; empty when there is none
 */
public record GuardFigures(long cells, String example) implements StepFigures {
  @Override
  public String name() {
    return "formulas";
  }
}
