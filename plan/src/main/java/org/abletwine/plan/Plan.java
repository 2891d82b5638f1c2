package org.abletwine.plan;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Duplicates;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Outcome;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.step.Step;
import org.abletwine.table.Destination;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.Mark;

/**
 * A plan as written, every part well-formed, nothing opened yet.
 *
 * @param title what the run is called
 * @param transactions the table to enrich
 * @param references the references by name
 * @param steps the steps, in order
 * @param settings what holds for the whole plan
 * @param controls what the run is expected to come to
 * @param outputs where results go
 */
record Plan(
    String title,
    TableSpec transactions,
    Map<String, ReferenceSpec> references,
    List<StepSpec> steps,
    Settings settings,
    Controls controls,
    Outputs outputs) {

  /** A table and how to read it. */
  record TableSpec(
      List<Path> files,
      DatabaseReader.@Nullable Source database,
      TableOptions options,
      Optional<Mark> mark) {}

  /**
   * A reference, the key it is usually found by (empty when none is stated), its rules, and its
   * links: from a column to the reference it is a key of. Or, in place of a table, totals of the
   * transactions as they are before the step that uses it.
   */
  record ReferenceSpec(
      TableSpec table,
      List<String> key,
      @Nullable String where,
      Duplicates duplicates,
      boolean leavesOutUnreadable,
      Map<String, String> links,
      Optional<Mark> whereMark,
      @Nullable RollupSpec rollup) {}

  /** A step. */
  sealed interface StepSpec permits LookupSpec, CorrectSpec, PlainSpec, ComputeSpec, KeepSpec {
    /** {@return where it stands in the plan} */
    Optional<Mark> place();

    /** {@return the reference it uses, or null} */
    @Nullable String reference();
  }

  /** A correction step. */
  record CorrectSpec(
      String column,
      String reference,
      String written,
      String meant,
      boolean part,
      @Nullable List<NormaliseStep> normalise,
      Optional<Mark> place)
      implements StepSpec {}

  /** A lookup step; what is null was not stated. */
  record LookupSpec(
      String reference,
      @Nullable String name,
      List<KeyPart> key,
      @Nullable List<NormaliseStep> normalise,
      List<String> bring,
      boolean bringAll,
      @Nullable String when,
      @Nullable Several several,
      Map<Outcome, Treatment> treatments,
      Fill empty,
      @Nullable String mark,
      List<LookupSpec> otherwise,
      Optional<Mark> place)
      implements StepSpec {}

  /** A computed column. */
  record ComputeSpec(String column, String expression, Optional<Mark> place) implements StepSpec {
    @Override
    public @Nullable String reference() {
      return null;
    }
  }

  /** A row filter. */
  record KeepSpec(String condition, @Nullable Destination leftOut, Optional<Mark> place)
      implements StepSpec {
    @Override
    public @Nullable String reference() {
      return null;
    }
  }

  /** What holds for the whole plan. */
  record Settings(
      boolean errorsAreNull,
      @Nullable LocalDate today,
      @Nullable String measure,
      Set<String> hidden,
      Optional<Mark> hiddenMark) {}

  /** What a run is expected to come to; shares in per cent. */
  record Controls(
      Map<String, BigDecimal> matched,
      List<String> totals,
      @Nullable String rows,
      List<String> unique,
      Map<String, BigDecimal> nulls,
      List<String> that,
      Optional<Mark> mark) {
    static final Controls NOTHING =
        new Controls(Map.of(), List.of(), null, List.of(), Map.of(), List.of(), Optional.empty());
  }

  /** A rollup. */
  record RollupSpec(
      List<String> by,
      List<String> totals,
      boolean grandTotal,
      List<String> order,
      int top,
      @Nullable String having,
      List<FormatSpec> formats,
      @Nullable Destination file,
      Optional<Mark> mark) {}

  /** A step that needs no reference. */
  record PlainSpec(Step step, Optional<Mark> place) implements StepSpec {
    @Override
    public @Nullable String reference() {
      return null;
    }
  }

  /** The form a column leaves in: a date pattern, or decimal places where that is null. */
  record FormatSpec(
      String column,
      @Nullable String datePattern,
      int decimals,
      @Nullable String example,
      Optional<Mark> mark) {}

  /**
   * Where what needs attention goes.
   *
   * @param place the file or table
   * @param carry columns of the transactions that go with each row
   * @param byKey whether there is a line for each key, and not for each row
   */
  record ExceptionSpec(Destination place, List<String> carry, boolean byKey) {}

  /** Where results go; what is null is not written. */
  record Outputs(
      @Nullable Destination enriched,
      @Nullable ExceptionSpec exceptions,
      @Nullable Path corrections,
      @Nullable Path report,
      @Nullable Path record,
      List<String> dropColumns,
      List<String> orderColumns,
      Map<String, String> rename,
      List<RollupSpec> rollups,
      List<FormatSpec> formats,
      boolean guardsFormulas,
      Optional<Mark> mark) {}
}
