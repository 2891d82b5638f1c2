package org.abletwine.plan.random;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A part of a key as the oracle sees it: whether a value of ours fits a row of theirs, by comparing
 * the two and nothing else.
 *
 * @param ours our column
 * @param theirs their column, or the lower end of a band
 * @param theirsTo the upper end of a band, or null
 * @param kind the rule as a plan writes it
 * @param ends which ends of a band belong to it
 * @param within how far the nearest may be, or null
 * @param normalise the steps as a plan writes them
 * @param times whether the values are dates or times, and not numbers
 */
record Fit(
    String ours,
    String theirs,
    @Nullable String theirsTo,
    String kind,
    String ends,
    @Nullable String within,
    List<String> normalise,
    boolean times) {

  boolean equal() {
    return kind.equals("equal");
  }

  boolean ordered() {
    return List.of("at-or-below", "at-or-above", "nearest", "between").contains(kind);
  }

  boolean pattern() {
    return !equal() && !ordered() && !kind.equals("listed");
  }

  String inPlan() {
    StringBuilder text = new StringBuilder("{ ours: " + ours + ", theirs: ");
    text.append(theirsTo == null ? theirs : "[" + theirs + ", " + theirsTo + "]");
    if (!equal()) {
      text.append(", match: ").append(kind);
    }
    if (kind.equals("between")) {
      text.append(", ends: ").append(ends);
    }
    if (within != null) {
      text.append(", within: ").append(within);
    }
    return text.append(", normalise: [" + String.join(", ", normalise) + "] }").toString();
  }

  /** A value as it is compared. */
  @Nullable String normalised(@Nullable String value) {
    String now = value;
    for (String step : normalise) {
      now =
          now == null
              ? null
              : switch (step) {
                case "trim" -> now.strip();
                case "ignore-case" -> now.toLowerCase(Locale.ROOT);
                case "drop-leading-zeros" -> now.replaceFirst("^0+(?=.)", "");
                default -> now;
              };
    }
    return now;
  }

  boolean blank(@Nullable String value) {
    String now = normalised(value);
    return now == null || now.isEmpty();
  }

  /** An ordered value, or null when it is none of the kind. */
  private static @Nullable Comparable<?> ordered(@Nullable String text, boolean times) {
    if (text == null || text.isEmpty()) {
      return null;
    }
    try {
      if (!times) {
        return new BigDecimal(text);
      }
      return text.length() == 10 ? LocalDate.parse(text).atStartOfDay() : LocalDateTime.parse(text);
    } catch (RuntimeException e) {
      return null;
    }
  }

  boolean readable(@Nullable String value) {
    return ordered(normalised(value), times) != null;
  }

  @SuppressWarnings({"unchecked", "rawtypes"})
  private int compare(@Nullable String one, @Nullable String other) {
    Comparable a = ordered(normalised(one), times);
    Comparable b = ordered(normalised(other), times);
    if (a == null || b == null) {
      throw new IllegalStateException(one + " and " + other);
    }
    return a.compareTo(b);
  }

  /** Whether one value is not above another. */
  boolean inOrder(String one, String other) {
    return compare(one, other) <= 0;
  }

  /** How far apart two values are: in days where they are times, exactly. */
  private BigDecimal distance(@Nullable String one, @Nullable String other) {
    Comparable<?> a = ordered(normalised(one), times);
    Comparable<?> b = ordered(normalised(other), times);
    if (a instanceof BigDecimal x && b instanceof BigDecimal y) {
      return x.subtract(y).abs();
    }
    java.time.Duration apart =
        java.time.Duration.between((LocalDateTime) a, (LocalDateTime) b).abs();
    return BigDecimal.valueOf(apart.getSeconds())
        .multiply(BigDecimal.valueOf(1_000_000_000L))
        .add(BigDecimal.valueOf(apart.getNano()));
  }

  private BigDecimal reach() {
    BigDecimal stated = new BigDecimal(String.valueOf(within));
    return times ? stated.multiply(BigDecimal.valueOf(86_400_000_000_000L)) : stated;
  }

  private boolean near(@Nullable String one, @Nullable String other) {
    return within == null || distance(one, other).compareTo(reach()) <= 0;
  }

  /** A reversed band: the run has to end. */
  boolean reversed(Grid table, int row) {
    String low = table.get(row, theirs);
    String high = theirsTo == null ? null : table.get(row, theirsTo);
    return !blank(low) && !blank(high) && compare(low, high) > 0;
  }

  /** The rows of some that a value fits. */
  List<Integer> fitting(@Nullable String value, Grid table, List<Integer> among) {
    return among.stream().filter(row -> fits(value, table, row, among)).toList();
  }

  private boolean fits(@Nullable String value, Grid table, int row, List<Integer> among) {
    String one = table.get(row, theirs);
    String mine = String.valueOf(normalised(value));
    String other = String.valueOf(normalised(one));
    return switch (kind) {
      case "equal" -> mine.equals(other);
      case "at-or-below" ->
          near(one, value)
              && compare(one, value) <= 0
              && among.stream()
                  .map(r -> table.get(r, theirs))
                  .noneMatch(o -> compare(o, value) <= 0 && compare(o, one) > 0);
      case "at-or-above" ->
          near(one, value)
              && compare(one, value) >= 0
              && among.stream()
                  .map(r -> table.get(r, theirs))
                  .noneMatch(o -> compare(o, value) >= 0 && compare(o, one) < 0);
      case "nearest" -> {
        BigDecimal here = distance(one, value);
        yield near(one, value)
            && among.stream()
                .map(r -> table.get(r, theirs))
                .noneMatch(o -> distance(o, value).compareTo(here) < 0);
      }
      case "between" -> {
        String to = theirsTo == null ? null : table.get(row, theirsTo);
        boolean lowerIn = ends.equals("lower") || ends.equals("both");
        boolean upperIn = ends.equals("upper") || ends.equals("both");
        yield (blank(one) || compare(one, value) < (lowerIn ? 1 : 0))
            && (blank(to) || compare(value, to) < (upperIn ? 1 : 0));
      }
      case "listed" ->
          List.of(String.valueOf(one).split(",", -1)).stream()
              .map(this::normalised)
              .anyMatch(mine::equals);
      case "starts-with" -> mine.startsWith(other);
      case "contains" -> mine.contains(other);
      case "wildcard" -> {
        StringBuilder regex = new StringBuilder();
        for (char c : other.toCharArray()) {
          regex.append(c == '*' ? ".*" : c == '?' ? "." : Pattern.quote("" + c));
        }
        yield Pattern.compile(regex.toString(), Pattern.DOTALL).matcher(mine).matches();
      }
      case "regex" -> {
        // The pattern keeps its own letters: case is ignored by the text's having been folded.
        int flags = normalise.contains("ignore-case") ? Pattern.CASE_INSENSITIVE : 0;
        String written = String.valueOf(one).strip();
        String java = written.replaceAll("\\[:alpha:\\]", "\\\\p{Alpha}");
        java = java.replaceAll("\\[:digit:\\]", "\\\\p{Digit}");
        java = java.replace("\\101", "\\0101").replace("[^]x]", "[^\\]x]");
        yield Pattern.compile(java, flags).matcher(mine).find();
      }
      default -> throw new IllegalStateException(kind);
    };
  }
}
