package org.abletwine.lookup;

import java.io.Serializable;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.abletwine.index.HashIndex;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.Batch;
import org.jspecify.annotations.Nullable;

/**
 * A lookup with its reference in memory, for one record at a time: in a loop of one's own, or as a
 * function in a stream. Serialisable, reference included. Safe to share between threads.
 *
 * <p>Treatments that drop a row or end a run are the caller's here: the outcome says enough. Fills
 * apply.
 */
public final class LoadedLookup
    implements Function<Map<String, @Nullable String>, LookupResult>, Serializable {
  private static final long serialVersionUID = 1L;

  private final LoadedReference reference;
  private final String[] ours;
  private final NormaliseStep[][] steps;
  private final String[] names;
  private final @Nullable String[][] fills;

  LoadedLookup(Lookup lookup, LoadedReference reference) {
    this.reference = reference;
    this.ours = lookup.key.stream().map(KeyPart::ours).toArray(String[]::new);
    this.steps =
        ReferenceLoader.stepsOf(lookup).stream()
            .map(s -> s.toArray(NormaliseStep[]::new))
            .toArray(NormaliseStep[][]::new);
    this.names = lookup.bring.stream().map(Attribute::as).toArray(String[]::new);
    this.fills = new @Nullable String[Outcome.values().length][names.length];
    for (Outcome outcome : Outcome.values()) {
      for (int a = 0; a < names.length; a++) {
        fills[outcome.ordinal()][a] = lookup.treatments.get(outcome).fill().values().get(names[a]);
      }
    }
  }

  /**
   * Looks up one record.
   *
   * @param record the record, by column name; the key columns are read, missing ones count as null
   * @return outcome and attributes
   */
  @Override
  public LookupResult apply(Map<String, @Nullable String> record) {
    @Nullable String[] key = new String[ours.length];
    for (int part = 0; part < ours.length; part++) {
      key[part] = record.get(ours[part]);
    }
    return find(key);
  }

  /**
   * Looks up one key.
   *
   * @param key the key parts in the order of the lookup; a part may be null
   * @return outcome and attributes
   * @throws IllegalArgumentException when the number of parts is wrong
   */
  public LookupResult find(@Nullable String... key) {
    if (key.length != ours.length) {
      throw new IllegalArgumentException(
          "the key has " + ours.length + " parts, not " + key.length);
    }
    int found = probe(key);
    Outcome outcome = Outcome.MATCHED;
    if (found == HashIndex.ABSENT) {
      outcome = Outcome.UNMATCHED;
    } else if (found == BLANK) {
      outcome = Outcome.BLANK_KEY;
    } else if (found < 0) {
      found = reference.chosen()[~found];
      outcome = found == LoadedReference.DISAGREE ? Outcome.AMBIGUOUS : Outcome.MATCHED;
    }
    int row = outcome == Outcome.MATCHED ? reference.index().rowAt(found) : -1;
    Map<String, @Nullable String> attributes = new LinkedHashMap<>();
    for (int a = 0; a < names.length; a++) {
      String value = outcome == Outcome.MATCHED ? reference.rows().get(row, a) : null;
      attributes.put(names[a], value == null ? fills[outcome.ordinal()][a] : value);
    }
    return new LookupResult(outcome, row < 0 ? 0 : reference.numbers().of(row), attributes);
  }

  private static final int BLANK = Integer.MIN_VALUE + 1;

  private int probe(@Nullable String[] key) {
    Batch batch = Batch.ofOneRow(key);
    int[] columns = new int[key.length];
    for (int part = 0; part < columns.length; part++) {
      columns[part] = part;
    }
    EncodedKeys keys = new EncodedKeys();
    new KeyEncoder(columns, List.of(steps).stream().map(List::of).toList()).encode(batch, keys);
    int[] found = new int[1];
    reference.index().probe(keys, found);
    return keys.blankParts[0] != 0 ? BLANK : found[0];
  }

  @Override
  public String toString() {
    return "LoadedLookup[" + reference.name() + " by " + List.of(ours) + "]";
  }
}
