package org.abletwine.lookup;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.DataException;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/** A lookup that is asked part by part, each part by one of several processes. For one thread. */
final class ExchangedRows implements Exchanging.Rows {
  private final Lookup lookup;
  private final AskedColumns columns;
  private final RunContext context;
  private final Function<Lookup, LoadedReference> inMemory;

  /**
   * @param inMemory gives a reference that is not divided
   */
  ExchangedRows(
      Lookup lookup,
      AskedColumns columns,
      RunContext context,
      Function<Lookup, LoadedReference> inMemory) {
    this.lookup = lookup;
    this.columns = columns;
    this.context = context;
    this.inMemory = inMemory;
  }

  @Override
  public @Nullable DataException keys(PartedRows into) {
    return new AnswerMaker(lookup, columns, context).keys(into);
  }

  @Override
  public Exchanging.Part part(Map<Integer, Stored> rows, Map<Integer, List<byte[]>> values) {
    List<Held> held = new ArrayList<>();
    Map<Integer, DataException> unread = new TreeMap<>();
    for (int i = 0; i < lookup.tried().size(); i++) {
      Lookup from = lookup.tried().get(i);
      Stored divided = rows.get(i);
      if (divided == null) {
        try {
          held.add(inMemory.apply(from));
        } catch (DataException e) {
          unread.put(i, e);
        }
        continue;
      }
      LargeReference.Values all = LargeReference.Values.none(from);
      for (byte[] some : values.getOrDefault(i, List.of())) {
        LargeReference.Values one = LargeReference.Values.none(from);
        one.carry(Carrier.from(new DataInputStream(new ByteArrayInputStream(some))));
        all.merge(one);
      }
      held.add(
          new LargeReference(
              from.reference,
              List.of(LargeReference.part(divided, from.reference, ReferenceLoader.looked(from))),
              divided.bytes().size(),
              all));
    }
    return new Part(held, unread);
  }

  /** One part, loaded. */
  private final class Part implements Exchanging.Part {
    private final Map<Integer, DataException> unread;
    private final @Nullable PartAsker asker;
    private final boolean loaded;
    private final LargeReference.Values values;

    Part(List<Held> held, Map<Integer, DataException> unread) {
      this.unread = unread;
      values =
          held.isEmpty() || !(held.get(0) instanceof LargeReference large)
              ? LargeReference.Values.none(lookup)
              : large.values();
      asker = unread.isEmpty() ? new PartAsker(lookup, held, columns, context) : null;
      loaded = asker != null && asker.load(0);
    }

    @Override
    public Map<Integer, DataException> unread() {
      return unread;
    }

    @Override
    public byte[] refused() {
      return carried(
          carrier -> {
            if (asker != null) {
              asker.refused().forEach(one -> one.carry(carrier));
            }
          });
    }

    @Override
    public boolean loaded() {
      return loaded;
    }

    private PartAsker asker() {
      if (asker == null) {
        throw new IllegalStateException("nothing is loaded");
      }
      return asker;
    }

    @Override
    public void ask(Stored keys, SpillFile answers) {
      asker().ask(keys, answers);
    }

    @Override
    public @Nullable List<Set<String>> asked() {
      return asker().parts().asked();
    }

    @Override
    public byte[] found(long bytes) {
      PartFound found =
          new PartFound(
              asker().facts(),
              asker().tally(),
              asker().told().noted(),
              bytes + asker().told().bytes());
      return carried(
          carrier -> {
            values.carry(carrier);
            found.carried(carrier);
          });
    }
  }

  /** What a carrier takes out. */
  private static byte[] carried(java.util.function.Consumer<Carrier> what) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    what.accept(Carrier.to(new DataOutputStream(bytes)));
    return bytes.toByteArray();
  }
}
