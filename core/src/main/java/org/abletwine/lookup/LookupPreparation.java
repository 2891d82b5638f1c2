package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
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
    Exchange.Found found = context.exchanged(lookup.name);
    if (found != null) {
      return answered(answers(() -> elsewhere(found)));
    }
    List<Held> held = held();
    boolean large = held.get(0) instanceof LargeReference;
    boolean asks = !large || context.trace() != Trace.NONE;
    if (!asks) {
      return answered(answers(() -> maker().make(held)));
    }
    Apart apart = Apart.of(lookup, before, columns, context);
    if (large) {
      return traced(held, apart);
    }
    List<LoadedReference> loaded = held.stream().map(LoadedReference.class::cast).toList();
    KnownParts known = new KnownParts(lookup, loaded.get(0));
    return PreparedLookup.of(shared(lookup, loaded, known, apart), context.exceptions());
  }

  /** Rows have been answered. Files are begun last: what fails before leaves nothing behind. */
  private PreparedStep answered(Answers answers) {
    Apart apart = Apart.of(lookup, before, columns, context);
    KnownParts known = answers.found().known();
    return PreparedLookup.answered(
        shared(lookup, List.of(), known, apart), answers, context.exceptions());
  }

  /** What was found by processes that divide the references among them. */
  private Answers elsewhere(Exchange.Found found) {
    Answers answers = new ExchangedAnswers(lookup, askedColumns(), context).make(found);
    for (int i = 0; i < lookup.tried().size() && context.taken() != null; i++) {
      if (!found.divided().contains(i)) {
        inMemory(lookup.tried().get(i)); // whoever puts all together tells of it
      }
    }
    return answers;
  }

  /** The lookup, to be asked part by part. */
  Exchanging.Rows exchanged() {
    return new ExchangedRows(lookup, askedColumns(), context, this::inMemory);
  }

  /**
   * The references. Where one does not fit in memory, the first is divided too, and all that are
   * divided are so into as many parts: a row's key is then in the same part of each.
   */
  private List<Held> held() {
    List<Held> held = new ArrayList<>();
    int parts = 0;
    for (Lookup from : lookup.tried()) {
      Held one = after(held, from);
      held.add(one);
      parts = one instanceof LargeReference large ? Math.max(parts, large.parts().size()) : parts;
    }
    for (int i = 0; i < held.size() && parts > 0; i++) {
      boolean other = held.get(i) instanceof LargeReference large && large.parts().size() != parts;
      if (other || i == 0 && held.get(0) instanceof LoadedReference) {
        held.set(i, divided(lookup.tried().get(i), parts));
      }
    }
    return held;
  }

  /** A further reference; what is wrong with those before it is told first. */
  private Held after(List<Held> before, Lookup from) {
    try {
      Held one =
          context.reference(columns, LoadKey.of(from), Held.class, spill -> held(from, spill));
      return one instanceof LargeReference && !dividedAlike(from)
          ? inMemory(from) // divided by another lookup, whose rows it is asked by first
          : one;
    } catch (DataException e) {
      for (int i = 0; i < before.size(); i++) {
        LoadedParts.check(lookup.tried().get(i), before.get(i), context.workers());
      }
      throw e;
    }
  }

  /** The reference in memory, or divided where it does not fit and that is of use. */
  private Held held(Lookup from, @Nullable Spill limit) {
    boolean may = context.trace() != Trace.NONE || context.before() != null;
    Spill spill = may && dividedAlike(from) ? limit : null;
    return spill == null
        ? ReferenceLoader.load(from, context.progress(), context.workers())
        : ReferenceLoader.load(from, spill, context.progress(), context.workers());
  }

  private LoadedReference inMemory(Lookup from) {
    return context.reference(
        columns,
        List.of(LoadKey.of(from), "in memory"),
        LoadedReference.class,
        spill -> ReferenceLoader.load(from, context.progress(), context.workers()));
  }

  private LargeReference divided(Lookup from, int parts) {
    return context.reference(
        columns,
        List.of(LoadKey.of(from), parts),
        LargeReference.class,
        spill ->
            ReferenceLoader.divide(
                from,
                parts,
                Objects.requireNonNull(spill, "what may be in memory"),
                context.progress(),
                context.workers()));
  }

  /**
   * Whether a row's key falls into the same part of a reference as of the first one: the equal
   * parts are the same columns of ours, put through the same steps. So it is of the first itself.
   */
  private boolean dividedAlike(Lookup from) {
    return dividedAlike(lookup, from);
  }

  /** As {@link #dividedAlike(Lookup)}, of any lookup. */
  static boolean dividedAlike(Lookup lookup, Lookup from) {
    KeyLayout first = KeyLayout.of(lookup);
    KeyLayout other = KeyLayout.of(from);
    return first.equal().length > 0
        && ours(lookup, first).equals(ours(from, other))
        && first.equalSteps(lookup).equals(other.equalSteps(from));
  }

  private static List<String> ours(Lookup of, KeyLayout layout) {
    return IntStream.of(layout.equal()).mapToObj(part -> of.key.get(part).ours()).toList();
  }

  private Answers answers(Supplier<Answers> make) {
    return columns.shared("answers of lookup " + lookup.name, Answers.class, make);
  }

  private AnswerMaker maker() {
    return new AnswerMaker(lookup, askedColumns(), context);
  }

  private AskedColumns askedColumns() {
    return new AskedColumns(lookup, keyColumns, before, columns.measure());
  }

  private PreparedStep traced(List<Held> held, Apart apart) {
    LargeReference large = (LargeReference) held.get(0);
    return new TracedPart(
        lookup,
        large,
        keyColumns.get(0),
        row -> {
          Lookup own = lookup.over(large.parts().get(row.part()));
          List<LoadedReference> all = new ArrayList<>();
          for (int i = 0; i < held.size(); i++) {
            LoadedParts parts = new LoadedParts(held.get(i));
            LoadedReference one = parts.part(lookup.tried().get(i), row.part(), context.workers());
            if (one == null) {
              parts.refused().throwIfAny();
            } else {
              all.add(one);
            }
          }
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
