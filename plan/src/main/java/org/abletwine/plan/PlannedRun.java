package org.abletwine.plan;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Lookup;
import org.abletwine.plan.Plan.ExceptionSpec;
import org.abletwine.plan.Plan.Outputs;
import org.abletwine.plan.drift.Drift;
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
  private final Path source;
  private final RunAccount.PlanText text;
  private final Map<String, String> parameters;
  private boolean accounted;
  private @Nullable Path report;
  private Drift.@Nullable Since since;

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
    this.source = source.file();
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
    this.report = plan.outputs().report();
  }

  /**
   * States where the report goes, whatever the plan says.
   *
   * @param file the page; null for where the plan says, if it does
   * @return this run
   * @throws SettingException when it is also an input or another output
   */
  public PlannedRun report(@Nullable Path file) {
    if (file != null) {
      List<Path> read = new ArrayList<>(inputs.files());
      read.add(source);
      String problem = OutputPaths.problem(file, read, files);
      if (problem != null && !file.equals(report)) {
        throw new SettingException("--report " + problem);
      }
      report = file;
    }
    return this;
  }

  /**
   * States the run to compare with, in the report.
   *
   * @param before the earlier run; null for none
   * @return this run
   */
  public PlannedRun since(Drift.@Nullable Since before) {
    since = before;
    accounted |= before != null;
    return this;
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
   * States how much memory references may take together.
   *
   * @param bytes how many; 0 for what is usual
   * @param folder where those go that do not fit; null for the folder for temporary files
   * @return this run
   */
  public PlannedRun memory(long bytes, @Nullable Path folder) {
    enrichment.memory(bytes, folder);
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
    return run(progress, context -> context);
  }

  /**
   * Runs the plan in a context of its own.
   *
   * @param among the context, given that of a run that takes all rows itself
   */
  Result run(Progress progress, UnaryOperator<RunContext> among) {
    Destination enriched = outputs.enriched();
    if (!writes() && report == null) {
      throw new SettingException(WRITES_NOTHING);
    }
    ReportMaker maker = report == null ? null : maker();
    boolean accounts = accounted || outputs.record() != null || maker != null;
    Path target = outputs.corrections();
    AttentionKeys keys = target != null || accounts ? new AttentionKeys() : null;
    CorrectionsDraft corrections =
        keys == null || target == null && maker == null
            ? null
            : new CorrectionsDraft(target, lookups, usesDraft, keys, this::keysOf);
    if (corrections != null) {
      corrections.check();
    }
    if (maker != null || outputs.record() != null) {
      Thread ahead = new Thread(() -> prepare(maker), "prepare the outputs");
      ahead.setDaemon(true);
      ahead.start();
    }
    WrittenOutputs written = new WrittenOutputs(paths);
    OutputGroup together = new OutputGroup();
    Told told = new Told(keys);
    boolean tells = keys != null || outputs.exceptions() != null;
    RunContext context =
        among.apply(
            new RunContext(inputs.noting(progress), tells ? told : Exceptions.NONE, together));
    try (together;
        BatchSink sink = enriched == null ? new NoRows() : context.open(enriched)) {
      ExceptionList exceptions = exceptions(context);
      told.file = exceptions;
      together.add(exceptions == null ? List.of() : List.of(exceptions.output()));
      List<OutputFile> last = new ArrayList<>(); // to be moved: where these are, all is
      RunRecord figures;
      RunAccount account = null;
      try {
        // Opened early: a place that cannot be written is told at once.
        OutputFile reportFile = opened(report, last);
        OutputFile recordFile = opened(outputs.record(), last);
        figures = enrichment.build().writeTo(sink, context);
        figures = figures.with(parameters, controls.judge(figures));
        if (maker != null) {
          maker.begin(figures);
        }
        if (enriched != null) {
          written.add("enriched", enriched, figures.rowsOut(), null);
        }
        ExceptionSpec wanted = outputs.exceptions();
        if (exceptions != null && wanted != null) {
          exceptions.finish(hidden(figures));
          written.add("exceptions", wanted.place(), exceptions.rows(), exceptions.told());
        }
        CorrectionsDraft.Draft draft = corrections == null ? null : corrections.draft(figures);
        if (draft != null && target != null) {
          together.add(List.of(draft.write(target)));
          told(draft, target, written);
        }
        written.rollups(figures, outputs);
        written.apart(figures, lookups, plan.steps());
        if (accounts && keys != null) {
          account = account(figures, written, keys, together.complete());
        }
        if (maker != null && reportFile != null && account != null && keys != null) {
          byte[] page = maker.page(material(account, draft, keys));
          reportFile.write(page, page.length);
          written.tell(reportFile.target(), "the report");
        }
        if (recordFile != null && account != null) {
          byte[] json = (RunJson.text(account) + "\n").getBytes(StandardCharsets.UTF_8);
          recordFile.write(json, json.length);
          written.tell(recordFile.target(), "the run record");
        }
        together.add(last);
        together.commit();
      } finally {
        last.forEach(Output::close);
      }
      return new Result(
          figures, account, enriched, sink.form(), sink.bytesWritten(), written.told());
    }
  }

  /** Makes ready, beside the run, what is first used at its end and takes a while to be. */
  private static void prepare(@Nullable ReportMaker maker) {
    RunJson.prepare();
    if (maker != null) {
      maker.prepare();
    }
  }

  /** The lookups whose key is private. */
  private static Set<String> hidden(RunRecord figures) {
    return figures.lookups().stream()
        .filter(LookupFigures::privateKey)
        .map(LookupFigures::name)
        .collect(Collectors.toSet());
  }

  private static @Nullable OutputFile opened(@Nullable Path place, List<OutputFile> last) {
    if (place == null) {
      return null;
    }
    OutputFile file = new OutputFile(place);
    last.add(file);
    return file;
  }

  private static ReportMaker maker() {
    return ServiceLoader.load(ReportMaker.class)
        .findFirst()
        .orElseThrow(
            () ->
                new SettingException(
                    "a report is wanted, and nothing that makes one is on the class path; add"
                        + " able-twine-report"));
  }

  private RunAccount account(
      RunRecord figures, WrittenOutputs written, AttentionKeys keys, Map<Path, Path> beside) {
    String version = PlannedRun.class.getPackage().getImplementationVersion();
    return new RunAccount(
        figures,
        version == null ? "unpackaged" : version,
        text,
        inputs.account(paths),
        written.account(beside),
        keys.unmatched());
  }

  private ReportMaterial material(
      RunAccount account, CorrectionsDraft.@Nullable Draft draft, AttentionKeys keys) {
    Path corrections = outputs.corrections();
    ExceptionSpec exceptions = outputs.exceptions();
    return new ReportMaterial(
        account,
        words(account.figures()),
        PlanCloser.of(text.file(), corrections != null),
        draft == null
            ? ReportMaterial.Corrections.NONE
            : draft.told(corrections == null ? "" : paths.told(corrections)),
        keys.worst(ReportMaterial.MOST_KEYS),
        exceptions == null ? "" : paths.told(exceptions.place()),
        since == null ? null : since.to(account));
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

  private static void told(CorrectionsDraft.Draft draft, Path target, WrittenOutputs written) {
    int proposed = draft.proposed().size();
    int kept = draft.kept().size();
    written.add(
        "corrections draft",
        target,
        proposed + kept,
        proposed
            + (proposed == 1 ? " unmatched key, " : " unmatched keys, ")
            + draft.clear()
            + " with a clear correction"
            + (kept == 0 ? "" : ", " + kept + (kept == 1 ? " line kept" : " lines kept"))
            + (draft.doubtful().isEmpty() ? "" : "; " + draft.doubtful()));
  }

  /** {@return where the draft of corrections goes; null when the plan writes none} */
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
    private final @Nullable AttentionKeys keys;
    private @Nullable ExceptionList file;

    Told(@Nullable AttentionKeys keys) {
      this.keys = keys;
    }

    @Override
    public void found(Found found) {
      if (file != null) {
        file.found(found);
      }
      if (keys != null) {
        keys.found(found);
      }
    }
  }

  /**
   * Runs all rows and writes nothing.
   *
   * @param progress told about the tables being read
   * @return the figures
   */
  public RunRecord count(Progress progress) {
    return count(progress, new NoRows());
  }

  /**
   * Runs all rows, which go to a sink, and writes no file.
   *
   * @param progress told about the tables being read
   * @param sink where the rows go
   * @return the figures
   */
  public RunRecord count(Progress progress, TableSink sink) {
    RunRecord record = enrichment.build().writeTo(sink, RunContext.counting(progress));
    return record.with(parameters, controls.judge(record));
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

  /** The plan. */
  Plan plan() {
    return plan;
  }

  /** What the plan reads. */
  InputTables inputs() {
    return inputs;
  }

  /** All files the plan writes. */
  List<Path> files() {
    return files;
  }

  /** Whether anybody is told of rows that need attention. */
  boolean tells() {
    return accounted
        || report != null
        || outputs.record() != null
        || outputs.corrections() != null
        || outputs.exceptions() != null;
  }

  /** Whether the plan writes anything. */
  boolean writes() {
    return writes;
  }

  /** {@return the enrichment the plan describes, without its outputs} */
  public Enrichment enrichment() {
    return enrichment.build();
  }
}
