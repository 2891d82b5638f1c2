package org.abletwine.plan;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInput;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.Serializable;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import org.abletwine.enrich.Enrichment;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.HeldReferences;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.TakenElsewhere;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.DataException;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.NoRows;
import org.abletwine.table.batch.RangedTable;
import org.abletwine.table.batch.Stretch;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * A plan whose rows are taken by several processes, each some of them, and put together by one:
 * with the same rows and figures as a run by one process. Every process opens the plan for itself,
 * with the same {@link Sharing}; its files must be where all can read and write them.
 *
 * <p>One process cuts the transactions ({@link #stretches}); any look at a stretch each ({@link
 * #look}), which {@link Stretch#rows} makes into ranges of whole rows; any take a range each
 * ({@link #take}), and may do so again if they were killed; and one puts all together ({@link
 * #finish}), and may do so again too. {@link #discard} clears away what lies beside the outputs.
 *
 * <p>References are loaded once in each process, and shared by its threads: safe for use by
 * several.
 */
@SuppressWarnings("exports") // stretches of tables are for the modules of this product
public final class PlanInParts implements AutoCloseable {
  /** How many times its file a reference takes in memory, about. */
  static final int USUAL_GROWTH = 2;

  private static final Duration LEFT_BEHIND = Duration.ofDays(1);

  private final Sharing sharing;
  private final PlannedRun run;
  private final Enrichment enrichment;
  private final RangedTable transactions;
  private final HeldReferences references;

  /** The places that rows are written to, in parts. */
  private final Set<Destination> parted;

  /**
   * What all processes of one run have in common.
   *
   * @param plan the plan file
   * @param set values of its parameters, by name
   * @param today what it calls today
   * @param started when the run began
   * @param run what tells it from other runs, letters and digits
   * @param digests the key of the digests that stand for private values
   * @param memory bytes that references may take together in each process; 0 for what is usual
   * @param workers how many threads take the rows of one range
   * @param temporary the folder for those that do not fit; null for that for temporary files
   */
  public record Sharing(
      String plan,
      TreeMap<String, String> set,
      LocalDate today,
      Instant started,
      String run,
      byte[] digests,
      long memory,
      int workers,
      @Nullable String temporary)
      implements Serializable {}

  private PlanInParts(Sharing sharing) {
    this.sharing = sharing;
    Veil.use(sharing.digests());
    Path temporary = folder();
    run =
        PlanFile.load(FarFiles.resolve(Path.of(""), sharing.plan()), sharing.set(), sharing.today())
            .memory(sharing.memory(), temporary);
    enrichment = run.enrichment();
    transactions = RangedTable.of(run.inputs().transactions());
    references = new HeldReferences(sharing.memory(), temporary);
    parted = parted(run.plan());
  }

  /**
   * Opens a plan.
   *
   * @param sharing what all processes have in common
   * @throws SettingException naming every mistake, a line each
   * @throws DataException when a file cannot be read
   */
  public static PlanInParts open(Sharing sharing) {
    return new PlanInParts(sharing);
  }

  private static Set<Destination> parted(Plan plan) {
    Set<Destination> places = new LinkedHashSet<>(OutputPaths.places(plan));
    Plan.ExceptionSpec exceptions = plan.outputs().exceptions();
    if (exceptions != null) {
      places.remove(exceptions.place());
    }
    plan.outputs().rollups().forEach(rollup -> places.remove(rollup.file()));
    return places;
  }

  /**
   * What several processes cannot do of a plan, each in a line; empty when there is nothing.
   *
   * @param file the plan file
   * @param set values of its parameters, by name
   * @throws SettingException naming every mistake of the plan
   * @throws DataException when a file cannot be read
   */
  public static List<String> refusals(Path file, Map<String, String> set) {
    PlannedRun run = PlanFile.load(file, set);
    List<String> refusals = new ArrayList<>();
    if (run.files().isEmpty()) {
      refusals.add(PlannedRun.WRITES_NOTHING);
    }
    Set<Destination> parted = parted(run.plan());
    for (Destination place : OutputPaths.places(run.plan())) {
      Path target = place.file();
      if (target == null || target.toString().equals("-")) {
        refusals.add(
            place
                + ": a database, or standard output, would be written twice where a process is"
                + " started again; write a file");
      } else if (parted.contains(place) && place.part(target) == null) {
        refusals.add(
            place
                + ": files of this kind cannot be written in parts; write .csv, .tsv, .json or"
                + " .jsonl, packed as .gz or .zst or not");
      }
    }
    for (Path input : run.inputs().files()) {
      if (OutputPaths.readOnce(input)) {
        refusals.add(input + " can be read only once, by one process; give a file");
      }
    }
    return refusals;
  }

  /**
   * {@return whether the references seem not to fit in the memory that they may take here: then
   * each range costs a reading of all their parts on disk, and there should be few}
   */
  public boolean fewRanges() {
    return run.inputs().sizeOfReferences() > references.memory() / USUAL_GROWTH;
  }

  /**
   * The lookups whose references processes divide among them, since they seem not to fit in the
   * memory that they may take here.
   *
   * @param processes how many there are, so that each has a part
   * @return the same for the same plan and memory, in the order of the steps
   */
  public List<PlanExchange.Round> rounds(int processes) {
    return PlanExchange.rounds(this, processes);
  }

  /**
   * How processes divide references among them.
   *
   * @param rounds the lookups, as one process has settled them for all
   */
  public PlanExchange exchange(List<PlanExchange.Round> rounds) {
    return new PlanExchange(this, rounds);
  }

  Enrichment enrichment() {
    return enrichment;
  }

  /** How many bytes references may take in memory. */
  long memory() {
    return references.memory();
  }

  int workers() {
    return sharing.workers();
  }

  /** Whether rows that need attention are told of. */
  boolean tells() {
    return run.tells();
  }

  /** Room on disk, for whoever closes it. */
  Spill spill() {
    return new Spill(sharing.memory(), folder());
  }

  private @Nullable Path folder() {
    return sharing.temporary() == null ? null : Path.of(sharing.temporary());
  }

  /** Some of the transactions. */
  Table rows(Stretch.Range range) {
    return transactions.rows(range);
  }

  /** As {@link Enrichment#exchange}. */
  <T> T exchange(
      @Nullable Table rows, String lookup, Exchange found, Function<Exchanging.Rows, T> use) {
    RunContext context =
        new RunContext(
                run.inputs().noting(Progress.NONE),
                run.tells() ? told -> {} : Exceptions.NONE,
                null)
            .among(Destination::open, references, null, found);
    return enrichment.exchange(rows, lookup, context, use);
  }

  /** Where it is noted what was found by asking parts of references. */
  PartsFound partsFound() {
    return new PartsFound(noted(), run.files().get(0), run.inputs());
  }

  private PlanParts parts(Destination place) {
    Path target = place.file();
    if (target == null) {
      throw new SettingException(place + ": only files are written by several processes");
    }
    return new PlanParts(target.toAbsolutePath().normalize(), sharing.run());
  }

  /** Where it is noted what each part has come to. */
  private PlanParts noted() {
    Path first = run.files().get(0).toAbsolutePath().normalize();
    return new PlanParts(first.resolveSibling(first.getFileName() + ".counts"), sharing.run());
  }

  /** Makes the folders that parts go to, and clears away what was left behind long ago. */
  public void begin() {
    List<PlanParts> all = new ArrayList<>(List.of(noted()));
    parted.forEach(place -> all.add(parts(place)));
    for (PlanParts one : all) {
      clear(one);
      try {
        Files.createDirectories(one.beside());
      } catch (IOException e) {
        throw new DataException(
            "cannot write to the folder "
                + one.beside().getParent()
                + ": "
                + e.getMessage()
                + "; check its permissions, or write elsewhere",
            e);
      }
    }
  }

  private static void clear(PlanParts parts) {
    Path folder = parts.target().getParent();
    String glob = "." + parts.target().getFileName() + ".*.parts";
    if (folder == null || !Files.isDirectory(folder)) {
      return;
    }
    try (DirectoryStream<Path> left = Files.newDirectoryStream(folder, glob)) {
      for (Path one : left) {
        Instant touched = Files.getLastModifiedTime(one).toInstant();
        if (touched.isBefore(Instant.now().minus(LEFT_BEHIND))) {
          JoinedParts.delete(one);
        }
      }
    } catch (IOException e) {
      // what cannot be looked at stays
    }
  }

  /**
   * Cuts the transactions.
   *
   * @param bytes how many each stretch should have, about
   */
  public List<Stretch> stretches(long bytes) {
    return transactions.stretches(bytes);
  }

  /** Looks at a stretch. */
  public Stretch.Looked look(Stretch stretch) {
    return transactions.look(stretch);
  }

  /**
   * Takes some rows through the steps, and writes what comes of them beside the outputs, unless
   * that was done before.
   *
   * @param number which of the ranges, from 1 on
   * @param range the rows
   * @return what ends the run, in words; null when all is well
   */
  public @Nullable String take(int number, Stretch.Range range) {
    return take(number, range, Exchange.NONE);
  }

  /** As {@link #take(int, Stretch.Range)}, where processes divide references among them. */
  @Nullable String take(int number, Stretch.Range range, Exchange exchange) {
    Path counts = noted().handedOn(number);
    if (Files.exists(counts)) {
      return null; // taken by a process that was lost later
    }
    Path begun = counts.resolveSibling(counts.getFileName() + "." + System.nanoTime());
    RunContext context =
        new RunContext(
                run.inputs().noting(Progress.NONE),
                run.tells() ? found -> {} : Exceptions.NONE,
                null)
            .among((place, beside) -> opened(place, number), references, null, exchange);
    Destination enriched = run.plan().outputs().enriched();
    try (BatchSink sink = enriched == null ? new NoRows() : context.open(enriched)) {
      try (DataOutputStream into =
          new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(begun), 1 << 16))) {
        enrichment.writePart(transactions.rows(range), sharing.workers(), sink, context, into);
      }
      Files.move(begun, counts, StandardCopyOption.ATOMIC_MOVE);
      return null;
    } catch (AbleTwineException e) {
      return told(e, number);
    } catch (IOException e) {
      return "cannot write what is counted beside " + run.files().get(0) + ": " + e.getMessage();
    } finally {
      try {
        Files.deleteIfExists(begun);
      } catch (IOException e) {
        // deleted with the folder
      }
    }
  }

  /** What is wrong, with the outputs by the names that they have in the plan. */
  private String told(AbleTwineException e, int number) {
    String message = String.valueOf(e.getMessage());
    for (Destination place : parted) {
      message = message.replace(parts(place).part(number).toString(), place.toString());
    }
    return message;
  }

  private TableSink opened(Destination place, int number) {
    Destination part = place.part(parts(place).part(number));
    if (part == null) {
      throw new SettingException(place + ": files of this kind cannot be written in parts");
    }
    BatchSink sink = BatchSink.of(part.open(null));
    sink.section(BatchSink.Section.ROWS);
    return sink;
  }

  /**
   * Puts together what the processes have written and counted, and moves all outputs into place.
   *
   * @param failures for each range, in their order, what {@link #take} has returned
   * @return what was written
   * @throws DataException what has ended the run, the first of them
   */
  public PlannedRun.Result finish(List<@Nullable String> failures) {
    return finish(failures, Exchange.NONE);
  }

  /** As {@link #finish(List)}, where processes divide references among them. */
  PlannedRun.Result finish(List<@Nullable String> failures, Exchange found) {
    TakenElsewhere taken =
        new TakenElsewhere() {
          @Override
          public Instant started() {
            return sharing.started();
          }

          @Override
          public void each(Consumer<DataInput> part) {
            for (int number = 1; number <= failures.size(); number++) {
              String failure = failures.get(number - 1);
              if (failure != null) {
                throw new DataException(failure);
              }
              counts(number, part);
            }
          }
        };
    return run.run(
        Progress.NONE,
        context ->
            context.among(
                (place, beside) ->
                    parted.contains(place)
                        ? new JoinedParts(place, parts(place))
                        : place.open(beside),
                references,
                taken,
                found));
  }

  private void counts(int number, Consumer<DataInput> part) {
    try (DataInputStream in =
        new DataInputStream(
            new BufferedInputStream(Files.newInputStream(noted().handedOn(number)), 1 << 16))) {
      part.accept(in);
    } catch (IOException e) {
      throw new DataException(
          "what part " + number + " has counted cannot be read: " + e.getMessage(), e);
    }
  }

  /** Clears away what lies beside the outputs: once they are in place, or will not be. */
  public void discard() {
    JoinedParts.delete(noted().beside());
    for (Destination place : parted) {
      JoinedParts.delete(parts(place).beside());
      JoinedParts.delete(parts(place).before());
    }
  }

  /** {@return whether the plan writes a draft of corrections} */
  public boolean drafts() {
    return run.corrections() != null;
  }

  /** Lets the references go. */
  @Override
  public void close() {
    references.close();
  }

  @Override
  public String toString() {
    return "PlanInParts[" + sharing.plan() + "]";
  }
}
