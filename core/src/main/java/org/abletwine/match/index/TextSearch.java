package org.abletwine.match.index;

import java.io.IOException;
import java.io.ObjectInputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.match.MatchRule;
import org.abletwine.match.NearMiss;
import org.abletwine.match.OwnRule;
import org.abletwine.match.near.NearKeys;
import org.abletwine.table.batch.CellVector;

/**
 * Texts in the reference, searched with our value: as a pattern, for the most similar, or by a rule
 * of somebody else's. Each distinct value is searched for once and remembered. A search goes
 * through the texts of its partition; for similarity, through those that may be similar enough (see
 * {@link SimilarKeys}).
 */
final class TextSearch implements RuleIndex {
  private static final long serialVersionUID = 1L;
  private static final int MOST_REMEMBERED = 200_000;

  /** Texts that are equally like a value by their words, at most. */
  private static final int MOST_EQUAL = 16;

  private final MatchRule rule;
  private final boolean folded;
  private final Map<Integer, Map<String, int[]>> rowsOf = new HashMap<>();
  private final Map<Integer, Integer> placeOf = new HashMap<>();
  private final InternedSets sets = new InternedSets();
  private transient Map<Integer, SimilarKeys> near = new ConcurrentHashMap<>();
  private transient Map<Integer, NearKeys> words = new ConcurrentHashMap<>();
  private transient Map<Integer, Map<String, List<String>>> common = new ConcurrentHashMap<>();
  private transient Map<Value, Integer> remembered = new ConcurrentHashMap<>();

  private record Value(int partition, String text) {}

  TextSearch(RuleRows rows, MatchRule rule, boolean folded) {
    this.rule = rule;
    this.folded = folded;
    Map<Integer, Map<String, List<Integer>>> collected = new HashMap<>();
    for (int row = 0; row < rows.rows(); row++) {
      collected
          .computeIfAbsent(rows.partition(row), p -> new LinkedHashMap<>())
          .computeIfAbsent(String.valueOf(rows.value(row, 0)), v -> new ArrayList<>())
          .add(rows.number(row));
      placeOf.put(rows.number(row), rows.place(row));
    }
    collected.forEach(
        (partition, texts) -> {
          Map<String, int[]> fixed = new LinkedHashMap<>();
          texts.forEach(
              (text, numbers) ->
                  fixed.put(text, numbers.stream().mapToInt(Integer::intValue).toArray()));
          rowsOf.put(partition, fixed);
        });
  }

  @Override
  public void probe(int[] partitions, CellVector values, int rows, int[] found) {
    for (int row = 0; row < rows; row++) {
      if (values.starts[row] >= values.ends[row] || partitions[row] < 0) {
        found[row] = ABSENT;
        continue;
      }
      if (remembered.size() > MOST_REMEMBERED) {
        remembered.clear();
      }
      Value value = new Value(partitions[row], String.valueOf(values.get(row)));
      found[row] = remembered.computeIfAbsent(value, this::search);
    }
  }

  private void readObject(ObjectInputStream in) throws IOException, ClassNotFoundException {
    in.defaultReadObject();
    near = new ConcurrentHashMap<>();
    words = new ConcurrentHashMap<>();
    common = new ConcurrentHashMap<>();
    remembered = new ConcurrentHashMap<>();
  }

  private int search(Value value) {
    Map<String, int[]> texts = rowsOf.getOrDefault(value.partition(), Map.of());
    OwnRule own = rule.own();
    List<String> fitting =
        own != null
            ? best(own, value, texts)
            : rule.kind() == MatchRule.Kind.SIMILAR
                ? similar(value, texts)
                : matching(value, texts);
    if (fitting == null) {
      return UNFIT;
    }
    int[] rows =
        fitting.stream()
            .flatMapToInt(t -> java.util.Arrays.stream(texts.get(t)))
            .sorted()
            .toArray();
    return switch (rows.length) {
      case 0 -> ABSENT;
      case 1 -> placeOf.get(rows[0]);
      default -> ~sets.of(rows);
    };
  }

  private @org.jspecify.annotations.Nullable List<String> matching(
      Value value, Map<String, int[]> texts) {
    Patterns pattern = Patterns.of(rule.kind(), value.text(), folded);
    return pattern == null ? null : texts.keySet().stream().filter(pattern::fits).toList();
  }

  /** The texts that match best by somebody else's rule, of those with which it may match. */
  private List<String> best(OwnRule own, Value value, Map<String, int[]> texts) {
    Map<String, List<String>> blocks =
        common.computeIfAbsent(
            value.partition(),
            p -> texts.keySet().stream().collect(Collectors.groupingBy(own::common)));
    List<String> best = new ArrayList<>();
    double greatest = 0;
    for (String text : blocks.getOrDefault(own.common(value.text()), List.of())) {
      double likeness = own.likeness(value.text(), text);
      if (likeness > greatest) {
        best.clear();
        greatest = likeness;
      }
      if (likeness > 0 && likeness == greatest) {
        best.add(text);
      }
    }
    return best;
  }

  private List<String> similar(Value value, Map<String, int[]> texts) {
    if (rule.by() == MatchRule.By.WORDS) {
      return byWords(value, texts);
    }
    SimilarKeys keys =
        near.computeIfAbsent(value.partition(), p -> new SimilarKeys(List.copyOf(texts.keySet())));
    return keys.mostSimilar(value.text(), rule.atLeast()).stream()
        .map(SimilarKeys.Similar::key)
        .toList();
  }

  /** The texts most like a value by their words: one, or several that are equally like it. */
  private List<String> byWords(Value value, Map<String, int[]> texts) {
    NearKeys keys =
        words.computeIfAbsent(value.partition(), p -> new NearKeys(List.copyOf(texts.keySet())));
    List<NearMiss> near = keys.search().nearest(value.text(), MOST_EQUAL);
    return near.stream()
        .filter(miss -> miss.likeness() >= rule.atLeast())
        .filter(miss -> miss.likeness() == near.get(0).likeness())
        .map(NearMiss::key)
        .toList();
  }

  @Override
  public RowSets sets() {
    return sets;
  }

  @Override
  public String toString() {
    return "TextSearch[" + rule + "]";
  }
}
