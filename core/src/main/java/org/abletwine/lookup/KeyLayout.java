package org.abletwine.lookup;

import java.util.List;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.MatchRule;
import org.abletwine.match.index.PatternSteps;
import org.jspecify.annotations.Nullable;

/**
 * How a key divides: the parts that must be equal, and those that match by a rule within the rows
 * whose equal parts agree.
 *
 * @param equal the equal parts, as places in the key
 * @param rules the parts with a rule, as places in the key: the bands first, then the other one
 */
record KeyLayout(int[] equal, int[] rules) implements java.io.Serializable {
  static KeyLayout of(Lookup lookup) {
    return new KeyLayout(
        places(lookup, KeyPart::equal),
        IntStream.concat(
                IntStream.of(places(lookup, KeyLayout::band)),
                IntStream.of(places(lookup, part -> !part.equal() && !band(part))))
            .toArray());
  }

  private static boolean band(KeyPart part) {
    return part.match().kind() == MatchRule.Kind.BETWEEN;
  }

  private static int[] places(Lookup lookup, Predicate<KeyPart> wanted) {
    return IntStream.range(0, lookup.key.size())
        .filter(place -> wanted.test(lookup.key.get(place)))
        .toArray();
  }

  /** Whether any part matches by a rule. */
  boolean ruled() {
    return rules.length > 0;
  }

  static List<NormaliseStep> steps(Lookup lookup, KeyPart part) {
    return part.normalise() == null ? lookup.normalise : part.normalise();
  }

  /** The normalise steps of each equal part. */
  List<List<NormaliseStep>> equalSteps(Lookup lookup) {
    return IntStream.of(equal).mapToObj(p -> steps(lookup, lookup.key.get(p))).toList();
  }

  /**
   * The normalise steps of each part with a rule.
   *
   * @param ours whether for the side of the transactions
   */
  NormaliseStep[][] ruleSteps(Lookup lookup, boolean ours) {
    return IntStream.of(rules)
        .mapToObj(p -> stepsOf(lookup, lookup.key.get(p), ours).toArray(NormaliseStep[]::new))
        .toArray(NormaliseStep[][]::new);
  }

  /** The steps of a part on one side: patterns keep their meaning. */
  static List<NormaliseStep> stepsOf(Lookup lookup, KeyPart part, boolean ours) {
    List<NormaliseStep> steps = steps(lookup, part);
    if (part.match().kind() == MatchRule.Kind.LISTED && !ours) {
      return List.of(); // a list is taken apart first
    }
    boolean pattern = part.match().kind().pattern() && part.match().oursIsPattern() == ours;
    return pattern ? PatternSteps.of(part.match().kind(), steps) : steps;
  }

  /**
   * Whether values of the columns of {@link #theirs} are private; of the equal parts first, as they
   * are.
   */
  boolean[] hidden(Lookup lookup) {
    List<String> columns = theirs(lookup);
    boolean[] hidden = new boolean[columns.size()];
    for (int i = 0; i < hidden.length; i++) {
      hidden[i] = lookup.hides(columns.get(i));
    }
    return hidden;
  }

  /** The reference's columns of the key: those of the equal parts, then those of the rules. */
  List<String> theirs(Lookup lookup) {
    List<String> columns =
        new java.util.ArrayList<>(
            IntStream.of(equal).mapToObj(p -> lookup.key.get(p).theirs()).toList());
    for (int rule : rules) {
      columns.add(lookup.key.get(rule).theirs());
      @Nullable String to = lookup.key.get(rule).theirsTo();
      if (to != null) {
        columns.add(to);
      }
    }
    return columns;
  }
}
