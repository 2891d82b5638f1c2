package org.abletwine.plan;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Duplicates;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Outcome;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.match.MatchRule;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.plan.Plan.ReferenceSpec;
import org.jspecify.annotations.Nullable;

/** A lookup in words. */
final class LookupWords {
  private final Map<String, ReferenceSpec> references;

  LookupWords(Map<String, ReferenceSpec> references) {
    this.references = references;
  }

  String of(LookupSpec step) {
    List<String> sentences = new ArrayList<>();
    sentences.add(
        (step.when() == null ? "" : "for rows of which " + step.when() + " is true, ")
            + found(step));
    brings(step, sentences);
    for (LookupSpec other : step.otherwise()) {
      sentences.add("where there is none, " + found(other));
      brings(other, sentences);
    }
    several(step, sentences);
    treatments(step, sentences);
    if (step.mark() != null) {
      sentences.add("what became of each row is noted in " + step.mark());
    }
    return String.join(" ", sentences.stream().map(Wording::sentence).toList());
  }

  /** Which row of the reference is found. */
  private String found(LookupSpec step) {
    ReferenceSpec reference = references.get(step.reference());
    List<KeyPart> key = key(step, reference);
    List<NormaliseStep> steps =
        step.normalise() == null ? List.of(Normalise.trim()) : step.normalise();
    return "the row of "
        + PlanWords.table(reference)
        + " is found "
        + Wording.list(key.stream().map(LookupWords::part).toList())
        + steps(steps)
        + ofParts(key)
        + condition(reference);
  }

  private static List<KeyPart> key(LookupSpec step, @Nullable ReferenceSpec reference) {
    return !step.key().isEmpty() || reference == null
        ? step.key()
        : reference.key().stream().map(name -> new KeyPart(name, name, null)).toList();
  }

  private static String part(KeyPart part) {
    String ours = part.ours();
    String theirs = part.theirs();
    MatchRule rule = part.match();
    String within =
        rule.within() == null ? "" : ", at most " + rule.within().toPlainString() + " away";
    return switch (rule.kind()) {
      case EQUAL ->
          ours.equals(theirs) ? "with our " + ours : "whose " + theirs + " is our " + ours;
      case AT_OR_BELOW -> "with the greatest " + theirs + " not above our " + ours + within;
      case AT_OR_ABOVE -> "with the least " + theirs + " not below our " + ours + within;
      case NEAREST -> "with the " + theirs + " nearest to our " + ours + within;
      case BETWEEN ->
          "whose "
              + theirs
              + (part.theirsTo() == null ? "" : " to " + part.theirsTo())
              + " holds our "
              + ours
              + " ("
              + ends(rule)
              + ")";
      case STARTS_WITH -> pattern(part, "starts with");
      case CONTAINS -> pattern(part, "contains");
      case WILDCARD -> pattern(part, "fits (* stands for anything)");
      case REGEX -> pattern(part, "fits as a regular expression");
      case LISTED -> "whose list in " + theirs + " has our " + ours + " in it";
      case OWN -> "whose " + theirs + " matches our " + ours + " by the rule " + rule.word();
      case SIMILAR ->
          "with the "
              + theirs
              + " most similar to our "
              + ours
              + (rule.by() == MatchRule.By.WORDS ? " by its words" : "")
              + " (at least "
              + rule.atLeast()
              + ")";
    };
  }

  private static String ends(MatchRule rule) {
    return (rule.ends().lowerIn() ? "lower end in, " : "lower end out, ")
        + (rule.ends().upperIn() ? "upper end in" : "upper end out");
  }

  private static String pattern(KeyPart part, String fits) {
    return part.match().oursIsPattern()
        ? "whose " + part.theirs() + " " + fits + " our " + part.ours()
        : "whose " + part.theirs() + " our " + part.ours() + " " + fits;
  }

  /** What does not matter in a comparison, and how the rest is compared. */
  private static String steps(List<NormaliseStep> steps) {
    if (steps.isEmpty()) {
      return ", exactly as written";
    }
    List<String> ignored = new ArrayList<>();
    List<String> others = new ArrayList<>();
    for (NormaliseStep step : steps) {
      String name = step.toString();
      String argument = name.replaceFirst("^[a-z-]+:? ?", "");
      switch (name.replaceFirst(":.*", "")) {
        case "trim" -> ignored.add("spaces around it");
        case "collapse-spaces" -> ignored.add("runs of spaces");
        case "ignore-case" -> ignored.add("case");
        case "ignore-accents" -> ignored.add("accents");
        case "ignore-punctuation" -> ignored.add("punctuation");
        case "drop-leading-zeros" -> ignored.add("leading zeros");
        case "digits-only" -> ignored.add("all but its digits");
        case "drop-prefix" -> ignored.add("\"" + argument + "\" in front");
        case "drop-suffix" -> ignored.add("\"" + argument + "\" at its end");
        case "pad-zeros" -> others.add("filled up with zeros to " + argument + " characters");
        case "first" -> others.add("by its first " + argument + " characters");
        case "last" -> others.add("by its last " + argument + " characters");
        case "as-number" -> others.add("as a number");
        case "as-date" -> others.add("as a date");
        default -> others.add("after " + name);
      }
    }
    return (ignored.isEmpty()
            ? ""
            : ignored.size() == 1 && !ignored.get(0).startsWith("spaces")
                ? "; " + ignored.get(0) + " does not matter"
                : "; " + Wording.list(ignored) + " do not matter")
        + (others.isEmpty() ? "" : "; compared " + Wording.list(others));
  }

  private static String ofParts(List<KeyPart> key) {
    StringBuilder text = new StringBuilder();
    for (KeyPart part : key) {
      if (part.normalise() != null) {
        text.append("; of ").append(part.ours()).append(steps(part.normalise()).substring(1));
      }
    }
    return text.toString();
  }

  private static String condition(@Nullable ReferenceSpec reference) {
    if (reference == null) {
      return "";
    }
    Duplicates duplicates = reference.duplicates();
    String rule =
        switch (duplicates.rule()) {
          case KEEP -> "";
          case FAIL -> "; a key on several of its rows ends the run";
          case FIRST -> "; of rows with one key the first counts";
          case LAST -> "; of rows with one key the last counts";
          case NEWEST_BY ->
              "; of rows with one key the one with the greatest " + duplicates.column() + " counts";
          case FULLEST -> "; of rows with one key the one with the fewest nulls counts";
          case IDENTICAL -> "; rows that are alike count as one, any others of one key end the run";
        };
    return (reference.where() == null ? "" : "; only rows with " + reference.where() + " count")
        + (reference.leavesOutUnreadable()
            ? "; rows are left out of which a cell that puts them in order cannot be read"
            : "")
        + rule;
  }

  private static void brings(LookupSpec step, List<String> sentences) {
    sentences.add(
        step.bringAll()
            ? "all its other columns are fetched"
            : step.bring().isEmpty()
                ? "nothing is fetched from it"
                : "fetched from it: " + Wording.list(step.bring()));
  }

  private static void several(LookupSpec step, List<String> sentences) {
    Several several = step.several();
    if (several == null) {
      return;
    }
    sentences.add(
        "where a key fits several rows, "
            + switch (several.rule()) {
              case FLAG -> "nothing is fetched, unless they agree";
              case FIRST -> "the first is taken";
              case LAST -> "the last is taken";
              case NEWEST_BY -> "the one with the greatest " + several.column() + " is taken";
              case LONGEST -> "the longest pattern is taken";
              case EACH -> "the row comes out once for each of them";
            });
  }

  private static void treatments(LookupSpec step, List<String> sentences) {
    for (Map.Entry<Outcome, Treatment> one : step.treatments().entrySet()) {
      Treatment treatment = one.getValue();
      String who =
          switch (one.getKey()) {
            case MATCHED -> "where a row is found, ";
            case UNMATCHED -> "where none is found, ";
            case AMBIGUOUS -> "where several are found that disagree, ";
            case BLANK_KEY -> "where the key is blank, ";
            case NOT_ASKED -> "where it is not asked for, ";
          };
      Map<String, String> fill = new LinkedHashMap<>(treatment.fill().values());
      String what =
          switch (treatment.action()) {
            case LEAVE -> fill.isEmpty() ? "there are nulls" : fills(treatment.fill());
            case EXPECT -> "that is expected and needs nobody";
            case DROP ->
                treatment.apart() == null
                    ? "the row is left out"
                    : "the row is left out, and written to " + treatment.apart().shortName();
            case FAIL -> "the run ends";
          };
      sentences.add(who + what);
    }
    if (!step.empty().values().isEmpty()) {
      sentences.add("where the reference has a null, " + fills(step.empty()));
    }
  }

  private static String fills(Fill fill) {
    return Wording.list(
        fill.values().entrySet().stream()
            .map(one -> one.getKey() + " becomes \"" + one.getValue() + "\"")
            .toList());
  }
}
