package org.abletwine.figures;

import java.util.List;

/**
 * A step that only changed which columns there are, in which order or by which name.
 *
 * @param name the step
 * @param columns the columns concerned
 */
public record ColumnFigures(String name, List<String> columns) implements StepFigures {

  /** Copies the list. */
  public ColumnFigures {
    columns = List.copyOf(columns);
  }
}
