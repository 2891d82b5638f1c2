package org.abletwine.lookup;

import java.util.List;
import java.util.function.Supplier;
import org.abletwine.compute.Expression;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.Trace;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Prepares a lookup for one run: its references are loaded, and shared by its workers. */
final class PreparedLookup {
  /** The last kind of what needs attention in a reference. */
  static final long COLLISION = 2;

  private PreparedLookup() {}

  static PreparedStep of(Shared shared, Exceptions exceptions) {
    if (exceptions != Exceptions.NONE) {
      tellReference(
          shared.lookup(),
          shared.sources().get()[0].reference,
          (found, kind, after) -> exceptions.found(found));
    }
    Prepared<LookupWorker> prepared =
        new Prepared<>(told -> new LookupWorker(shared, told), LookupWorker::figures).ofRows();
    shared.apart().places().forEach(place -> prepared.writing(place.output()));
    return prepared;
  }

  /** Prepares a lookup whose rows have been answered before. */
  static PreparedStep answered(Shared shared, Answers answers, Exceptions exceptions) {
    Answers.Found all = answers.found();
    if (exceptions != Exceptions.NONE) {
      all.told().tell(exceptions);
      // Of keys that only normalising made equal the first few of all parts together are told.
      for (LoadedReference.Example one : all.facts().examples()) {
        exceptions.found(collision(shared.lookup(), all.facts().name(), one));
      }
    }
    Prepared<AnsweredWorker> prepared =
        new Prepared<AnsweredWorker>(
                told -> new AnsweredWorker(shared, answers, told),
                worker ->
                    worker
                        .tally()
                        .figures(all.facts(), worker.dropped(), all.spilled(), all.large()))
            .ofRows();
    shared.apart().places().forEach(place -> prepared.writing(place.output()));
    return prepared;
  }

  /**
   * What workers share; none of it changes.
   *
   * @param lookup the lookup
   * @param sources its references, to be probed and counted by one worker: anew at each call
   * @param keyColumns the columns of its key in the batches
   * @param asked whether a row is asked for, to be evaluated by a copy for each worker; null for
   *     all
   * @param fills what to put in place of null
   * @param transactions the table, for messages
   * @param trace told what becomes of a row
   * @param measure the column whose totals go beside the figures, or -1
   * @param carried the columns that go with a row that needs attention
   * @param carriedHidden which of these are private
   * @param known the parts of the keys that are known
   * @param apart where rows go that are set apart
   */
  record Shared(
      Lookup lookup,
      Supplier<Source[]> sources,
      int[] keyColumns,
      @Nullable Expression asked,
      LookupFills fills,
      String transactions,
      Trace trace,
      int measure,
      int[] carried,
      List<Boolean> carriedHidden,
      KnownParts known,
      Apart apart) {}

  /** What needs attention in a reference, and after which row of it that is known. */
  interface OfReference {
    void found(Exceptions.Found found, long kind, long after);
  }

  /**
   * Reference rows left out by a rule for duplicates, and keys that only normalising made equal.
   */
  static void tellReference(Lookup lookup, LoadedReference reference, OfReference told) {
    for (LoadedReference.LeftOutDuplicate duplicate : reference.duplicates()) {
      told.found(
          new Exceptions.Found(
              lookup.name,
              "duplicate left out",
              reference.name(),
              reference.numbers().of(duplicate.row()),
              firstPart(lookup, reference, duplicate.row()),
              "row "
                  + reference.numbers().of(duplicate.stays())
                  + " stays ("
                  + lookup.duplicates
                  + ")",
              null,
              List.of()),
          0,
          reference.numbers().of(duplicate.second()));
    }
    for (int row : reference.unreadable()) {
      told.found(
          new Exceptions.Found(
              lookup.name,
              "unreadable left out",
              reference.name(),
              reference.numbers().of(row),
              firstPart(lookup, reference, row),
              "a cell that puts rows in order cannot be read",
              null,
              List.of()),
          1,
          reference.numbers().of(row));
    }
    for (LoadedReference.Example example : reference.collisionExamples()) {
      told.found(collision(lookup, reference.name(), example), COLLISION, example.second());
    }
  }

  /** A key that only normalising made equal to another. */
  static Exceptions.Found collision(Lookup lookup, String name, LoadedReference.Example example) {
    String detail = "equal only by normalising";
    return new Exceptions.Found(
        lookup.name, "collision", name, 0, example.told(), detail, null, List.of());
  }

  private static String firstPart(Lookup lookup, LoadedReference reference, int row) {
    String value = reference.rows().get(row, lookup.bring.size());
    return String.valueOf(Veil.over(KeyLayout.of(lookup).hidden(lookup)[0], value));
  }
}
