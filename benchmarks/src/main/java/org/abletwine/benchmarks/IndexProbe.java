package org.abletwine.benchmarks;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
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

/**
 * The index probe, hits and misses, and the plain map beside it. Time is per key, keys already
 * encoded; the map's keys are strings already made.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
public class IndexProbe {
  private static final int BATCHES = 64;

  /** Distinct keys in the index. */
  @Param({"1000", "100000", "1000000"})
  public int keys;

  /** Whether the keys looked for are there. */
  @Param({"true", "false"})
  public boolean hit;

  private HashIndex index;
  private final EncodedKeys[] encoded = new EncodedKeys[BATCHES];
  private final String[] texts = new String[BATCHES * Batch.ROWS];
  private final int[] found = new int[Batch.ROWS];
  private final Map<String, Integer> map = new HashMap<>();
  private int next;

  /** Fills the index, and the batches of keys to look for. */
  @Setup
  public void fill() {
    RowStore store = new RowStore(0);
    index = new HashIndex(store);
    KeyEncoder encoder = new KeyEncoder(new int[] {0}, List.of(List.of()));
    EncodedKeys one = new EncodedKeys();
    for (int row = 0; row < keys; row++) {
      String key = key(row);
      encoder.encode(OneRow.of(key), one);
      store.add(new CellVector[0], 0, one);
      index.add(one, 0, row);
      map.put(key, row);
    }
    SplittableRandom random = new SplittableRandom(1);
    for (int b = 0; b < BATCHES; b++) {
      Batch batch = new Batch(1);
      for (int i = 0; i < Batch.ROWS; i++) {
        String text = key(random.nextInt(keys) + (hit ? 0 : keys));
        texts[b * Batch.ROWS + i] = text;
        batch.addCell(text);
        batch.endRow(0);
      }
      encoded[b] = new EncodedKeys();
      encoder.encode(batch, encoded[b]);
    }
  }

  private static String key(int number) {
    return String.format(java.util.Locale.ROOT, "%07dK", number);
  }

  /** Probes a batch. */
  @Benchmark
  @OperationsPerInvocation(Batch.ROWS)
  public int probe() {
    next = (next + 1) % BATCHES;
    index.probe(encoded[next], found);
    return found[0];
  }

  /** Looks the same keys up in a map. */
  @Benchmark
  @OperationsPerInvocation(Batch.ROWS)
  public int plainMap() {
    next = (next + 1) % BATCHES;
    int sum = 0;
    for (int i = 0; i < Batch.ROWS; i++) {
      Integer row = map.get(texts[next * Batch.ROWS + i]);
      sum += row == null ? 0 : row;
    }
    return sum;
  }
}
