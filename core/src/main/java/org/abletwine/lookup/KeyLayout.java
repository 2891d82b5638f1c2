package org.abletwine.lookup;

import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.key.NormaliseStep;
import org.jspecify.annotations.Nullable;

/**
 * How a key divides: the parts that must be equal, and at most one that matches by a rule within
 * the rows whose equal parts agree.
 *
 * @param equal the equal parts, as places in the key
 * @param rule the part with a rule, or -1
 */
record KeyLayout(int[] equal, int rule) implements java.io.Serializable {
  static KeyLayout of(Lookup lookup) {
    int[] equal =
        IntStream.range(0, lookup.key.size()).filter(p -> lookup.key.get(p).equal()).toArray();
    int rule =
        IntStream.range(0, lookup.key.size())
            .filter(p -> !lookup.key.get(p).equal())
            .findFirst()
            .orElse(-1);
    return new KeyLayout(equal, rule);
  }

  static List<NormaliseStep> steps(Lookup lookup, KeyPart part) {
    return part.normalise() == null ? lookup.normalise : part.normalise();
  }

  /** The normalise steps of each equal part. */
  List<List<NormaliseStep>> equalSteps(Lookup lookup) {
    return IntStream.of(equal).mapToObj(p -> steps(lookup, lookup.key.get(p))).toList();
  }

  /** The normalise steps of the part with a rule. */
  NormaliseStep[] ruleSteps(Lookup lookup) {
    return rule < 0
        ? new NormaliseStep[0]
        : steps(lookup, lookup.key.get(rule)).toArray(NormaliseStep[]::new);
  }

  /** The reference's columns of the key: those of the equal parts, then those of the rule. */
  List<String> theirs(Lookup lookup) {
    List<String> columns =
        new java.util.ArrayList<>(
            IntStream.of(equal).mapToObj(p -> lookup.key.get(p).theirs()).toList());
    if (rule >= 0) {
      columns.add(lookup.key.get(rule).theirs());
      @Nullable String to = lookup.key.get(rule).theirsTo();
      if (to != null) {
        columns.add(to);
      }
    }
    return columns;
  }
}
