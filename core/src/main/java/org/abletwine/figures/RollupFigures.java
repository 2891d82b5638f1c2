package org.abletwine.figures;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import org.abletwine.table.text.DecimalText;
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

  /**
   * The groups to show of very many: the first, where an order was stated, else those with the
   * greatest numbers in a total, greatest first and those alike in their order.
   *
   * @param total which of the totals, 0-based
   * @param most how many
   * @param numbersOnly whether groups whose total is no number are passed over; else they are last
   * @return at most so many groups
   */
  public List<List<@Nullable String>> foremost(int total, int most, boolean numbersOnly) {
    Comparator<Ranked> order =
        Comparator.comparing(Ranked::number, Comparator.nullsFirst(Comparator.naturalOrder()));
    PriorityQueue<Ranked> best =
        new PriorityQueue<>(order.thenComparing(Comparator.comparing(Ranked::line).reversed()));
    boolean ordered = !order().isEmpty();
    for (int line = 0; line < groups.size() && !(ordered && best.size() == most); line++) {
      List<@Nullable String> group = groups.get(line);
      String text = group.size() > by.size() + total ? group.get(by.size() + total) : null;
      BigDecimal number = text == null ? null : DecimalText.read(text);
      if (number == null && numbersOnly) {
        continue;
      }
      best.add(new Ranked(ordered ? BigDecimal.valueOf(-line) : number, line, group));
      if (best.size() > most) {
        best.remove();
      }
    }
    List<List<@Nullable String>> foremost = new ArrayList<>();
    while (!best.isEmpty()) {
      foremost.add(0, best.remove().group());
    }
    return foremost;
  }

  /** A group by what it is ranked by. */
  private record Ranked(@Nullable BigDecimal number, int line, List<@Nullable String> group) {}

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
