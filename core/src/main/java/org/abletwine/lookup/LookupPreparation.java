package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.Trace;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * Prepares a lookup for one run: checks it against the columns, loads its references, or divides
 * the first of them where it does not fit in memory, and decides how its rows are asked. For one
 * thread.
 */
final class LookupPreparation {
  private final Lookup lookup;
  private final RunContext context;
  private final Columns columns;
  private final Columns before;
  private final List<int[]> keyColumns;

  /**
   * @param lookup the lookup, which knows what of it is private
   * @param columns the columns so far; the lookup's own are added
   */
  LookupPreparation(Lookup lookup, Columns columns, RunContext context) {
    this.lookup = lookup;
    this.context = context;
    this.columns = columns;
    before = columns.copy();
    keyColumns = LookupCheck.against(lookup, columns);
  }

  PreparedStep prepared() {
    List<LoadedReference> loaded = new ArrayList<>();
    LargeReference large = null;
    for (Lookup from : lookup.tried()) {
      LoadKey key = LoadKey.of(from);
      Held held = columns.shared(key, Held.class, () -> held(from));
      if (held instanceof LoadedReference inMemory) {
        loaded.add(inMemory);
      } else if (from == lookup) {
        large = (LargeReference) held;
      } else { // divided by another lookup, which asks it first
        loaded.add(
            columns.shared(
                List.of(key, "in memory"),
                LoadedReference.class,
                () -> ReferenceLoader.load(from, context.progress(), context.workers())));
      }
    }
    boolean asks = large == null || context.trace() != Trace.NONE;
    Answers answers = asks || large == null ? null : answers(large, loaded);
    // Files are begun last: what fails before has nothing to clear away.
    Apart apart = Apart.of(lookup, before, columns, context);
    if (answers != null) {
      KnownParts known = answers.found().known();
      return PreparedLookup.answered(
          shared(lookup, List.of(), known, apart), answers, context.exceptions());
    }
    if (large != null) {
      return traced(large, loaded, apart);
    }
    KnownParts known = new KnownParts(lookup, loaded.get(0));
    return PreparedLookup.of(shared(lookup, loaded, known, apart), context.exceptions());
  }

  /** The reference in memory, or divided; only one that is asked first may be divided. */
  private Held held(Lookup from) {
    boolean traced = context.trace() != Trace.NONE;
    boolean may = from == lookup && (traced || context.before() != null);
    Spill spill = may ? context.spill() : null;
    return spill == null
        ? ReferenceLoader.load(from, context.progress(), context.workers())
        : ReferenceLoader.load(from, spill, context.progress(), context.workers());
  }

  private Answers answers(LargeReference large, List<LoadedReference> further) {
    return columns.shared(
        "answers of lookup " + lookup.name,
        Answers.class,
        () ->
            new AnswerMaker(lookup, large, further, keyColumns, before, columns.measure(), context)
                .make());
  }

  private PreparedStep traced(LargeReference large, List<LoadedReference> further, Apart apart) {
    return new TracedPart(
        lookup,
        large,
        keyColumns.get(0),
        row -> {
          Lookup own = lookup.over(large.part(row.part()));
          List<LoadedReference> all = new ArrayList<>(further);
          all.add(0, ReferenceLoader.loadPart(own, large.values(), context.workers()).loaded());
          return new LookupWorker(shared(own, all, row.known(), apart), Exceptions.NONE);
        });
  }

  /**
   * What workers share.
   *
   * @param own the lookup, or the same over a part of its reference
   * @param loaded its references, and those tried otherwise; none where rows are answered before
   */
  private PreparedLookup.Shared shared(
      Lookup own, List<LoadedReference> loaded, KnownParts known, Apart apart) {
    List<String> names = own.bring.stream().map(Attribute::as).toList();
    LookupFills fills = new LookupFills(own);
    @Nullable String[] emptyFills = fills.of(Outcome.MATCHED.ordinal());
    List<Lookup> tried = own.tried();
    Supplier<Source[]> sources =
        () -> {
          Source[] made = new Source[loaded.size()];
          Arrays.setAll(
              made,
              i -> new Source(tried.get(i), loaded.get(i), keyColumns.get(i), names, emptyFills));
          return made;
        };
    return new PreparedLookup.Shared(
        own,
        sources,
        keyColumns.get(0),
        own.asked == null ? null : own.asked.over(before, own.name),
        fills,
        columns.tableName(),
        context.trace(),
        columns.measure(),
        columns.carried(),
        IntStream.of(columns.carried()).mapToObj(columns::isPrivate).toList(),
        known,
        apart);
  }
}
