package org.abletwine.lookup;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.util.List;
import java.util.Set;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.Table;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.PartedRows;

/** A lookup whose references several processes of one run divide among them. Immutable. */
final class LookupExchange implements Exchanging {
  private final Lookup lookup;

  /**
   * @param lookup the lookup; its key has an equal part
   */
  LookupExchange(Lookup lookup) {
    this.lookup = lookup;
  }

  @Override
  public String name() {
    return lookup.name;
  }

  @Override
  public List<Table> references() {
    return lookup.tried().stream().map(from -> from.reference).toList();
  }

  @Override
  public boolean divides(int reference) {
    return LookupPreparation.dividedAlike(lookup, lookup.tried().get(reference));
  }

  @Override
  public boolean looksAgain() {
    return new AskedParts(lookup).tells();
  }

  @Override
  public byte[] divide(int reference, Table rows, PartedRows into, Progress progress, int workers) {
    Lookup from = lookup.tried().get(reference);
    LargeReference.Values values =
        LargeReference.divide(from, rows, ReferenceLoader.looked(from), into, progress, workers);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    values.carry(Carrier.to(new DataOutputStream(bytes)));
    return bytes.toByteArray();
  }

  @Override
  public List<Set<String>> known(Table rows, List<Set<String>> asked) {
    return new AskedParts(lookup, asked).in(List.of(rows));
  }

  @Override
  public Rows rows(Columns columns, RunContext context) {
    return new LookupPreparation(lookup.within(columns), columns, context).exchanged();
  }
}
