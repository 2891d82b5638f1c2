package org.abletwine.match.index;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.match.MatchRule;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.CellVector;

/**
 * Patterns in the reference, texts in the transactions. One pass of an automaton over each text
 * finds the literals in it; only patterns whose literal was found are tried, and part texts need no
 * trying at all. Patterns without a literal are always tried.
 */
final class PatternIndex implements RuleIndex {
  private static final long serialVersionUID = 1L;

  private final MatchRule.Kind kind;
  private final Patterns[] patterns;
  private final int[] partitions;
  private final int[] places;
  private final int[] numbers;
  private final int[] specificities;
  private final Map<Integer, Integer> patternOf = new HashMap<>();
  private final int[] withLiteral;
  private final int[] without;
  private final LiteralAutomaton automaton;
  private final InternedSets sets = new InternedSets();

  PatternIndex(
      RuleRows rows, MatchRule rule, boolean folded, String place, RuleIndexes.RowNumber number) {
    kind = rule.kind();
    int count = rows.rows();
    patterns = new Patterns[count];
    partitions = new int[count];
    places = new int[count];
    numbers = new int[count];
    specificities = new int[count];
    List<String> literals = new ArrayList<>();
    List<Integer> having = new ArrayList<>();
    List<Integer> lacking = new ArrayList<>();
    for (int row = 0; row < count; row++) {
      String text = String.valueOf(rows.value(row, 0));
      Patterns pattern = Patterns.of(kind, text, folded);
      if (pattern == null) {
        boolean shorter = text.length() <= 200;
        throw new DataException(
            place
                + ", row "
                + number.of(rows.number(row))
                + ": `"
                + (shorter || rows.hidden() ? rows.shown(row, 0) : text.substring(0, 200) + "...")
                + "` is not a regular expression of up to "
                + Patterns.MOST_REGEX
                + " characters; correct it, or match: contains",
            place,
            number.of(rows.number(row)),
            null);
      }
      patterns[row] = pattern;
      partitions[row] = rows.partition(row);
      places[row] = rows.place(row);
      numbers[row] = rows.number(row);
      specificities[row] = pattern.specificity();
      patternOf.put(numbers[row], row);
      if (pattern.literal().isEmpty()) {
        lacking.add(row);
      } else {
        having.add(row);
        literals.add(pattern.literal());
      }
    }
    withLiteral = having.stream().mapToInt(Integer::intValue).toArray();
    without = lacking.stream().mapToInt(Integer::intValue).toArray();
    try {
      automaton = new LiteralAutomaton(literals, kind != MatchRule.Kind.STARTS_WITH);
    } catch (IllegalStateException e) {
      throw new DataException(place + ": " + e.getMessage(), e);
    }
  }

  /** The patterns that fit one text; reused from row to row. */
  private final class Fitting implements LiteralAutomaton.Hit {
    private int[] found = new int[16];
    private int count;
    private int partition;
    private CellVector cells = new CellVector();
    private int row;
    private final int[] lastRow = new int[patterns.length];
    private String text = "";
    private boolean textKnown;

    @Override
    public void found(int literal) {
      offer(withLiteral[literal]);
    }

    void start(CellVector values, int at, int inPartition) {
      cells = values;
      row = at;
      partition = inPartition;
      count = 0;
      textKnown = false;
    }

    void offer(int pattern) {
      if (partitions[pattern] != partition || lastRow[pattern] == row + 1) {
        return;
      }
      lastRow[pattern] = row + 1;
      boolean sure = kind == MatchRule.Kind.STARTS_WITH || kind == MatchRule.Kind.CONTAINS;
      if (!sure) {
        if (!textKnown) {
          text = String.valueOf(cells.get(row));
          textKnown = true;
        }
        if (!patterns[pattern].fits(text)) {
          return;
        }
      }
      if (count == found.length) {
        found = Arrays.copyOf(found, count * 2);
      }
      found[count++] = pattern;
    }

    int target() {
      if (count == 0) {
        return ABSENT;
      }
      if (count == 1) {
        return places[found[0]];
      }
      int[] rows = new int[count];
      for (int i = 0; i < count; i++) {
        rows[i] = numbers[found[i]];
      }
      Arrays.sort(rows);
      return ~sets.of(rows);
    }
  }

  @Override
  public void probe(int[] rowPartitions, CellVector values, int rows, int[] found) {
    Fitting fitting = new Fitting();
    for (int row = 0; row < rows; row++) {
      int start = values.starts[row];
      int end = values.ends[row];
      if (start >= end || rowPartitions[row] < 0) {
        found[row] = ABSENT;
        continue;
      }
      fitting.start(values, row, rowPartitions[row]);
      if (kind == MatchRule.Kind.STARTS_WITH) {
        automaton.atStart(values.text, start, end, fitting);
      } else {
        automaton.anywhere(values.text, start, end, fitting);
      }
      for (int pattern : without) {
        fitting.offer(pattern);
      }
      found[row] = fitting.target();
    }
  }

  @Override
  public RowSets sets() {
    return sets;
  }

  @Override
  public int specificity(int row) {
    Integer pattern = patternOf.get(row);
    return pattern == null ? 0 : specificities[pattern];
  }

  @Override
  public String toString() {
    return "PatternIndex[" + patterns.length + " patterns]";
  }
}
