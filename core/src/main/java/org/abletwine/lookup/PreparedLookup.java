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
  private PreparedLookup() {}

  static PreparedStep of(Shared shared, Exceptions exceptions) {
    if (exceptions != Exceptions.NONE) {
      tellReference(shared.lookup(), shared.sources().get()[0].reference, exceptions);
    }
    Prepared<LookupWorker> prepared =
        new Prepared<>(told -> new LookupWorker(shared, told), LookupWorker::figures).ofRows();
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

  /**
   * Reference rows left out by a rule for duplicates, and keys that only normalising made equal.
   */
  private static void tellReference(
      Lookup lookup, LoadedReference reference, Exceptions exceptions) {
    for (LoadedReference.LeftOutDuplicate duplicate : reference.duplicates()) {
      exceptions.found(
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
              List.of()));
    }
    for (int row : reference.unreadable()) {
      exceptions.found(
          new Exceptions.Found(
              lookup.name,
              "unreadable left out",
              reference.name(),
              reference.numbers().of(row),
              firstPart(lookup, reference, row),
              "an ordered cell cannot be read",
              null,
              List.of()));
    }
    for (String example : reference.collisionExamples()) {
      String detail = "equal only by normalising";
      exceptions.found(
          new Exceptions.Found(
              lookup.name, "collision", reference.name(), 0, example, detail, null, List.of()));
    }
  }

  private static String firstPart(Lookup lookup, LoadedReference reference, int row) {
    String value = reference.rows().get(row, lookup.bring.size());
    return String.valueOf(Veil.over(KeyLayout.of(lookup).hidden(lookup)[0], value));
  }
}
