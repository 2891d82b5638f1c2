package org.abletwine.lookup;

import org.abletwine.step.Exceptions;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * Gives rows what was found for them before: the second reading of a lookup whose reference does
 * not fit in memory. Belongs to one thread.
 */
final class AnsweredWorker implements StepWorker {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final PreparedLookup.Shared shared;
  private final Lookup lookup;
  private final Answers answered;
  private final AnswerReader answers;
  private final KnownParts known;
  private final Teller teller;
  private final boolean tells;
  private final boolean fails;
  private final boolean drops;
  private final String[] names;
  private final Apart.@Nullable Part apart;
  private byte[] outcomes = new byte[0];

  /** Rows left out because of their outcome. */
  private long dropped;

  /** What those have counted that answered rows in other processes; null for nothing. */
  private @Nullable LookupWorker elsewhere;

  AnsweredWorker(PreparedLookup.Shared shared, Answers found, Exceptions exceptions) {
    this.shared = shared;
    lookup = shared.lookup();
    answered = found;
    answers = new AnswerReader(lookup.name, found, lookup.bring.size());
    known = found.found().known();
    teller = new Teller(shared, exceptions);
    tells = exceptions != Exceptions.NONE;
    apart = shared.apart().part();
    fails = treats(Treatment.Action.FAIL);
    drops = treats(Treatment.Action.DROP);
    names = lookup.tried().stream().map(tried -> tried.name).toArray(String[]::new);
  }

  private boolean treats(Treatment.Action action) {
    return lookup.treatments.values().stream().anyMatch(t -> t.action() == action);
  }

  @Override
  public void apply(Batch batch) {
    answers.read(batch);
    int count = batch.rows();
    for (int row = 0; row < count && fails; row++) {
      Outcome outcome = OUTCOMES[answers.outcome[row]];
      if (lookup.treatment(outcome).action() == Treatment.Action.FAIL) {
        throw teller.failure(batch, row, outcome, answers.detail[row]);
      }
    }
    if (tells) {
      teller.tell(batch, answers.outcome, count, row -> told(batch, row));
    }
    int[] from = becoming(count);
    if (answers.becoming > count) {
      batch.pick(from, answers.becoming);
    }
    gather(batch);
    if (lookup.mark != null) {
      mark(batch.addColumn(), from);
    }
    if (drops) {
      drop(batch);
    }
  }

  private String told(Batch batch, int row) {
    return answers.outcome[row] == Settled.UNMATCHED && known.tells()
        ? known.of(batch, row, shared.keyColumns())
        : answers.detail[row];
  }

  /** For each row that comes out the row it comes from; their outcomes are noted. */
  private int[] becoming(int count) {
    int[] from = new int[answers.becoming];
    if (outcomes.length < from.length) {
      outcomes = new byte[from.length];
    }
    int at = 0;
    for (int row = 0; row < count; row++) {
      for (int i = 0; i < answers.times[row]; i++) {
        outcomes[at] = answers.outcome[row];
        from[at++] = row;
      }
    }
    return from;
  }

  private void gather(Batch batch) {
    for (CellVector cells : answers.cells) {
      CellVector target = batch.addColumn();
      for (int row = 0; row < answers.becoming; row++) {
        target.append(cells, row);
        if (outcomes[row] != Settled.MATCHED && cells.isNull(row)) {
          target.because(outcomes[row]);
        }
      }
    }
  }

  private void mark(CellVector target, int[] from) {
    for (int row = 0; row < answers.becoming; row++) {
      String label = OUTCOMES[outcomes[row]].label();
      int source = answers.source[from[row]];
      target.append(source > 0 ? label + ": " + names[source] : label);
    }
  }

  private void drop(Batch batch) {
    int[] kept = new int[answers.becoming];
    int keeping = 0;
    for (int row = 0; row < kept.length; row++) {
      Treatment treatment = lookup.treatment(OUTCOMES[outcomes[row]]);
      if (treatment.action() != Treatment.Action.DROP) {
        kept[keeping++] = row;
      }
    }
    if (keeping < kept.length) {
      if (apart != null) {
        apart.add(batch, outcomes, kept.length);
      }
      batch.pick(kept, keeping);
      dropped += kept.length - keeping;
    }
  }

  @Override
  public void inOrder() {
    if (apart != null) {
      apart.inOrder();
    }
  }

  @Override
  public void merge(StepWorker other) {
    AnsweredWorker answered = (AnsweredWorker) other;
    dropped += answered.dropped;
    if (elsewhere == null) {
      elsewhere = answered.elsewhere;
    } else if (answered.elsewhere != null) {
      elsewhere.merge(answered.elsewhere);
    }
  }

  @Override
  public void carry(Carrier carrier) {
    dropped = carrier.number(dropped);
    LookupWorker tally = answered.found().tally();
    if (carrier.comesIn()) {
      tally = tally.another();
      elsewhere = tally;
    }
    tally.carry(carrier);
  }

  /** All that was counted: by those that answered the rows, here and in other processes. */
  LookupWorker tally() {
    LookupWorker tally = answered.found().tally();
    if (elsewhere != null) {
      tally.merge(elsewhere);
    }
    return tally;
  }

  long dropped() {
    return dropped;
  }
}
