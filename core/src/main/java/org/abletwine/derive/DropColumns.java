package org.abletwine.derive;

import java.util.List;
import java.util.Objects;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;

/**
 * Leaves columns out of the output; later steps cannot use them. Immutable.
 *
 * @param names the columns
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record DropColumns(List<String> names) implements RunStep {

  /** Copies the list. */
  public DropColumns {
    Objects.requireNonNull(names, "names");
    names = List.copyOf(names);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    check(columns);
    return new NamesOnly(new StepFigures.Columns("drop-columns", names));
  }

  @Override
  public String title() {
    return "drop-columns " + String.join(", ", names);
  }

  @Override
  public void check(Columns columns) {
    names.forEach(name -> columns.remove(name, "drop-columns"));
  }
}
