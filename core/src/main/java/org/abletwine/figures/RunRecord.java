package org.abletwine.figures;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.ServiceLoader;
import org.abletwine.table.SettingException;

/**
 * The account of one run.
 *
 * @param title what the run is called
 * @param transactions the transactions table
 * @param started when the run began
 * @param elapsed how long it took
 * @param rowsIn transactions read
 * @param rowsOut rows written
 * @param bytesIn size of what was read of the transactions, in bytes; 0 when not known
 * @param columns the columns written, in order
 * @param steps the figures of each step, in order
 * @param measure the column totalled beside the outcomes; empty for none
 * @param parameters the values that were given for what the plan leaves open, by name
 * @param remarks what a person should know about the tables that were read, each with its table
 * @param controls what the plan expects, judged; empty when it expects nothing
 * @param privateColumns columns, at any point of the run, whose values are shown nowhere but in the
 *     rows that came out
 */
public record RunRecord(
    String title,
    String transactions,
    Instant started,
    Duration elapsed,
    long rowsIn,
    long rowsOut,
    long bytesIn,
    List<String> columns,
    List<StepFigures> steps,
    String measure,
    Map<String, String> parameters,
    List<String> remarks,
    List<Control> controls,
    List<String> privateColumns) {

  /** Copies the lists. */
  public RunRecord {
    columns = List.copyOf(columns);
    steps = List.copyOf(steps);
    parameters = Collections.unmodifiableMap(new LinkedHashMap<>(parameters));
    remarks = List.copyOf(remarks);
    controls = List.copyOf(controls);
    privateColumns = List.copyOf(privateColumns);
  }

  /**
   * {@return the record with what a plan adds to it}
   *
   * @param values the parameters of the run, by name
   * @param judged the controls
   */
  public RunRecord with(Map<String, String> values, List<Control> judged) {
    Objects.requireNonNull(values, "values");
    Objects.requireNonNull(judged, "judged");
    return new RunRecord(
        title,
        transactions,
        started,
        elapsed,
        rowsIn,
        rowsOut,
        bytesIn,
        columns,
        steps,
        measure,
        values,
        remarks,
        judged,
        privateColumns);
  }

  /** {@return whether all controls hold} */
  public boolean holds() {
    return controls.stream().allMatch(Control::holds);
  }

  /** {@return the figures of the lookups, in order} */
  public List<LookupFigures> lookups() {
    return of(LookupFigures.class);
  }

  /** {@return the figures of the corrections, in order} */
  public List<StepFigures.Corrected> corrections() {
    return of(StepFigures.Corrected.class);
  }

  /**
   * {@return the figures of one kind of step, in order}
   *
   * @param <F> that kind
   * @param kind the kind
   */
  public <F extends StepFigures> List<F> of(Class<F> kind) {
    Objects.requireNonNull(kind, "kind");
    return steps.stream().filter(kind::isInstance).map(kind::cast).toList();
  }

  /**
   * {@return sums of rollups that are farther from zero than the control total of their column, in
   * words: something was counted more than once}
   */
  public List<String> aboveControlTotals() {
    List<String> above = new ArrayList<>();
    for (StepFigures.RolledUp rollup : of(StepFigures.RolledUp.class)) {
      for (StepFigures.Control control : of(StepFigures.Control.class)) {
        BigDecimal sum = rollup.sums().get(control.column());
        if (control.when().equals(StepFigures.Control.BEFORE)
            && sum != null
            && sum.abs().compareTo(control.total().abs()) > 0) {
          above.add(
              rollup.name()
                  + ": "
                  + control.column()
                  + " adds up to "
                  + sum.toPlainString()
                  + ", and its control total before the lookups is "
                  + control.total().toPlainString());
        }
      }
    }
    return above;
  }

  /**
   * {@return the account as JSON, as {@code --json} prints it: one object; counts are rows,
   * durations seconds}
   *
   * @throws SettingException when the module that writes it, {@code able-twine-plan}, is not there
   */
  public String toJson() {
    return ServiceLoader.load(RecordForm.class)
        .findFirst()
        .orElseThrow(
            () ->
                new SettingException(
                    "a record becomes JSON by org.abletwine:able-twine-plan, which is neither on"
                        + " the class path nor on the module path; add it"))
        .json(this);
  }

  /** {@return transactions a second, over the whole run} */
  public double rowsPerSecond() {
    return rowsIn / Math.max(1e-3, elapsed.toNanos() / 1e9);
  }

  /**
   * Something the plan expects of a run, judged.
   *
   * @param what what is expected to hold, such as {@code matched growers}
   * @param figure what it came to
   * @param limit what was expected
   * @param holds whether it holds
   */
  public record Control(String what, String figure, String limit, boolean holds) {}
}
