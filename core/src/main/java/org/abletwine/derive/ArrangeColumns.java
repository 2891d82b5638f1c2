package org.abletwine.derive;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;

/**
 * Renames columns and puts some of them first. Immutable.
 *
 * @param rename the new name of each column renamed
 * @param first the columns to come first, by their new names, or by their old ones where no column
 *     has these now; the others follow as they were
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record ArrangeColumns(Map<String, String> rename, List<String> first) implements RunStep {

  /** Copies map and list. */
  public ArrangeColumns {
    Objects.requireNonNull(rename, "rename");
    Objects.requireNonNull(first, "first");
    rename = new LinkedHashMap<>(rename);
    first = List.copyOf(first);
  }

  @Override
  public String title() {
    return rename.isEmpty() ? "order-columns" : "rename";
  }

  @Override
  public void check(Columns columns) {
    columns.rename(rename);
    List<String> names = columns.names();
    columns.order(
        first.stream()
            .map(name -> names.contains(name) ? name : rename.getOrDefault(name, name))
            .toList());
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    check(columns);
    return new NamesOnly(new StepFigures.Columns(title(), first));
  }
}
