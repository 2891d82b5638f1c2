package org.abletwine.audit;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.key.Normalise;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Gathers what one column holds, batch by batch. */
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
  private final List<String> examples = new ArrayList<>();
  private boolean unique = true;
  private long nulls;
  private long values;
  private long straySpaces;
  private int shortest = Integer.MAX_VALUE;
  private int longest;
  private final ValueKinds kinds = new ValueKinds();
  private final WrittenForms forms = new WrittenForms();
  private final NullWords nullWords = new NullWords();
  private final FrequentValues frequent = new FrequentValues();
  private final LeastGreatest ends = new LeastGreatest();

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
      int start = cells.starts[row];
      if (start < 0) {
        nulls++;
        continue;
      }
      value(cells, row, start, cells.ends[row], batch.rowNumber(row));
    }
  }

  private void value(CellVector cells, int row, int start, int end, long number) {
    byte[] text = cells.text;
    values++;
    int length = Utf8.points(text, start, end);
    shortest = Math.min(shortest, length);
    longest = Math.max(longest, length);
    if (start < end
        && (Spaces.length(text, start, end) > 0 || Spaces.lengthBefore(text, start, end) > 0)) {
      straySpaces++;
    }
    ValueKinds.Kind kind = kinds.count(text, start, end, number);
    boolean word = nullWords.look(text, start, end);
    long hash = HashCounter.mixed(cells.hash(row));
    frequent.count(hash, text, start, end);
    if (unique && !once.add(hash)) {
      unique = false;
    }
    boolean isNew = all.add(hash);
    if (isNew || !all.exact()) {
      ends.look(text, start, end);
    }
    if (isNew && !word && forms.open()) {
      forms.look(kind, text, start, end);
    }
    if (isNew) {
      if (examples.size() < EXAMPLES && !hidden) {
        String value = String.valueOf(cells.get(row));
        examples.add(
            value.codePointCount(0, value.length()) <= EXAMPLE_CHARACTERS
                ? value
                : value.substring(0, value.offsetByCodePoints(0, EXAMPLE_CHARACTERS - 1)) + "…");
      }
      one.clear();
      one.append(text, start, end);
      CellsStep.apply(Normalise.dropLeadingZeros(), one, 1);
      unpadded.add(HashCounter.mixed(one.hash(0)));
      one.clear();
      one.append(text, start, end);
      CellsStep.apply(Normalise.ignoreCase(), one, 1);
      folded.add(HashCounter.mixed(one.hash(0)));
    }
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

  TableProfile.Column profile() {
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
        examples,
        straySpaces,
        all.exact() ? all.count() - folded.count() : 0,
        all.exact() ? all.count() - unpadded.count() : 0,
        unique && once.exact() && nulls == 0 && values > 0);
  }
}
