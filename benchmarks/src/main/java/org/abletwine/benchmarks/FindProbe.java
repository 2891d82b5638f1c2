package org.abletwine.benchmarks;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.LoadedLookup;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** One record at a time: a loaded lookup of growers by one equal key part, two attributes. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
public class FindProbe {
  private static final int ASKED = 1 << 14;

  /** Growers. */
  @Param({"1000", "1000000"})
  public int keys;

  private LoadedLookup growers;
  private final String[] codes = new String[ASKED];
  private int next;

  /** Growers that are made as they are read. */
  private record Growers(int count) implements Table {
    @Override
    public String name() {
      return "growers";
    }

    @Override
    public Schema schema() {
      return new Schema(List.of("code", "name", "district"));
    }

    @Override
    public Rows rows() {
      Iterator<Integer> numbers = IntStream.range(0, count).iterator();
      return new Rows() {
        @Override
        public @Nullable List<@Nullable String> next() {
          return numbers.hasNext() ? row(numbers.next()) : null;
        }

        @Override
        public void close() {}
      };
    }

    private static List<@Nullable String> row(int number) {
      return new ArrayList<>(List.of(code(number), "Grower " + number, "D" + number % 40));
    }
  }

  private static String code(int number) {
    return String.format(Locale.ROOT, "%07dK", number);
  }

  /** Loads the growers, and chooses those that are asked for. */
  @Setup
  public void load() {
    growers =
        Lookup.in(new Growers(keys))
            .key("grower", "code")
            .normalise(Normalise.trim())
            .bring("name", "district")
            .load();
    SplittableRandom random = new SplittableRandom(1);
    for (int i = 0; i < ASKED; i++) {
      codes[i] = code(random.nextInt(keys));
    }
  }

  /** Finds one grower. */
  @Benchmark
  public LoadedLookup.Result find() {
    return growers.find(codes[next++ & ASKED - 1]);
  }
}
