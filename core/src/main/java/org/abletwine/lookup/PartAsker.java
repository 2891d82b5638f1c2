package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.Trace;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.output.StoredBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/**
 * Asks parts of a large reference, one after another: each is loaded, asked by its rows by the very
 * worker that asks one in memory, and let go. What was found beside the answers is added up over
 * all parts asked. By one thread.
 */
final class PartAsker {
  private static final int ROWS_A_WORKER = 10_000;

  private final Lookup lookup;
  private final LargeReference large;
  private final AskedColumns columns;
  private final RunContext context;
  private final List<LoadedParts> loading;
  private final AskedParts parts;
  private final ToldOfParts told;
  private @Nullable LookupWorker tally;
  private @Nullable ReferenceFacts facts;
  private PreparedLookup.@Nullable Shared shared;

  /**
   * @param held the lookup's reference, which is divided, and those tried otherwise
   * @param columns what is known of the rows that ask
   */
  PartAsker(Lookup lookup, List<Held> held, AskedColumns columns, RunContext context) {
    this.lookup = lookup;
    this.large = (LargeReference) held.get(0);
    this.columns = columns;
    this.context = context;
    loading = held.stream().map(LoadedParts::new).toList();
    parts = new AskedParts(lookup);
    told = new ToldOfParts(spill());
  }

  private Spill spill() {
    return Objects.requireNonNull(context.spill(), "what may be in memory");
  }

  /**
   * Loads a part of each reference, in place of those loaded before.
   *
   * @return whether it can be asked; not so when a row stops one of them, which is told once it is
   *     known which row of the whole is the first
   */
  boolean load(int part) {
    shared = null;
    Lookup own = lookup.quietIn(large.parts().get(part));
    List<LoadedReference> all = new ArrayList<>();
    for (int i = 0; i < loading.size(); i++) {
      Lookup of = i == 0 ? own : lookup.tried().get(i);
      LoadedReference one = loading.get(i).part(of, part, context.workers());
      if (one != null) {
        all.add(one);
      }
    }
    if (all.size() < loading.size()) {
      return false;
    }
    LoadedReference first = all.get(0);
    if (context.exceptions() != Exceptions.NONE) {
      told.part(
          into ->
              PreparedLookup.tellReference(
                  own,
                  first,
                  (found, kind, after) -> {
                    if (kind < PreparedLookup.COLLISION) {
                      into.found(found, kind, after);
                    }
                  }));
    }
    ReferenceFacts found = ReferenceFacts.of(own, first);
    facts = facts == null ? found : facts.and(found);
    shared = shared(own, all);
    return true;
  }

  private PreparedLookup.Shared shared(Lookup own, List<LoadedReference> loaded) {
    List<Lookup> tried = own.tried();
    List<String> brought = own.bring.stream().map(Attribute::as).toList();
    LookupFills fills = new LookupFills(own);
    @Nullable String[] emptyFills = fills.of(Outcome.MATCHED.ordinal());
    List<int[]> keys = columns.keys();
    Supplier<Source[]> sources =
        () -> {
          Source[] made = new Source[tried.size()];
          for (int i = 0; i < made.length; i++) {
            made[i] = new Source(tried.get(i), loaded.get(i), keys.get(i), brought, emptyFills);
          }
          return made;
        };
    return new PreparedLookup.Shared(
        own,
        sources,
        keys.get(0),
        columns.asked(),
        fills,
        columns.tableName(),
        Trace.NONE,
        columns.measure(),
        new int[0],
        List.of(),
        parts,
        Apart.NONE);
  }

  /**
   * Asks the part that is loaded.
   *
   * @param rows the rows whose keys belong to it, as {@link KeyRows} keeps them
   * @param into takes the answers, in the order of the rows
   */
  void ask(Stored rows, StoredBytes into) {
    PreparedLookup.Shared asked = Objects.requireNonNull(shared, "a part is loaded");
    List<Answerer> workers = new ArrayList<>();
    Supplier<Workers.Worker> make =
        () -> {
          Answerer worker = new Answerer(asked, columns.count(), into);
          workers.add(worker);
          return worker;
        };
    try (Pieces pieces = BatchTable.of(columns.table(rows)).pieces(columns.count() + 1, null)) {
      Workers.run(pieces, workers(rows.rows()), false, make);
    }
    for (Answerer worker : workers) {
      if (tally == null) {
        tally = worker.lookup();
      } else {
        tally.merge(worker.lookup());
      }
    }
  }

  /** How many threads are worth having for so many rows. */
  private int workers(long rows) {
    return (int) Math.min(context.workers(), 1 + rows / ROWS_A_WORKER);
  }

  /** What is wrong with each of the references, as far as they were loaded. */
  List<Refused> refused() {
    return loading.stream().map(LoadedParts::refused).toList();
  }

  /** The counts of all that asked. */
  LookupWorker tally() {
    return Objects.requireNonNull(tally, "a part was asked");
  }

  /** What was found in the parts loaded. */
  ReferenceFacts facts() {
    return Objects.requireNonNull(facts, "a part was loaded");
  }

  /** Which parts of keys were asked for. */
  AskedParts parts() {
    return parts;
  }

  /** What needs attention in the parts loaded. */
  ToldOfParts told() {
    return told;
  }
}
