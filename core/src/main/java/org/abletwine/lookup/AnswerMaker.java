package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.abletwine.compute.Expression;
import org.abletwine.figures.LookupFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.Head;
import org.abletwine.table.spill.OrderedRuns;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;
import org.jspecify.annotations.Nullable;

/**
 * Answers a lookup whose reference does not fit in memory: the rows that reach it are divided as
 * the reference is, by the hash of their keys; each part of the reference is loaded, asked by its
 * rows by the very worker that asks one in memory, and let go; and the answers of all parts, each
 * in the order of the rows, are merged into that order. It costs a reading of the transactions, one
 * writing and reading of their keys and two of the answers. Rows of one key must fit in memory. By
 * one thread.
 */
final class AnswerMaker {
  private static final String TURN = "the turn of a row among those of its number";

  private final Lookup lookup;
  private final LargeReference large;
  private final List<Held> held;
  private final List<int[]> keyColumns;
  private final Columns before;
  private final int measure;
  private final RunContext context;
  private final Spill spill;

  /** The columns that the lookup needs, by number in the batches of the run, and their places. */
  private final Map<Integer, Integer> needed = new LinkedHashMap<>();

  private final List<String> names = new ArrayList<>();

  private final List<LoadedParts> loading;

  /**
   * @param lookup the lookup
   * @param held its reference, which is divided, and those tried otherwise; all that are divided
   *     are so into as many parts
   * @param keyColumns the columns of the keys of all of these
   * @param before the columns before the lookup
   * @param measure the column whose totals go beside the figures, or -1
   */
  AnswerMaker(
      Lookup lookup,
      List<Held> held,
      List<int[]> keyColumns,
      Columns before,
      int measure,
      RunContext context) {
    this.lookup = lookup;
    this.held = held;
    this.loading = held.stream().map(LoadedParts::new).toList();
    this.large = (LargeReference) held.get(0);
    this.keyColumns = keyColumns;
    this.before = before;
    this.measure = measure;
    this.context = context;
    this.spill = Objects.requireNonNull(context.spill(), "what may be in memory");
  }

  Answers make() {
    keyColumns.forEach(columns -> IntStream.of(columns).forEach(this::need));
    Expression asked = lookup.asked == null ? null : lookup.asked.over(before, lookup.name);
    if (asked != null) {
      asked.inputs().forEach(name -> need(before.require(name, lookup.title())));
    }
    if (measure >= 0) {
      need(measure);
    }
    PartedRows rows = new PartedRows(spill, large.parts().parts());
    KeyLayout layout = KeyLayout.of(lookup);
    int[] equal = IntStream.of(layout.equal()).map(part -> keyColumns.get(0)[part]).toArray();
    DataException stopped =
        Objects.requireNonNull(context.before(), "the rows before the lookup")
            .into(
                new KeyRows(rows, equal, layout.equalSteps(lookup)),
                needed.keySet().stream().mapToInt(Integer::intValue).toArray());
    Answers answers = answered(rows);
    answers.stoppedBy(stopped);
    return answers;
  }

  private void need(int number) {
    if (needed.putIfAbsent(number, needed.size()) == null) {
      int at = IntStream.of(before.numbers()).boxed().toList().indexOf(number);
      names.add(at < 0 ? "column " + number : before.names().get(at));
    }
  }

  private Answers answered(PartedRows rows) {
    AskedParts parts = new AskedParts(lookup);
    Expression asked = lookup.asked == null ? null : lookup.asked.over(narrow(), lookup.name);
    List<SpillFile> files = new ArrayList<>();
    ToldOfParts told = new ToldOfParts(spill);
    LookupWorker tally = null;
    ReferenceFacts facts = null;
    for (int part = 0; part < rows.parts(); part++) {
      Lookup own = lookup.quietIn(large.part(part));
      List<LoadedReference> all = loaded(own, part);
      if (all == null) {
        continue; // told once it is known which row of the whole is the first
      }
      LoadedReference loaded = all.get(0);
      if (context.exceptions() != Exceptions.NONE) {
        told.part(
            into ->
                PreparedLookup.tellReference(
                    own,
                    loaded,
                    (found, kind, after) -> {
                      if (kind < PreparedLookup.COLLISION) {
                        into.found(found, kind, after);
                      }
                    }));
      }
      SpillFile file = spill.file();
      List<Answerer> workers = new ArrayList<>();
      PreparedLookup.Shared shared = shared(own, all, asked, parts);
      Supplier<Workers.Worker> make =
          () -> {
            Answerer worker = new Answerer(shared, names.size(), file);
            workers.add(worker);
            return worker;
          };
      Table table = new SpilledTable(rows.file(part), rows.rows(part), narrowTable(), all());
      try (Pieces pieces = BatchTable.of(table).pieces(names.size() + 1, null)) {
        Workers.run(pieces, context.workers(), false, make);
      }
      rows.done(part);
      for (Answerer worker : workers) {
        if (tally == null) {
          tally = worker.lookup();
        } else {
          tally.merge(worker.lookup());
        }
      }
      ReferenceFacts found = ReferenceFacts.of(own, loaded);
      facts = facts == null ? found : facts.and(found);
      files.add(file);
    }
    loading.forEach(LoadedParts::throwIfAny); // of the references in their order
    Answers answers = merged(files);
    long bytes = rows.bytes() + 2 * answers.bytes() + told.bytes();
    for (Held one : held) {
      bytes += one instanceof LargeReference parted ? parted.parts().bytes() : 0;
    }
    answers.found(
        new Answers.Found(
            Objects.requireNonNull(tally, "there are parts"),
            Objects.requireNonNull(facts, "there are parts"),
            new LookupFigures.Spilled(rows.parts(), bytes),
            large,
            parts.found(large),
            told));
    return answers;
  }

  /** A part of each reference; null when a row stops one of them. */
  private @Nullable List<LoadedReference> loaded(Lookup own, int part) {
    List<LoadedReference> all = new ArrayList<>();
    for (int i = 0; i < held.size(); i++) {
      Lookup of = i == 0 ? own : lookup.tried().get(i);
      LoadedReference one = loading.get(i).part(of, part, context.workers());
      if (one != null) {
        all.add(one);
      }
    }
    return all.size() == held.size() ? all : null;
  }

  private int[] all() {
    return IntStream.rangeClosed(0, names.size()).toArray();
  }

  private PreparedLookup.Shared shared(
      Lookup own, List<LoadedReference> loaded, @Nullable Expression asked, AskedParts parts) {
    List<Lookup> tried = own.tried();
    List<String> brought = own.bring.stream().map(Attribute::as).toList();
    LookupFills fills = new LookupFills(own);
    @Nullable String[] emptyFills = fills.of(Outcome.MATCHED.ordinal());
    List<int[]> keys =
        keyColumns.stream()
            .map(columns -> IntStream.of(columns).map(needed::get).toArray())
            .toList();
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
        asked,
        fills,
        before.tableName(),
        Trace.NONE,
        measure < 0 ? -1 : needed.get(measure),
        new int[0],
        List.of(),
        parts,
        Apart.NONE);
  }

  /** The columns that are kept of the rows, with what they hold. */
  private Columns narrow() {
    Columns columns = new Columns(before.tableName(), narrowTable().schema());
    for (String name : names) {
      columns.typed(name, before.type(name));
      columns.hide(name, before.isPrivate(name));
    }
    return columns;
  }

  private Table narrowTable() {
    List<String> all = new ArrayList<>(names);
    all.add(TURN);
    return new Head(before.tableName(), new Schema(all));
  }

  /** Merges the answers of the parts into the order of the rows. */
  private Answers merged(List<SpillFile> files) {
    Answers answers = new Answers(spill.file());
    OrderedRuns.merge(
        files,
        (row, rest) -> {
          int start = rest.cell();
          answers.add(row, rest.bytes(), start, rest.length());
        });
    answers.putOut();
    files.forEach(SpillFile::close);
    return answers;
  }
}
