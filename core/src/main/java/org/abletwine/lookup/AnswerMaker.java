package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.abletwine.figures.LookupFigures;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.DataException;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.output.StoredBytes;
import org.abletwine.table.spill.OrderedRuns;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * Answers a lookup whose reference does not fit in memory: the rows that reach it are divided as
 * the reference is, by the hash of their keys; each part of the reference is asked by its rows
 * ({@link PartAsker}); and the answers of all parts, each in the order of the rows, are merged into
 * that order. It costs a reading of the transactions, one writing and reading of their keys and two
 * of the answers. Rows of one key must fit in memory. By one thread.
 */
final class AnswerMaker {
  private final Lookup lookup;
  private final AskedColumns columns;
  private final RunContext context;
  private final Spill spill;

  AnswerMaker(Lookup lookup, AskedColumns columns, RunContext context) {
    this.lookup = lookup;
    this.columns = columns;
    this.context = context;
    this.spill = Objects.requireNonNull(context.spill(), "what may be in memory");
  }

  /**
   * Makes the answers.
   *
   * @param held the lookup's reference, which is divided, and those tried otherwise; all that are
   *     divided are so into as many parts
   */
  Answers make(List<Held> held) {
    LargeReference large = (LargeReference) held.get(0);
    PartedRows rows = new PartedRows(spill, large.parts().size());
    DataException stopped = keys(rows);
    PartAsker asker = new PartAsker(lookup, held, columns, context);
    List<SpillFile> files = new ArrayList<>();
    for (int part = 0; part < rows.parts(); part++) {
      if (asker.load(part)) {
        SpillFile file = spill.file();
        asker.ask(rows.stored(part), file);
        rows.done(part);
        files.add(file);
      }
    }
    asker.refused().forEach(Refused::throwIfAny); // of the references in their order
    Answers answers = merged(files);
    files.forEach(SpillFile::close);
    long bytes = rows.bytes() + 2 * answers.bytes() + asker.told().bytes();
    for (Held one : held) {
      bytes += one instanceof LargeReference parted ? parted.bytes() : 0;
    }
    answers.found(
        new Answers.Found(
            asker.tally(),
            asker.facts(),
            new LookupFigures.Spilled(rows.parts(), bytes),
            large,
            asker.parts().found(large),
            asker.told()));
    answers.stoppedBy(stopped);
    return answers;
  }

  /**
   * Divides the rows that reach the lookup.
   *
   * @param into takes of each what the lookup needs
   * @return what a row has met that ends the run; null when all rows were taken
   */
  @Nullable DataException keys(PartedRows into) {
    return Objects.requireNonNull(context.before(), "the rows before the lookup")
        .into(
            new KeyRows(into, columns.equal(), KeyLayout.of(lookup).equalSteps(lookup)),
            columns.numbers());
  }

  /** Merges the answers of the parts into the order of the rows. */
  Answers merged(List<? extends StoredBytes> files) {
    Answers answers = new Answers(spill.file());
    OrderedRuns.merge(
        files,
        (row, rest) -> {
          int start = rest.cell();
          answers.add(row, rest.bytes(), start, rest.length());
        });
    answers.putOut();
    return answers;
  }
}
