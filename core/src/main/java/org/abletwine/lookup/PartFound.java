package org.abletwine.lookup;

import org.abletwine.table.carry.Carrier;

/**
 * What was found by asking one part of a large reference, beside the answers.
 *
 * @param facts what was found in the part
 * @param tally the counts of all that asked
 * @param told what needs attention in it, as {@link ToldOfParts} notes it
 * @param bytes how many were on disk for it
 */
record PartFound(ReferenceFacts facts, LookupWorker tally, byte[] told, long bytes) {

  /**
   * What was found by a part without rows.
   *
   * @param asker has asked it
   */
  static PartFound nothing(PartAsker asker) {
    return new PartFound(ReferenceFacts.none(asker.facts().name()), asker.tally(), new byte[0], 0);
  }

  /** Nothing, for what another part has found of the same lookup. */
  PartFound another() {
    return new PartFound(ReferenceFacts.none(facts.name()), tally.another(), new byte[0], 0);
  }

  /** This and what was found by asking another part; what is told of is not added up. */
  PartFound and(PartFound other) {
    tally.merge(other.tally);
    return new PartFound(facts.and(other.facts), tally, told, bytes + other.bytes);
  }

  /** Carries it to another process, or takes it from there in place of nothing. */
  PartFound carried(Carrier carrier) {
    tally.carry(carrier);
    return new PartFound(
        facts.carried(carrier), tally, carrier.bytes(told, told.length), carrier.number(bytes));
  }
}
