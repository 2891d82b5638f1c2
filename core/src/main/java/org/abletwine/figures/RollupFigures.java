package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Totals by group.
 *
 * @param name the rollup, such as its file
 * @param by the columns that make the groups
 * @param totals what is totalled, as named in the output
 * @param groups the groups wanted, in the order stated, else that of their values, nulls last; each
 *     row holds the values of {@code by}, then the totals; null stands for itself
 * @param allGroups how many groups there are, those not wanted included
 * @param order what the groups are ordered by; empty for their values
 * @param grandTotal the totals over all rows, or none when not asked for
 * @param sums for each column that is summed, its sum over all groups
 * @param file where they were written; empty for nowhere
 * @param errors cells passed over because they are not what their total needs
 * @param errorExample the first of them in words; empty when there is none
 * @param onDisk bytes that were put on disk, since not all groups fit in memory
 */
public record RollupFigures(
    String name,
    List<String> by,
    List<String> totals,
    List<List<@Nullable String>> groups,
    long allGroups,
    List<String> order,
    List<@Nullable String> grandTotal,
    Map<String, BigDecimal> sums,
    String file,
    long errors,
    String errorExample,
    long onDisk)
    implements StepFigures {

  /** Copies the lists, but for the groups: there may be very many, and nobody changes them. */
  public RollupFigures {
    by = List.copyOf(by);
    totals = List.copyOf(totals);
    sums = Map.copyOf(sums);
    order = List.copyOf(order);
    groups = Collections.unmodifiableList(groups);
    grandTotal = Collections.unmodifiableList(new ArrayList<>(grandTotal));
  }

  @Override
  public RollupFigures inMemory() {
    return new RollupFigures(
        name,
        by,
        totals,
        groups,
        allGroups,
        order,
        grandTotal,
        sums,
        file,
        errors,
        errorExample,
        0);
  }
}
