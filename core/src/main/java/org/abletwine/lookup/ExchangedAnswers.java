package org.abletwine.lookup;

import java.io.ByteArrayInputStream;
import java.io.DataInputStream;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.DataException;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.MemoryBytes;
import org.abletwine.table.spill.Stored;

/**
 * Puts together what several processes have found that divide the references of a lookup among
 * them: with the same answers and figures as {@link AnswerMaker} alone. By one thread.
 */
final class ExchangedAnswers {
  private final Lookup lookup;
  private final AskedColumns columns;
  private final RunContext context;

  ExchangedAnswers(Lookup lookup, AskedColumns columns, RunContext context) {
    this.lookup = lookup;
    this.columns = columns;
    this.context = context;
  }

  /**
   * Puts all together.
   *
   * @throws DataException what would have ended the run by one process: of the references in their
   *     order
   */
  Answers make(Exchange.Found found) {
    throwIfAny(found);
    PartAsker nothing = null;
    PartFound sum = null;
    for (byte[] bytes : found.found()) {
      Carrier carrier = Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes)));
      LargeReference.Values values = LargeReference.Values.none(lookup);
      values.carry(carrier);
      if (nothing == null || sum == null) {
        nothing = nothing(values);
        sum = PartFound.nothing(nothing);
      }
      PartFound one = sum.another().carried(carrier);
      nothing.told().take(one.told());
      sum = sum.and(one);
    }
    if (nothing == null || sum == null) { // for whoever takes rows, the others have counted
      nothing = nothing(LargeReference.Values.none(lookup));
      sum = PartFound.nothing(nothing);
    }
    Answers answers = new AnswerMaker(lookup, columns, context).merged(found.answers());
    answers.found(
        new Answers.Found(
            sum.tally(),
            sum.facts(),
            new LookupFigures.Spilled(found.parts(), sum.bytes()),
            new LargeReference(
                lookup.reference,
                List.of(lookup.reference), // gone through only where an attribute must be told of
                0,
                LargeReference.Values.none(lookup)),
            new KnownParts(lookup, found.known()),
            nothing.told()));
    answers.stoppedBy(found.stopped());
    return answers;
  }

  private void throwIfAny(Exchange.Found found) {
    List<Refused> all = new ArrayList<>();
    lookup.tried().forEach(from -> all.add(new Refused()));
    for (byte[] part : found.refused()) {
      if (part.length == 0) {
        continue;
      }
      Carrier carrier = Carrier.from(new DataInputStream(new ByteArrayInputStream(part)));
      for (Refused of : all) {
        Refused one = new Refused();
        one.carry(carrier);
        of.merge(one);
      }
    }
    for (int i = 0; i < all.size(); i++) {
      DataException unread = found.unread().get(i);
      if (unread != null) {
        throw unread;
      }
      all.get(i).throwIfAny();
    }
  }

  /**
   * A part without rows, asked by no row: all counts are there, and are zero.
   *
   * @param values what the values are that rules compare, as in all parts
   */
  private PartAsker nothing(LargeReference.Values values) {
    List<Held> held = new ArrayList<>();
    for (Lookup from : lookup.tried()) {
      Stored none = new Stored(new MemoryBytes(), 0);
      held.add(
          new LargeReference(
              from.reference,
              List.of(LargeReference.part(none, from.reference, ReferenceLoader.looked(from))),
              0,
              from == lookup ? values : LargeReference.Values.none(from)));
    }
    PartAsker asker = new PartAsker(lookup, held, columns, context);
    asker.load(0);
    asker.ask(new Stored(new MemoryBytes(), 0), new MemoryBytes());
    return asker;
  }
}
