package org.abletwine.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.key.Normalise;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Gathers what one column holds, batch by batch. Each worker has one of its own, and what they have
 * gathered is brought together at the end: it is the same however the rows were shared, since all
 * of it follows from which values there are, how often, and on which row each stands first. Most
 * values of most columns stood before: of those nothing is looked at but that, as long as {@link
 * FrequentValues} knows them.
 */
final class ColumnProfiler {
  /** Distinct values counted exactly; while no value has stood twice, {@link #MOST_UNIQUE}. */
  private static final int MOST_EXACT = 200_000;

  private static final int MOST_UNIQUE = 8_000_000;
  private static final int EXAMPLES = 3;
  private static final int FREQUENT = 5;
  private static final int EXAMPLE_CHARACTERS = 30;

  private final String name;
  private final boolean hidden;
  private final HashCounter all = new HashCounter(MOST_EXACT);
  private final HashCounter folded = new HashCounter(MOST_EXACT);
  private final HashCounter unpadded = new HashCounter(MOST_EXACT);
  private final HashCounter once = new HashCounter(MOST_UNIQUE);
  private final CellVector one = new CellVector();
  private final List<Example> examples = new ArrayList<>();
  private boolean unique = true;
  private long nulls;
  private long values;
  private long straySpaces;
  private int shortest = Integer.MAX_VALUE;
  private int longest;
  private final ValueKinds kinds = new ValueKinds();
  private final WrittenForms forms = new WrittenForms();
  private final NullWords nullWords = new NullWords();
  private final FrequentValues frequent = new FrequentValues(this::stoodAgain);
  private final LeastGreatest ends = new LeastGreatest();

  /** A value, as it is shown, and the first row seen that has it. */
  private record Example(long row, long hash, String shown) {}

  /**
   * @param hidden whether no value may be told: of those that are frequent digests are
   */
  ColumnProfiler(String name, boolean hidden) {
    this.hidden = hidden;
    this.name = name;
  }

  void take(Batch batch, int column) {
    CellVector cells = batch.column(column);
    int rows = batch.rows();
    for (int row = 0; row < rows; row++) {
      if (cells.starts[row] < 0) {
        nulls++;
        continue;
      }
      long hash = HashCounter.mixed(cells.hash(row));
      if (frequent.again(hash)) {
        stoodBefore();
      } else {
        value(cells, row, hash, batch.rowNumber(row));
      }
    }
  }

  /** A value that did not stand before, or of which that is not known. */
  private void value(CellVector cells, int row, long hash, long number) {
    byte[] text = cells.text;
    int start = cells.starts[row];
    int end = cells.ends[row];
    values++;
    int length = Utf8.points(text, start, end);
    shortest = Math.min(shortest, length);
    longest = Math.max(longest, length);
    boolean stray =
        start < end
            && (Spaces.length(text, start, end) > 0 || Spaces.lengthBefore(text, start, end) > 0);
    straySpaces += stray ? 1 : 0;
    ValueKinds.Kind kind = kinds.count(text, start, end, number);
    int word = nullWords.look(text, start, end, number);
    frequent.add(hash, text, start, end, number, Traits.of(stray, kind, word));
    if (unique && !once.add(hash)) {
      stoodBefore();
    }
    boolean isNew = all.add(hash);
    if (isNew || !all.exact()) {
      ends.look(text, start, end, number);
    }
    if (isNew && word < 0 && forms.open()) {
      forms.look(kind, text, start, end);
    }
    if (isNew) {
      distinct(cells, row, hash, number);
    }
  }

  /** Some value stands twice. */
  private void stoodBefore() {
    if (unique) {
      unique = false;
      once.estimate(); // it takes much memory, and is of no use any more
    }
  }

  /** A value that did not stand before. */
  private void distinct(CellVector cells, int row, long hash, long number) {
    if (examples.size() < EXAMPLES && !hidden) {
      examples.add(new Example(number, hash, shown(String.valueOf(cells.get(row)))));
    }
    one.clear();
    one.append(cells.text, cells.starts[row], cells.ends[row]);
    CellsStep.apply(Normalise.dropLeadingZeros(), one, 1);
    unpadded.add(HashCounter.mixed(one.hash(0)));
    one.clear();
    one.append(cells.text, cells.starts[row], cells.ends[row]);
    CellsStep.apply(Normalise.ignoreCase(), one, 1);
    folded.add(HashCounter.mixed(one.hash(0)));
  }

  /** A value that was looked at once has stood so many times more. */
  private void stoodAgain(int traits, long times) {
    values += times;
    straySpaces += Traits.stray(traits) ? times : 0;
    kinds.again(Traits.kind(traits), times);
    nullWords.again(Traits.word(traits), times);
  }

  /** Adds what another worker has gathered of the same column. */
  void merge(ColumnProfiler other) {
    unique &= other.unique && once.merge(other.once);
    nulls += other.nulls;
    frequent.merge(other.frequent);
    values += other.values;
    straySpaces += other.straySpaces;
    shortest = Math.min(shortest, other.shortest);
    longest = Math.max(longest, other.longest);
    kinds.merge(other.kinds);
    nullWords.merge(other.nullWords);
    all.merge(other.all);
    folded.merge(other.folded);
    unpadded.merge(other.unpadded);
    forms.merge(other.forms);
    ends.merge(other.ends);
    examples.addAll(other.examples);
  }

  private TableProfile.Column.@Nullable Spoiled spoiled() {
    TableProfile.Column.Spoiled spoiled = kinds.spoiled(nullWords.count());
    return spoiled == null
        ? null
        : new TableProfile.Column.Spoiled(
            spoiled.type(),
            spoiled.cells(),
            String.valueOf(Veil.over(hidden, spoiled.example())),
            spoiled.row());
  }

  private List<TableProfile.Column.Value> frequent() {
    return frequent.most(FREQUENT).stream()
        .map(
            value ->
                new TableProfile.Column.Value(
                    String.valueOf(Veil.over(hidden, value.value())), value.rows()))
        .toList();
  }

  /** The first values that differ: of each worker's first ones those that stand first. */
  private List<String> examples() {
    Set<Long> met = new HashSet<>();
    return examples.stream()
        .sorted(Comparator.comparingLong(Example::row))
        .filter(example -> met.add(example.hash()))
        .limit(EXAMPLES)
        .map(Example::shown)
        .toList();
  }

  private static String shown(String value) {
    return value.codePointCount(0, value.length()) <= EXAMPLE_CHARACTERS
        ? value
        : value.substring(0, value.offsetByCodePoints(0, EXAMPLE_CHARACTERS - 1)) + "…";
  }

  /** What the column holds, once all rows are gathered. */
  TableProfile.Column profile() {
    frequent.settle();
    return new TableProfile.Column(
        name,
        kinds.type(),
        spoiled(),
        kinds.type().equals("text") && all.exact() ? forms.found() : List.of(),
        nulls,
        all.count(),
        all.exact(),
        values == 0 ? 0 : shortest,
        longest,
        hidden ? null : ends.least(),
        hidden ? null : ends.greatest(),
        frequent(),
        nullWords.found(),
        examples(),
        straySpaces,
        all.exact() ? all.count() - folded.count() : 0,
        all.exact() ? all.count() - unpadded.count() : 0,
        unique && once.exact() && nulls == 0 && values > 0);
  }
}
