package org.abletwine.lookup;

import java.io.Serializable;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.RuleIndex;
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
  private final SerialKey key;
  private final String[] ours;
  private final String[] names;
  private final int[] cellOf;
  private final @Nullable String[][] fills;

  LoadedLookup(Lookup lookup, LoadedReference reference) {
    this.reference = reference;
    this.key = SerialKey.of(lookup);
    this.ours = lookup.key.stream().map(KeyPart::ours).toArray(String[]::new);
    this.names = lookup.bring.stream().map(Attribute::as).toArray(String[]::new);
    List<Attribute> cells = KeptColumns.inCellOrder(lookup.bring);
    this.cellOf = lookup.bring.stream().mapToInt(cells::indexOf).toArray();
    this.fills = LookupRunner.Fills.of(lookup).byOutcome();
  }

  /** What reading a key needs of the lookup. */
  private record SerialKey(KeyLayout layout, NormaliseStep[][] equal, NormaliseStep[][] ruled)
      implements Serializable {
    private static final long serialVersionUID = 1L;

    static SerialKey of(Lookup lookup) {
      KeyLayout layout = KeyLayout.of(lookup);
      return new SerialKey(
          layout,
          layout.equalSteps(lookup).stream()
              .map(s -> s.toArray(NormaliseStep[]::new))
              .toArray(NormaliseStep[][]::new),
          layout.ruleSteps(lookup));
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
    KeyProbe probe = new KeyProbe(this.key.layout(), this.key.equal(), this.key.ruled());
    int[] found = new int[1];
    probe.read(Batch.ofOneRow(key));
    probe.find(reference.finder(), found);
    int place = found[0];
    Outcome outcome = Outcome.MATCHED;
    if (place < 0 && place > RuleIndex.LAST_MISS) {
      place = reference.choices().place(~place);
      outcome = place == Choices.DISAGREE ? Outcome.AMBIGUOUS : Outcome.MATCHED;
    } else if (place < 0) {
      boolean blank = place == RuleIndex.UNFIT || probe.blankParts(0) != 0;
      outcome = blank ? Outcome.BLANK_KEY : Outcome.UNMATCHED;
    }
    int row = outcome == Outcome.MATCHED ? reference.rowAt(place) : -1;
    Map<String, @Nullable String> attributes = new LinkedHashMap<>();
    for (int a = 0; a < names.length; a++) {
      String value = outcome == Outcome.MATCHED ? reference.rows().get(row, cellOf[a]) : null;
      attributes.put(names[a], value == null ? fills[outcome.ordinal()][a] : value);
    }
    return new LookupResult(outcome, row < 0 ? 0 : reference.numbers().of(row), attributes);
  }

  @Override
  public String toString() {
    return "LoadedLookup[" + reference.name() + " by " + List.of(ours) + "]";
  }
}
