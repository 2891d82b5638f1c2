package org.abletwine.match.index;

import java.util.List;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.match.MatchRule;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * Normalise steps on the side of a key part that holds patterns: they must not change what a
 * pattern means. Spaces around the pattern go by {@code trim}; every other step sees only its
 * literal stretches, between the signs. Of a regular expression only single characters are changed,
 * and its case is ignored by the expression's own flag (see {@link Patterns}). Immutable; safe to
 * share between threads.
 */
public final class PatternSteps implements CellsStep {
  private static final long serialVersionUID = 1L;
  private static final String TRIM = "trim";
  private static final String IGNORE_CASE = "ignore-case";
  private static final Set<String> OF_REGEX = Set.of(TRIM, IGNORE_CASE, "ignore-accents");
  private static final Set<String> OF_WILDCARD =
      Set.of(
          TRIM,
          IGNORE_CASE,
          "ignore-accents",
          "collapse-spaces",
          "ignore-punctuation",
          "digits-only");

  private final MatchRule.Kind kind;
  private final NormaliseStep[] steps;

  private PatternSteps(MatchRule.Kind kind, List<NormaliseStep> steps) {
    this.kind = kind;
    this.steps = steps.toArray(NormaliseStep[]::new);
  }

  /**
   * The steps for patterns.
   *
   * @param kind the rule
   * @param steps the steps stated, all of which {@linkplain #refused can be applied}
   * @return what to apply to patterns in place of them
   */
  public static List<NormaliseStep> of(MatchRule.Kind kind, List<NormaliseStep> steps) {
    boolean signs = kind == MatchRule.Kind.WILDCARD || kind == MatchRule.Kind.REGEX;
    return signs ? List.of(new PatternSteps(kind, steps)) : steps;
  }

  /**
   * The first step that cannot be applied to patterns.
   *
   * @param kind the rule
   * @param steps the steps stated
   * @return its name, or null when all can be
   */
  public static @Nullable String refused(MatchRule.Kind kind, List<NormaliseStep> steps) {
    Set<String> taken =
        switch (kind) {
          case WILDCARD -> OF_WILDCARD;
          case REGEX -> OF_REGEX;
          default -> null;
        };
    return taken == null
        ? null
        : steps.stream()
            .map(NormaliseStep::name)
            .filter(name -> !taken.contains(name))
            .findFirst()
            .orElse(null);
  }

  /**
   * Whether steps ignore case.
   *
   * @param steps the steps stated
   */
  public static boolean folds(List<NormaliseStep> steps) {
    return steps.stream().anyMatch(step -> step.name().equals(IGNORE_CASE));
  }

  @Override
  public String name() {
    return "literal stretches of patterns";
  }

  @Override
  public void apply(CellVector cells, int rows) {
    cells.takeOwnership();
    for (int row = 0; row < rows; row++) {
      String pattern = cells.get(row);
      if (pattern != null) {
        for (NormaliseStep step : steps) {
          pattern = kind == MatchRule.Kind.REGEX ? inRegex(step, pattern) : inWild(step, pattern);
        }
        cells.replace(row, pattern);
      }
    }
  }

  private static String inWild(NormaliseStep step, String pattern) {
    if (step.name().equals(TRIM)) {
      return step.apply(pattern);
    }
    StringBuilder result = new StringBuilder();
    int from = 0;
    for (int at = 0; at <= pattern.length(); at++) {
      boolean sign = at < pattern.length() && "*?".indexOf(pattern.charAt(at)) >= 0;
      if (sign || at == pattern.length()) {
        result.append(at > from ? step.apply(pattern.substring(from, at)) : "");
        result.append(sign ? pattern.substring(at, at + 1) : "");
        from = at + 1;
      }
    }
    return result.toString();
  }

  private static String inRegex(NormaliseStep step, String regex) {
    if (step.name().equals(TRIM)) {
      String trimmed = step.apply(regex);
      int slashes = 0;
      while (trimmed.endsWith("\\".repeat(slashes + 1))) {
        slashes++;
      }
      // A space after a backslash belongs to the expression.
      int from = regex.indexOf(trimmed);
      return slashes % 2 == 0 ? trimmed : regex.substring(from, from + trimmed.length() + 1);
    }
    StringBuilder result = new StringBuilder();
    boolean inClass = false;
    for (int at = 0; at < regex.length(); ) {
      int c = regex.codePointAt(at);
      int next = at + Character.charCount(c);
      if (c == '\\') {
        next = Math.min(regex.length(), at + 2);
      }
      inClass = c == '[' || inClass && c != ']';
      result.append(c < 0x80 ? regex.substring(at, next) : literal(step, c, inClass));
      at = next;
    }
    return result.toString();
  }

  /** A character beyond ASCII, which has no meaning of its own in an expression. */
  private static String literal(NormaliseStep step, int c, boolean inClass) {
    String before = Character.toString(c);
    String after = step.apply(before);
    if (after.codePointCount(0, after.length()) == 1) {
      return after;
    }
    return inClass ? before : "(?:" + after + ")";
  }

  @Override
  public String toString() {
    return name();
  }
}
