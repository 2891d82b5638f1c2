package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.abletwine.figures.AttributeFigures;
import org.abletwine.figures.LookupFigures;
import org.abletwine.index.HashIndex;
import org.abletwine.index.KeyGroups;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.step.Exceptions;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * A lookup at work. For each batch, in stages: encode the keys, probe the index, settle each row's
 * outcome, gather the attributes, treat the rows. Counters go up by one for each row in the stage
 * that settles it, and nowhere else.
 */
final class LookupRunner implements StepRunner {
  private static final int OUTCOMES = Outcome.values().length;
  private static final int MATCHED = Outcome.MATCHED.ordinal();

  private final Lookup lookup;
  private final LoadedReference reference;
  private final int[] keyColumns;
  private final KeyEncoder encoder;
  private final String transactions;
  private final Exceptions exceptions;
  private final StepGains gains;
  private final EncodedKeys keys = new EncodedKeys();
  private final int attributes;
  private final @Nullable String[][] fills;
  private final boolean drops;

  private int[] found = new int[0];
  private byte[] outcomes = new byte[0];
  private int[] kept = new int[0];

  private final long[] outcomeCounts = new long[OUTCOMES];
  private final long[] empties;

  private long rows;
  private long expanding;
  private long wouldMatch;
  private final long[] blankParts;
  private int[] inLeftOut = new int[0];
  private long picked;
  private long dropped;

  LookupRunner(
      Lookup lookup,
      LoadedReference reference,
      int[] keyColumns,
      String transactions,
      Exceptions exceptions) {
    this.transactions = transactions;
    this.exceptions = exceptions;
    this.lookup = lookup;
    this.reference = reference;
    this.keyColumns = keyColumns.clone();
    this.encoder = new KeyEncoder(keyColumns, ReferenceLoader.stepsOf(lookup));
    this.gains = new StepGains(lookup, this.keyColumns, reference.rows());
    this.blankParts = new long[keyColumns.length];
    this.attributes = lookup.bring.size();
    this.empties = new long[attributes];
    this.fills = new @Nullable String[OUTCOMES][attributes];
    for (Outcome outcome : Outcome.values()) {
      for (int a = 0; a < attributes; a++) {
        fills[outcome.ordinal()][a] =
            lookup.treatments.get(outcome).fill().values().get(lookup.bring.get(a).as());
      }
    }
    tellReference();
    this.drops =
        lookup.treatments.values().stream().anyMatch(t -> t.action() == Treatment.Action.DROP);
  }

  @Override
  public void apply(Batch batch) {
    int count = batch.rows();
    if (found.length < count) {
      found = new int[count];
      outcomes = new byte[count];
      kept = new int[count];
    }
    encoder.encode(batch, keys);
    reference.index().probe(keys, found);
    settle(batch, count);
    if (exceptions != Exceptions.NONE) {
      tell(batch, count);
    }
    gains.count(batch, found, keys.changed);
    if (reference.leftOut().index().keys() > 0) {
      countWouldMatch(count);
    }
    gather(batch, count);
    if (lookup.mark != null) {
      mark(batch.addColumn(), count);
    }
    if (drops) {
      drop(batch, count);
    }
  }

  private void settle(Batch batch, int count) {
    for (int row = 0; row < count; row++) {
      int at = found[row];
      Outcome outcome = Outcome.MATCHED;
      if (at < 0) {
        if (at != HashIndex.ABSENT) {
          int group = ~at;
          expanding += reference.index().groups().size(group) - 1;
          found[row] = reference.chosen()[group];
          if (found[row] == LoadedReference.DISAGREE) {
            outcome = Outcome.AMBIGUOUS;
          } else if (reference.conflicting()[group]) {
            picked++;
          }
        } else {
          outcome = keys.blankParts[row] != 0 ? Outcome.BLANK_KEY : Outcome.UNMATCHED;
          if (outcome == Outcome.BLANK_KEY) {
            countBlankParts(keys.blankParts[row]);
          }
        }
      }
      outcomes[row] = (byte) outcome.ordinal();
      outcomeCounts[outcome.ordinal()]++;
      if (outcome != Outcome.MATCHED
          && lookup.treatments.get(outcome).action() == Treatment.Action.FAIL) {
        throw failure(batch, row, outcome);
      }
    }
    rows += count;
  }

  /**
   * Reference rows left out by a rule for duplicates, and keys that only normalising made equal.
   */
  private void tellReference() {
    if (exceptions == Exceptions.NONE) {
      return;
    }
    KeyGroups groups = reference.index().groups();
    int keyCell = lookup.bring.size();
    for (int group = 0; group < groups.count(); group++) {
      for (int row : groups.rows(group)) {
        String key = String.valueOf(reference.rows().get(row, keyCell));
        if (lookup.duplicates.rule() != Duplicates.Rule.KEEP
            && reference.rows().place(row) != reference.chosen()[group]) {
          int stays = reference.index().rowAt(reference.chosen()[group]);
          exceptions.found(
              lookup.name,
              "duplicate left out",
              reference.name(),
              reference.numbers().of(row),
              key,
              "row " + reference.numbers().of(stays) + " stays (" + lookup.duplicates + ")");
        }
      }
    }
    for (String example : reference.collisionExamples()) {
      exceptions.found(
          lookup.name, "collision", reference.name(), 0, example, "equal only by normalising");
    }
  }

  private void tell(Batch batch, int count) {
    Outcome[] all = Outcome.values();
    for (int row = 0; row < count; row++) {
      Outcome outcome = all[outcomes[row]];
      if (outcome != Outcome.MATCHED) {
        StringBuilder key = new StringBuilder();
        for (int part = 0; part < keyColumns.length; part++) {
          String value = batch.column(keyColumns[part]).get(row);
          key.append(part == 0 ? "" : " | ").append(value == null ? "" : value);
        }
        exceptions.found(
            lookup.name,
            outcome.label(),
            transactions,
            batch.rowNumber(row),
            key.toString(),
            outcome == Outcome.AMBIGUOUS ? candidates(row) : "");
      }
    }
  }

  /** The reference rows an ambiguous key stands on. */
  private String candidates(int row) {
    int group = ~reference.index().find(keys, row);
    return "rows "
        + reference.numbers().list(reference.index().groups().rows(group))
        + " of "
        + reference.name();
  }

  private void countBlankParts(int parts) {
    for (int part = 0; part < blankParts.length; part++) {
      blankParts[part] += parts >>> part & 1;
    }
  }

  private void countWouldMatch(int count) {
    if (inLeftOut.length < count) {
      inLeftOut = new int[count];
    }
    reference.leftOut().index().probe(keys, inLeftOut);
    for (int row = 0; row < count; row++) {
      if (outcomes[row] == Outcome.UNMATCHED.ordinal() && inLeftOut[row] != HashIndex.ABSENT) {
        wouldMatch++;
      }
    }
  }

  private DataException failure(Batch batch, int row, Outcome outcome) {
    String key =
        lookup.key.stream()
            .map(part -> part.ours() + " " + shown(batch, row, lookup.key.indexOf(part)))
            .collect(Collectors.joining(", "));
    return new DataException(
        "row "
            + batch.rowNumber(row)
            + " is "
            + outcome.label()
            + " in lookup "
            + lookup.name
            + " ("
            + key
            + "), and the plan says "
            + outcome.label()
            + ": fail."
            + " Correct the row or "
            + reference.name()
            + ", or use leave, drop or fill");
  }

  private String shown(Batch batch, int row, int part) {
    String value = batch.column(keyColumns[part]).get(row);
    return value == null ? "null" : "\"" + value + "\"";
  }

  private void gather(Batch batch, int count) {
    if (attributes == 0) {
      return;
    }
    CellVector[] targets = new CellVector[attributes];
    for (int a = 0; a < attributes; a++) {
      targets[a] = batch.addColumn();
      targets[a].clearNarrow();
    }
    @Nullable String[] emptyFill = fills[MATCHED];
    for (int row = 0; row < count; row++) {
      int outcome = outcomes[row];
      if (outcome == MATCHED) {
        reference.rows().fetch(found[row], targets, empties, emptyFill);
      } else {
        for (int a = 0; a < attributes; a++) {
          targets[a].append(fills[outcome][a]);
        }
      }
    }
  }

  private void mark(CellVector target, int count) {
    Outcome[] all = Outcome.values();
    for (int row = 0; row < count; row++) {
      target.append(all[outcomes[row]].label());
    }
  }

  private void drop(Batch batch, int count) {
    Outcome[] all = Outcome.values();
    int keeping = 0;
    for (int row = 0; row < count; row++) {
      if (lookup.treatments.get(all[outcomes[row]]).action() != Treatment.Action.DROP) {
        kept[keeping++] = row;
      }
    }
    if (keeping < count) {
      batch.pick(kept, keeping);
      dropped += count - keeping;
    }
  }

  @Override
  public LookupFigures figures() {
    long unmatched = outcomeCounts[Outcome.UNMATCHED.ordinal()];
    long ambiguous = outcomeCounts[Outcome.AMBIGUOUS.ordinal()];
    long blankKey = outcomeCounts[Outcome.BLANK_KEY.ordinal()];
    List<AttributeFigures> perAttribute = new ArrayList<>();
    for (int a = 0; a < attributes; a++) {
      long filled = fills[MATCHED][a] == null ? 0 : empties[a];
      for (Outcome outcome : Outcome.values()) {
        if (outcome != Outcome.MATCHED && fills[outcome.ordinal()][a] != null) {
          filled += outcomeCounts[outcome.ordinal()];
        }
      }
      perAttribute.add(
          new AttributeFigures(
              lookup.bring.get(a).as(), unmatched, ambiguous, blankKey, empties[a], filled));
    }
    return new LookupFigures(
        lookup.name,
        reference.name(),
        lookup.key.stream().map(KeyPart::toString).collect(Collectors.joining(", ")),
        (long) reference.rows().rows() + reference.leftOut().rows().rows(),
        reference.index().keys(),
        reference.blankKeys(),
        reference.chosen().length,
        reference.conflictingKeys(),
        rows,
        outcomeCounts[MATCHED],
        unmatched,
        ambiguous,
        blankKey,
        picked,
        rows + expanding,
        dropped,
        reference.leftOut().rows().rows(),
        wouldMatch,
        reference.duplicatesDropped(),
        reference.collisions(),
        reference.collisionExamples(),
        gains.shares(),
        blankShares(),
        perAttribute);
  }

  private List<LookupFigures.Share> blankShares() {
    List<LookupFigures.Share> shares = new ArrayList<>();
    for (int part = 0; part < blankParts.length; part++) {
      shares.add(new LookupFigures.Share(lookup.key.get(part).ours(), blankParts[part]));
    }
    return shares;
  }
}
