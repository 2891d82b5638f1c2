package org.abletwine.benchmarks;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.abletwine.match.MatchRule;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.match.index.RuleIndexes;
import org.abletwine.match.index.RuleRows;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The probe of each kind of rule, per value, and a plain sorted map beside the ordered ones. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
public class RuleProbe {
  private static final int MOST_PATTERNS = 100_000;

  /** Rows of the reference; at most 100,000 patterns or texts. */
  @Param({"1000", "100000", "1000000"})
  public int rows;

  /** The rule. */
  @Param({
    "AT_OR_BELOW",
    "AT_OR_ABOVE",
    "NEAREST",
    "BETWEEN",
    "STARTS_WITH",
    "CONTAINS",
    "WILDCARD",
    "REGEX",
    "SIMILAR"
  })
  public MatchRule.Kind rule;

  private RuleIndex index;
  private final CellVector values = new CellVector();
  private final int[] partitions = new int[Batch.ROWS];
  private final int[] found = new int[Batch.ROWS];
  private final NavigableMap<BigDecimal, Integer> map = new TreeMap<>();

  /** Fills the index, and the values to look for. */
  @Setup
  public void fill() {
    rows = rule.ordered() ? rows : Math.min(rows, MOST_PATTERNS);
    boolean band = rule == MatchRule.Kind.BETWEEN;
    RuleRows all = new RuleRows(band ? 2 : 1);
    CellVector[] cells = {new CellVector(), new CellVector()};
    for (int row = 0; row < rows; row++) {
      for (int v = 0; v < 2; v++) {
        cells[v].clear();
        cells[v].append(rule.pattern() ? "p" + (row + v) : Integer.toString(row + v));
      }
      all.add(cells, 0, 0, row, row);
      map.put(BigDecimal.valueOf(row), row);
    }
    index =
        RuleIndexes.build(
            all, MatchRule.of(rule), false, null, "bench", row -> row + 1L, List.of());
    SplittableRandom random = new SplittableRandom(1);
    values.clear();
    for (int i = 0; i < Batch.ROWS; i++) {
      int at = random.nextInt(rows);
      values.append(rule.pattern() ? "p" + at + " and more" : at + ".5");
    }
  }

  /** Probes a batch. */
  @Benchmark
  @OperationsPerInvocation(Batch.ROWS)
  public int probe() {
    index.probe(partitions, values, Batch.ROWS, found);
    return found[0];
  }

  /** Looks the same numbers up in a sorted map; numbers only. */
  @Benchmark
  @OperationsPerInvocation(Batch.ROWS)
  public int plainSortedMap() {
    int sum = 0;
    for (int i = 0; i < Batch.ROWS && !rule.pattern(); i++) {
      Map.Entry<BigDecimal, Integer> entry = map.floorEntry(new BigDecimal(values.get(i)));
      sum += entry == null ? 0 : entry.getValue();
    }
    return sum;
  }
}
