package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.abletwine.compute.RowFilter;
import org.abletwine.correct.Correction;
import org.abletwine.derive.Compute;
import org.abletwine.derive.Keep;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.plan.Plan.ComputeSpec;
import org.abletwine.plan.Plan.CorrectSpec;
import org.abletwine.plan.Plan.KeepSpec;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.plan.Plan.PlainSpec;
import org.abletwine.plan.Plan.ReferenceSpec;
import org.abletwine.plan.Plan.StepSpec;
import org.abletwine.plan.Plan.TableSpec;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Step;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.DataException;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.Mark;

/** Turns a well-formed plan into the enrichment it describes, reading the heads of its tables. */
final class PlanCompiler {
  private final Plan plan;
  private final Mistakes mistakes;
  private final Map<String, Table> references = new LinkedHashMap<>();
  private final List<Path> inputs = new ArrayList<>();
  private final InputTables tables = new InputTables();
  private final PlannedRun.PlanSource source;
  private @Nullable DataException unreadable;

  private PlanCompiler(Plan plan, PlannedRun.PlanSource source, Mistakes mistakes) {
    this.plan = plan;
    this.source = source;
    this.mistakes = mistakes;
    inputs.add(source.file());
  }

  static @Nullable PlannedRun compile(Plan plan, PlannedRun.PlanSource source, Mistakes mistakes) {
    return new PlanCompiler(plan, source, mistakes).compile();
  }

  private @Nullable PlannedRun compile() {
    Table transactions = open("transactions", plan.transactions());
    int counted = 0;
    for (Map.Entry<String, ReferenceSpec> entry : plan.references().entrySet()) {
      boolean totals = entry.getValue().rollup() != null; // made where they are used
      Table table = totals ? null : open(entry.getKey(), entry.getValue().table());
      counted += totals ? 1 : 0;
      if (table != null) {
        references.put(entry.getKey(), table);
      }
    }
    if (unreadable != null && mistakes.none()) {
      throw unreadable;
    }
    if (transactions == null || references.size() + counted < plan.references().size()) {
      return null;
    }
    Plan.ExceptionSpec exceptions = plan.outputs().exceptions();
    Enrichment.Builder builder =
        Enrichment.of(transactions)
            .measure(plan.settings().measure())
            .keepPrivate(plan.settings().hidden())
            .carry(exceptions == null ? List.of() : exceptions.carry());
    if (!plan.title().isEmpty()) {
      builder.title(plan.title());
    }
    links().check();
    Map<String, Lookup> lookups = new LinkedHashMap<>();
    Map<String, String> referenceOf = new LinkedHashMap<>();
    List<Placed> steps = new ArrayList<>();
    for (StepSpec spec : plan.steps()) {
      totals(spec, steps, transactions);
      for (Step step : compile(spec, transactions)) {
        if (step instanceof Lookup lookup) {
          if (lookups.put(lookup.name(), lookup) != null) {
            mistakes.add(
                spec.place(),
                "two lookups are called \"" + lookup.name() + "\"; give one another name: NAME");
            continue;
          }
          referenceOf.put(lookup.name(), String.valueOf(spec.reference()));
        }
        steps.add(new Placed(step, spec.place()));
      }
    }
    Tail tail = new Tail(plan, transactions, mistakes, expressions());
    tail.checkNames(lookups.keySet(), referenceOf);
    steps = tail.around(steps);
    steps.forEach(placed -> builder.step(placed.step()));
    Set<String> columns = new LinkedHashSet<>();
    for (Enrichment.Mistake mistake : builder.build().check(columns)) {
      boolean ofStep = mistake.step() != Enrichment.Mistake.NO_STEP;
      Optional<Mark> place = ofStep ? steps.get(mistake.step()).place() : Optional.empty();
      mistakes.add(place, mistake.message());
    }
    checkPrivate(columns);
    checkOutputs();
    return new PlannedRun(
        builder,
        lookups,
        plan,
        new ControlJudge(plan.controls(), referenceOf),
        tables,
        source,
        usesDraft());
  }

  /** Makes the totals that a step fetches from, of the rows as the steps before leave them. */
  private void totals(StepSpec spec, List<Placed> before, Table transactions) {
    List<String> names = new ArrayList<>();
    if (spec.reference() != null) {
      names.add(spec.reference());
    }
    if (spec instanceof LookupSpec lookup) {
      lookup.otherwise().forEach(other -> names.add(other.reference()));
    }
    for (String name : names) {
      ReferenceSpec reference = plan.references().get(name);
      Plan.RollupSpec rollup = reference == null ? null : reference.rollup();
      if (rollup == null) {
        continue;
      }
      Enrichment.Builder rows = Enrichment.of(transactions).keepPrivate(plan.settings().hidden());
      before.forEach(placed -> rows.step(placed.step()));
      try {
        references.put(name, rows.build().totals(Tail.rollup(rollup, transactions, expressions())));
      } catch (SettingException e) {
        boolean ofSteps = !String.valueOf(e.getMessage()).startsWith("rollups");
        if (!ofSteps) { // what is wrong with the steps is told with them
          mistakes.add(rollup.mark(), String.valueOf(e.getMessage()));
        }
      }
    }
  }

  /** Whether the draft of corrections that is written is one of the tables that are read. */
  private boolean usesDraft() {
    Path draft = plan.outputs().corrections();
    return draft != null
        && plan.references().values().stream()
            .flatMap(reference -> reference.table().files().stream())
            .anyMatch(file -> same(file, draft));
  }

  private static boolean same(Path one, Path other) {
    return one.toAbsolutePath().normalize().equals(other.toAbsolutePath().normalize());
  }

  /** A step and where it stands in the plan. */
  record Placed(Step step, Optional<Mark> place) {}

  private Evaluation expressions() {
    return new Evaluation(plan.settings().errorsAreNull(), plan.settings().today());
  }

  private List<Step> compile(StepSpec spec, Table transactions) {
    if (spec instanceof CorrectSpec correct) {
      Correction correction = correction(correct);
      return correction == null ? List.of() : List.of(correction);
    }
    if (spec instanceof PlainSpec plain) {
      return List.of(plain.step());
    }
    if (spec instanceof ComputeSpec compute) {
      return List.of(new Compute(compute.column(), compute.expression(), expressions()));
    }
    if (spec instanceof KeepSpec keep) {
      return List.of(new Keep(keep.condition(), keep.leftOut(), transactions, expressions()));
    }
    return links().follow((LookupSpec) spec, this::lookup);
  }

  private Links links() {
    return new Links(plan.references(), references, expressions(), mistakes);
  }

  private @Nullable Table open(String name, TableSpec spec) {
    for (Path file : spec.files()) {
      if (!inputs.contains(file) || !OutputPaths.readOnce(file)) {
        continue;
      }
      mistakes.add(
          spec.mark(),
          file + " can be read only once, and two tables of the plan need it; give a file for one");
      return null;
    }
    try {
      List<Path> files = new ArrayList<>();
      spec.files().forEach(file -> files.addAll(Tables.matching(file)));
      inputs.addAll(files);
      Table table =
          spec.database() == null
              ? Tables.files(spec.files(), spec.options())
              : spec.database().open(spec.options());
      tables.opened(name, table, files);
      table.schema();
      return table;
    } catch (SettingException e) {
      mistakes.add(spec.mark(), String.valueOf(e.getMessage()));
    } catch (DataException e) {
      // Told among the mistakes when there are others, else thrown: the data's fault, not the
      // plan's.
      if (unreadable == null) {
        unreadable = e;
      }
      noteLater(spec, e);
    }
    return null;
  }

  private void noteLater(TableSpec spec, AbleTwineException e) {
    if (!mistakes.none()) {
      mistakes.add(spec.mark(), String.valueOf(e.getMessage()));
    }
  }

  private Lookup filtered(Lookup lookup, ReferenceSpec reference) {
    if (reference.where() == null) {
      return lookup;
    }
    try {
      return lookup.where(reference.where());
    } catch (SettingException e) {
      mistakes.add(reference.whereMark(), String.valueOf(e.getMessage()));
      return lookup;
    }
  }

  private @Nullable Lookup lookup(LookupSpec step) {
    Table table = references.get(step.reference());
    ReferenceSpec reference = plan.references().get(step.reference());
    if (table == null || reference == null) {
      return null;
    }
    try {
      Lookup lookup = Lookup.in(table).named(step.name() == null ? step.reference() : step.name());
      lookup =
          filtered(lookup, reference)
              .duplicates(reference.duplicates())
              .unreadable(reference.leavesOutUnreadable());
      for (LookupSpec other : step.otherwise()) {
        Lookup further = lookup(other);
        lookup = further == null ? lookup : lookup.otherwise(further);
      }
      for (KeyPart part : key(step, reference)) {
        lookup = lookup.key(part);
      }
      if (step.normalise() != null) {
        lookup = lookup.normalise(step.normalise());
      }
      lookup =
          step.bringAll() ? lookup.bringAll() : lookup.bring(step.bring().toArray(String[]::new));
      if (step.when() != null) {
        lookup = lookup.when(step.when(), expressions());
      }
      if (step.several() != null) {
        lookup = lookup.several(step.several());
      }
      for (var treatment : step.treatments().entrySet()) {
        lookup = lookup.when(treatment.getKey(), treatment.getValue());
      }
      if (!step.empty().values().isEmpty()) {
        lookup = lookup.whenEmpty(step.empty());
      }
      return step.mark() == null ? lookup : lookup.markAs(step.mark());
    } catch (SettingException e) {
      for (String message : String.valueOf(e.getMessage()).split("\n")) {
        mistakes.add(step.place(), message);
      }
      return null;
    }
  }

  private @Nullable Correction correction(CorrectSpec step) {
    Table table = references.get(step.reference());
    ReferenceSpec reference = plan.references().get(step.reference());
    if (table == null || reference == null) {
      return null;
    }
    try {
      if (reference.where() != null) {
        RowFilter.parse(reference.where(), table);
      }
      return new Correction(
          step.column(),
          table,
          step.written(),
          step.meant(),
          step.part(),
          reference.where(),
          step.normalise() == null ? List.of(Normalise.trim()) : step.normalise());
    } catch (SettingException e) {
      mistakes.add(reference.whereMark(), String.valueOf(e.getMessage()));
      return null;
    }
  }

  private List<KeyPart> key(LookupSpec step, ReferenceSpec reference) {
    if (!step.key().isEmpty()) {
      return step.key();
    }
    if (reference.key().isEmpty()) {
      throw new SettingException(
          "lookup "
              + step.reference()
              + ": no key; state key: ours = theirs, here or as the"
              + " reference's key");
    }
    return reference.key().stream().map(name -> new KeyPart(name, name, null)).toList();
  }

  /** A name that no table has and no step makes would keep nothing private. */
  private void checkPrivate(Set<String> columns) {
    Set<String> known = new LinkedHashSet<>(columns);
    references.values().forEach(table -> known.addAll(table.schema().names()));
    for (String name : plan.settings().hidden()) {
      if (!known.contains(name)) {
        mistakes.add(
            plan.settings().hiddenMark(),
            "private: no table has a column \""
                + name
                + "\", nor does a step make one; "
                + NearestName.hint(name, known));
      }
    }
  }

  private void checkOutputs() {
    List<Path> taken = new ArrayList<>();
    List<Destination> places = OutputPaths.places(plan);
    Set<String> named = new HashSet<>();
    for (Destination place : places) {
      Path file = place.file();
      if (!named.add(place.toString().toLowerCase(Locale.ROOT)) && place.together()) {
        mistakes.add(
            plan.outputs().mark(),
            "outputs: " + place + " is written twice; give each output its own sheet");
        continue;
      }
      boolean other =
          places.stream()
              .anyMatch(
                  one ->
                      one.together()
                          && !one.toString().equals(place.toString())
                          && Objects.equals(one.file(), file));
      if (file != null) {
        checkOutput(file, inputs, other && place.together() ? List.of() : taken);
        taken.add(file);
      }
    }
    // The draft may be read too: a run keeps the lines that were decided, and only adds to them.
    Path draft = plan.outputs().corrections();
    if (draft != null) {
      checkOutput(draft, inputs.subList(0, 1), taken);
      taken.add(draft);
    }
    for (Path file : Arrays.asList(plan.outputs().report(), plan.outputs().record())) {
      if (file != null) {
        checkOutput(file, inputs, taken);
        taken.add(file);
      }
    }
  }

  private void checkOutput(Path file, List<Path> read, List<Path> taken) {
    String problem = OutputPaths.problem(file, read, taken);
    if (problem != null) {
      mistakes.add(plan.outputs().mark(), "outputs: " + problem);
    }
  }
}
