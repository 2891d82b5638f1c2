package org.abletwine.plan;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RollupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Lookup;
import org.abletwine.plan.Plan.ExceptionSpec;
import org.abletwine.plan.Plan.Outputs;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.NoRows;
import org.abletwine.table.output.Output;
import org.abletwine.table.output.OutputFile;
import org.abletwine.table.output.OutputGroup;
import org.jspecify.annotations.Nullable;

/** A plan that has been read and checked, ready to run. For one run, by one thread. */
public final class PlannedRun {
  static final String WRITES_NOTHING =
      "the plan writes nothing; state outputs, such as { enriched: FILE.csv }, or run with"
          + " --preview";

  private final Enrichment.Builder enrichment;
  private final Map<String, Lookup> lookups;
  private final Outputs outputs;
  private final ControlJudge controls;
  private final Map<String, ReferenceKeys> keysOf = new HashMap<>();

  /** All files the plan writes. */
  private final List<Path> files;

  private final boolean writes;
  private final boolean usesDraft;
  private Map<String, String> parameters = Map.of();

  PlannedRun(
      Enrichment.Builder enrichment,
      Map<String, Lookup> lookups,
      Outputs outputs,
      ControlJudge controls,
      List<Path> files,
      boolean writes,
      boolean usesDraft) {
    this.writes = writes;
    this.usesDraft = usesDraft;
    this.files = List.copyOf(files);
    this.controls = controls;
    this.enrichment = enrichment;
    this.lookups = lookups;
    this.outputs = outputs;
  }

  /** States the parameters that the plan was read with, for the record. */
  PlannedRun with(Map<String, String> values) {
    parameters = values;
    return this;
  }

  /**
   * States how many threads work on the rows; one for each processor unless stated.
   *
   * @param count at least 1
   * @return this run
   */
  public PlannedRun workers(int count) {
    enrichment.workers(count);
    return this;
  }

  /**
   * What a run wrote.
   *
   * @param record the account of the run
   * @param enriched where the rows went; null for nowhere
   * @param form how they are written down, in words
   * @param bytes their size
   * @param others the other files, each with what is in it
   */
  public record Result(
      RunRecord record,
      @Nullable Destination enriched,
      String form,
      long bytes,
      List<String> others) {}

  /**
   * Runs the plan and writes its outputs, each beside its place and moved in whole once the run is
   * done.
   *
   * @param progress told about the tables being read
   * @return what was written
   * @throws SettingException when the plan names no output
   * @throws org.abletwine.table.DataException when the data or a file stops the run
   */
  public Result run(Progress progress) {
    Destination enriched = outputs.enriched();
    if (!writes()) {
      throw new SettingException(WRITES_NOTHING);
    }
    CorrectionsDraft draft =
        outputs.corrections() == null
            ? null
            : new CorrectionsDraft(outputs.corrections(), lookups, usesDraft, this::keysOf);
    if (draft != null) {
      draft.check();
    }
    List<String> others = new ArrayList<>();
    OutputGroup together = new OutputGroup();
    Told told = new Told();
    boolean tells = draft != null || outputs.exceptions() != null;
    RunContext context = new RunContext(progress, tells ? told : Exceptions.NONE, together);
    try (together;
        BatchSink sink = enriched == null ? new NoRows() : context.open(enriched)) {
      ExceptionList exceptions = exceptions(context);
      told.file = exceptions;
      told.draft = draft;
      List<Output> ofExceptions = exceptions == null ? List.of() : List.of(exceptions.output());
      together.add(ofExceptions);
      OutputFile recordFile = outputs.record() == null ? null : new OutputFile(outputs.record());
      List<Output> ofRecord = recordFile == null ? List.of() : List.of(recordFile);
      RunRecord figures;
      try {
        figures = enrichment.build().writeTo(sink, context);
        figures = figures.with(parameters, controls.judge(figures));
        ExceptionSpec wanted = outputs.exceptions();
        if (exceptions != null && wanted != null) {
          exceptions.finish();
          others.add(wanted.place() + "  (" + exceptions.told() + ")");
        }
        if (draft != null) {
          together.add(List.of(draft(draft, others)));
        }
        if (recordFile != null) {
          byte[] json = (RunJson.text(figures) + "\n").getBytes(StandardCharsets.UTF_8);
          recordFile.write(json, json.length);
          others.add(outputs.record() + "  (the run record)");
        }
        together.add(ofRecord); // the last to be moved: where it is, all is
        together.commit();
      } finally {
        ofRecord.forEach(Output::close);
      }
      for (RollupFigures rollup : figures.of(RollupFigures.class)) {
        if (!rollup.file().isEmpty()) {
          others.add(rollup.file() + "  (" + told(rollup) + ")");
        }
      }
      setApart(figures, others);
      for (StepFigures.Kept keep : figures.of(StepFigures.Kept.class)) {
        if (!keep.file().isEmpty()) {
          others.add(keep.file() + "  (" + keep.leftOut() + " rows left out by keep)");
        }
      }
      return new Result(figures, enriched, sink.form(), sink.bytesWritten(), others);
    }
  }

  private @Nullable ExceptionList exceptions(RunContext context) {
    ExceptionSpec wanted = outputs.exceptions();
    if (wanted == null) {
      return null;
    }
    BatchSink sink = context.open(wanted.place());
    return wanted.byKey()
        ? new ExceptionKeys(sink, wanted.carry(), lookups, this::keysOf)
        : new ExceptionFile(sink, wanted.carry());
  }

  /** The keys that a lookup can find, read once for all that tell what is near. */
  private ReferenceKeys keysOf(Lookup lookup) {
    return keysOf.computeIfAbsent(lookup.name(), name -> new ReferenceKeys(lookup));
  }

  private static String told(RollupFigures rollup) {
    if (rollup.by().isEmpty()) {
      return "totals of all rows";
    }
    long groups = rollup.groups().size();
    return "totals by "
        + String.join(", ", rollup.by())
        + ", "
        + groups
        + (groups == rollup.allGroups() ? "" : " of " + rollup.allGroups())
        + " groups";
  }

  private void setApart(RunRecord figures, List<String> others) {
    for (LookupFigures lookup : figures.lookups()) {
      Map<String, List<String>> labels = new LinkedHashMap<>();
      Lookup step = lookups.get(lookup.name());
      if (step != null) {
        step.treatments()
            .forEach(
                (outcome, treatment) -> {
                  if (treatment.apart() != null) {
                    labels
                        .computeIfAbsent(treatment.apart().toString(), place -> new ArrayList<>())
                        .add(outcome.label());
                  }
                });
      }
      labels.forEach(
          (place, outcomes) ->
              others.add(
                  place
                      + "  (the rows of lookup "
                      + lookup.name()
                      + " that are "
                      + String.join(" or ", outcomes)
                      + ")"));
    }
  }

  private Output draft(CorrectionsDraft draft, List<String> others) {
    CorrectionsDraft.Written written = draft.write();
    others.add(
        outputs.corrections()
            + "  ("
            + written.proposed()
            + (written.proposed() == 1 ? " unmatched key, " : " unmatched keys, ")
            + written.clear()
            + " with a clear correction"
            + (written.kept() == 0
                ? ""
                : ", " + written.kept() + (written.kept() == 1 ? " line kept" : " lines kept"))
            + (written.doubtful().isEmpty() ? "" : "; " + written.doubtful())
            + ")");
    return written.rows();
  }

  /** Returns where the draft of corrections goes; null when the plan writes none. */
  public @Nullable Path corrections() {
    return outputs.corrections();
  }

  /**
   * Whether a run before was ended while it moved its outputs into place, so that what lies there
   * is of two runs.
   *
   * @return what to tell, in words; empty when all is well
   */
  public Optional<String> interrupted() {
    return files.stream().flatMap(file -> OutputGroup.interrupted(file).stream()).findFirst();
  }

  /** Passes on what needs attention to those who gather it. */
  private static final class Told implements Exceptions {
    private @Nullable ExceptionList file;
    private @Nullable CorrectionsDraft draft;

    @Override
    public void found(Found found) {
      if (file != null) {
        file.found(found);
      }
      if (draft != null) {
        draft.found(found);
      }
    }
  }

  /**
   * Runs the first rows and writes no file.
   *
   * @param rows how many transactions
   * @param sink where the rows go
   * @return the account of these rows
   */
  public RunRecord preview(long rows, TableSink sink) {
    RunRecord record = enrichment.firstRows(rows).build().writeTo(sink, RunContext.PREVIEW);
    return record.with(parameters, controls.judge(record));
  }

  /** Whether the plan writes anything. */
  boolean writes() {
    return writes;
  }

  /** Returns the enrichment the plan describes, without its outputs. */
  public Enrichment enrichment() {
    return enrichment.build();
  }
}
