package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.index.RowStore;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * Counts which normalise step made matched rows match. A matched row adds one to exactly one place:
 * to the first when both keys are the same as written, else to the step after which they first are.
 *
 * <p>Most rows are settled by two flags: normalising changed neither their key nor the reference's.
 * The others are gathered and put through the steps again, both sides, one step at a time.
 */
final class StepGains {
  private final int[] columns;
  private final NormaliseStep[][] steps;
  private final int stages;
  private final int firstKeyCell;
  private final RowStore rows;
  private final long[] gained;

  private final CellVector[] ours;
  private final CellVector[] theirs;
  private int[] open = new int[0];

  StepGains(Lookup lookup, int[] keyColumns, RowStore rows) {
    KeyLayout layout = KeyLayout.of(lookup);
    this.columns = IntStream.of(layout.equal()).map(part -> keyColumns[part]).toArray();
    this.rows = rows;
    this.firstKeyCell = lookup.bring.size();
    this.steps =
        layout.equalSteps(lookup).stream()
            .map(s -> s.toArray(NormaliseStep[]::new))
            .toArray(NormaliseStep[][]::new);
    int most = 0;
    for (NormaliseStep[] partSteps : steps) {
      most = Math.max(most, partSteps.length);
    }
    stages = most;
    gained = new long[stages + 1];
    ours = new CellVector[columns.length];
    theirs = new CellVector[columns.length];
    for (int part = 0; part < columns.length; part++) {
      ours[part] = new CellVector();
      theirs[part] = new CellVector();
    }
  }

  /**
   * Counts the matched rows of a batch.
   *
   * @param batch the rows
   * @param found for each row its place in the reference, or negative when it did not match
   * @param changed for each row whether normalising changed its key
   */
  void count(Batch batch, int[] found, boolean[] changed) {
    if (stages == 0) {
      for (int row = 0; row < batch.rows(); row++) {
        gained[0] += found[row] >= 0 ? 1 : 0;
      }
      return;
    }
    int count = gather(batch, found, changed);
    for (int stage = 0; stage <= stages && count > 0; stage++) {
      if (stage > 0) {
        apply(stage - 1, ours);
        apply(stage - 1, theirs);
      }
      count = settle(stage, count);
    }
  }

  private int gather(Batch batch, int[] found, boolean[] changed) {
    for (int part = 0; part < columns.length; part++) {
      ours[part].clear();
      theirs[part].clear();
    }
    @Nullable CellVector[] targets = new CellVector[firstKeyCell + columns.length];
    System.arraycopy(theirs, 0, targets, firstKeyCell, columns.length);
    long[] nulls = new long[targets.length];
    @Nullable String[] fills = new String[targets.length];
    CellVector[] inText = new CellVector[columns.length];
    for (int part = 0; part < columns.length; part++) {
      inText[part] = batch.column(columns[part]);
    }
    int count = changedRows(batch.rows(), found, changed);
    for (int i = 0; i < count; i++) {
      int row = open[i];
      for (int part = 0; part < columns.length; part++) {
        ours[part].append(inText[part], row);
      }
      rows.fetch(found[row], targets, nulls, fills);
      open[i] = i;
    }
    return count;
  }

  /** The matched rows of which normalising changed either key; the others are counted. */
  private int changedRows(int count, int[] found, boolean[] changed) {
    if (open.length < count) {
      open = new int[count];
    }
    int rest = 0;
    int matched = 0;
    for (int row = 0; row < count; row++) {
      if (found[row] >= 0) {
        matched++;
        open[rest] = row;
        rest += changed[row] || rows.keyChanged(found[row]) ? 1 : 0;
      }
    }
    gained[0] += matched - rest;
    return rest;
  }

  private void apply(int stage, CellVector[] sides) {
    for (int part = 0; part < sides.length; part++) {
      if (stage < steps[part].length) {
        CellsStep.apply(steps[part][stage], sides[part], sides[part].rows());
      }
    }
  }

  /** Counts the rows that are equal now, and keeps the others open. */
  private int settle(int stage, int count) {
    int left = 0;
    for (int i = 0; i < count; i++) {
      int row = open[i];
      boolean same = true;
      for (int part = 0; part < ours.length && same; part++) {
        same = ours[part].equal(row, theirs[part], row);
      }
      if (same || stage == stages) {
        gained[stage]++;
      } else {
        open[left++] = row;
      }
    }
    return left;
  }

  /** Adds what another worker has counted. */
  void merge(StepGains other) {
    for (int stage = 0; stage < gained.length; stage++) {
      gained[stage] += other.gained[stage];
    }
  }

  /** Carries what was counted, or takes what another process has counted. */
  void carry(Carrier carrier) {
    carrier.numbers(gained);
  }

  List<Share> shares() {
    List<Share> shares = new ArrayList<>();
    shares.add(new Share("as written", gained[0]));
    for (int stage = 0; stage < stages; stage++) {
      Set<String> names = new LinkedHashSet<>();
      for (NormaliseStep[] partSteps : steps) {
        if (stage < partSteps.length) {
          names.add(partSteps[stage].name());
        }
      }
      shares.add(new Share(String.join(" / ", names), gained[stage + 1]));
    }
    return shares;
  }
}
