package org.abletwine.plan;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
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
  private final Plan plan;
  private final InputTables inputs;
  private final PlanPaths paths;
  private final RunAccount.PlanText text;
  private final Map<String, String> parameters;
  private boolean accounted;

  PlannedRun(
      Enrichment.Builder enrichment,
      Map<String, Lookup> lookups,
      Plan plan,
      ControlJudge controls,
      InputTables inputs,
      PlanSource source,
      boolean usesDraft) {
    this.plan = plan;
    this.inputs = inputs;
    this.paths = PlanPaths.of(source.file());
    this.text = source.text();
    this.parameters = source.parameters();
    List<Path> files = OutputPaths.of(plan);
    this.writes = !files.isEmpty() || !OutputPaths.places(plan).isEmpty();
    this.usesDraft = usesDraft;
    this.files = List.copyOf(files);
    this.controls = controls;
    this.enrichment = enrichment;
    this.lookups = lookups;
    this.outputs = plan.outputs();
  }

  /**
   * A plan as it was read.
   *
   * @param file where it is
   * @param text what it says
   * @param parameters the values of its parameters, by name
   */
  record PlanSource(Path file, RunAccount.PlanText text, Map<String, String> parameters) {}

  /**
   * States that the whole account of the run is wanted, checksums of all files included, even if
   * the plan writes no record.
   *
   * @return this run
   */
  public PlannedRun accounted() {
    accounted = true;
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
   * @param record the figures of the run
   * @param account the whole account; null unless the plan writes it, or it was asked for
   * @param enriched where the rows went; null for nowhere
   * @param form how they are written down, in words
   * @param bytes their size
   * @param others the other files, each with what is in it
   */
  public record Result(
      RunRecord record,
      @Nullable RunAccount account,
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
    boolean accounts = accounted || outputs.record() != null;
    Path target = outputs.corrections();
    UnmatchedKeys unmatched = target != null || accounts ? new UnmatchedKeys() : null;
    CorrectionsDraft draft =
        target == null || unmatched == null
            ? null
            : new CorrectionsDraft(target, lookups, usesDraft, unmatched, this::keysOf);
    if (draft != null) {
      draft.check();
    }
    WrittenOutputs written = new WrittenOutputs(paths);
    OutputGroup together = new OutputGroup();
    Told told = new Told(unmatched);
    boolean tells = unmatched != null || outputs.exceptions() != null;
    RunContext context =
        new RunContext(inputs.noting(progress), tells ? told : Exceptions.NONE, together);
    try (together;
        BatchSink sink = enriched == null ? new NoRows() : context.open(enriched)) {
      ExceptionList exceptions = exceptions(context);
      told.file = exceptions;
      together.add(exceptions == null ? List.of() : List.of(exceptions.output()));
      OutputFile recordFile = outputs.record() == null ? null : new OutputFile(outputs.record());
      List<Output> ofRecord = recordFile == null ? List.of() : List.of(recordFile);
      RunRecord figures;
      RunAccount account = null;
      try {
        figures = enrichment.build().writeTo(sink, context);
        figures = figures.with(parameters, controls.judge(figures));
        if (enriched != null) {
          written.add("enriched", enriched, figures.rowsOut(), null);
        }
        ExceptionSpec wanted = outputs.exceptions();
        if (exceptions != null && wanted != null) {
          exceptions.finish();
          written.add("exceptions", wanted.place(), exceptions.rows(), exceptions.told());
        }
        if (draft != null && target != null) {
          together.add(List.of(draft(draft, target, written)));
        }
        written.rollups(figures, outputs);
        written.apart(figures, lookups, plan.steps());
        if (accounts && unmatched != null) {
          account = account(figures, written, unmatched, together.complete());
        }
        if (recordFile != null && account != null) {
          byte[] json = (RunJson.text(account) + "\n").getBytes(StandardCharsets.UTF_8);
          recordFile.write(json, json.length);
          written.tell(outputs.record(), "the run record");
        }
        together.add(ofRecord); // the last to be moved: where it is, all is
        together.commit();
      } finally {
        ofRecord.forEach(Output::close);
      }
      return new Result(
          figures, account, enriched, sink.form(), sink.bytesWritten(), written.told());
    }
  }

  private RunAccount account(
      RunRecord figures, WrittenOutputs written, UnmatchedKeys unmatched, Map<Path, Path> beside) {
    String version = PlannedRun.class.getPackage().getImplementationVersion();
    return new RunAccount(
        figures,
        version == null ? "unpackaged" : version,
        text,
        inputs.account(paths),
        written.account(beside),
        unmatched.told());
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

  private Output draft(CorrectionsDraft draft, Path target, WrittenOutputs written) {
    CorrectionsDraft.Written drafted = draft.write();
    written.add(
        "corrections draft",
        target,
        drafted.proposed() + drafted.kept(),
        drafted.proposed()
            + (drafted.proposed() == 1 ? " unmatched key, " : " unmatched keys, ")
            + drafted.clear()
            + " with a clear correction"
            + (drafted.kept() == 0
                ? ""
                : ", " + drafted.kept() + (drafted.kept() == 1 ? " line kept" : " lines kept"))
            + (drafted.doubtful().isEmpty() ? "" : "; " + drafted.doubtful()));
    return drafted.rows();
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
    private final @Nullable UnmatchedKeys unmatched;
    private @Nullable ExceptionList file;

    Told(@Nullable UnmatchedKeys unmatched) {
      this.unmatched = unmatched;
    }

    @Override
    public void found(Found found) {
      if (file != null) {
        file.found(found);
      }
      if (unmatched != null) {
        unmatched.found(found);
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

  /**
   * The plan in plain sentences.
   *
   * @param figures what came of it in a run; null before one
   */
  public List<PlanSentence> words(@Nullable RunRecord figures) {
    return PlanWords.of(plan, figures);
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
