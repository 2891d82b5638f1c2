package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.carry.Carrier;

/**
 * The sets of several rows that a rule has found for keys, each counted once. Sets are numbered as
 * they are met, which is another order in every process and in every part of a reference: those met
 * elsewhere are told by their rows. Belongs to one thread.
 */
final class SetsMet {
  private final LoadedReference reference;
  private final BitSet here = new BitSet();

  /** The row numbers of those met elsewhere, and whether the rows disagree. */
  private final Map<List<Long>, Boolean> elsewhere = new HashMap<>();

  SetsMet(LoadedReference reference) {
    this.reference = reference;
  }

  void met(int set) {
    here.set(set);
  }

  /** Adds those that another worker has met, in the same reference or in another part of it. */
  void merge(SetsMet other) {
    if (other.reference == reference) {
      here.or(other.here);
      elsewhere.putAll(other.elsewhere);
    } else {
      elsewhere.putAll(other.all());
    }
  }

  /** Carries those that were met, or takes those that another process has met. */
  void carry(Carrier carrier) {
    List<Map.Entry<List<Long>, Boolean>> sets =
        carrier.all(
            carrier.comesIn() ? List.of() : List.copyOf(all().entrySet()),
            Map.entry(List.of(), false),
            set ->
                Map.entry(
                    carrier.all(set.getKey(), 0L, carrier::number), carrier.flag(set.getValue())));
    if (carrier.comesIn()) {
      sets.forEach(set -> elsewhere.put(set.getKey(), set.getValue()));
    }
  }

  private Map<List<Long>, Boolean> all() {
    Map<List<Long>, Boolean> all = new HashMap<>(elsewhere);
    for (int set = here.nextSetBit(0); set >= 0; set = here.nextSetBit(set + 1)) {
      List<Long> rows = new ArrayList<>();
      for (int row : reference.finder().sets().rows(set)) {
        rows.add((long) reference.numbers().of(row));
      }
      all.put(rows, reference.choices().conflicting(set));
    }
    return all;
  }

  /** The facts about a reference, with the sets that were met in it. */
  ReferenceFacts in(ReferenceFacts facts) {
    Map<List<Long>, Boolean> all = all();
    return facts.met(all.size(), all.values().stream().filter(disagree -> disagree).count());
  }
}
