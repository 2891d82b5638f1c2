package org.abletwine.key;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.ServiceLoader;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.ByOwnName;
import org.abletwine.table.text.NearestName;

/**
 * The normalise steps, by their plain names. Each is immutable and safe to share between threads;
 * they apply in the order given, to both sides of a key, for comparing only.
 */
public final class Normalise {
  /** Steps that take no argument. */
  private static final List<String> PLAIN =
      List.of(
          "trim",
          "collapse-spaces",
          "ignore-case",
          "ignore-accents",
          "ignore-punctuation",
          "drop-leading-zeros",
          "digits-only",
          "as-number");

  /** Steps that take one. */
  private static final List<String> WITH_ARGUMENT =
      List.of("pad-zeros", "drop-prefix", "drop-suffix", "first", "last", "as-date", "replace");

  private static final int MOST_CHARACTERS = 1_000;

  /** Characters of a regular expression at most. */
  private static final int MOST_PATTERN = 10_000;

  private Normalise() {}

  /**
   * Leaves out spaces at both ends, of every kind; the default when nothing is said.
   *
   * @return the step
   */
  public static NormaliseStep trim() {
    return new Trim();
  }

  /**
   * Makes every run of spaces one plain space.
   *
   * @return the step
   */
  public static NormaliseStep collapseSpaces() {
    return new CollapseSpaces();
  }

  /**
   * Folds case, and full-width and decomposed letters, beyond ASCII too.
   *
   * @return the step
   */
  public static NormaliseStep ignoreCase() {
    return new IgnoreCase();
  }

  /**
   * Leaves out accents.
   *
   * @return the step
   */
  public static NormaliseStep ignoreAccents() {
    return new Letters.IgnoreAccents();
  }

  /**
   * Leaves out punctuation and symbols.
   *
   * @return the step
   */
  public static NormaliseStep ignorePunctuation() {
    return new Letters.IgnorePunctuation();
  }

  /**
   * Leaves out leading zeros; a cell of zeros only keeps one.
   *
   * @return the step
   */
  public static NormaliseStep dropLeadingZeros() {
    return new Ends.DropLeadingZeros();
  }

  /**
   * Keeps digits only.
   *
   * @return the step
   */
  public static NormaliseStep digitsOnly() {
    return new Letters.DigitsOnly();
  }

  /**
   * Makes numbers of one value one text.
   *
   * @return the step
   */
  public static NormaliseStep asNumber() {
    return new Values.AsNumber();
  }

  /**
   * Fills up with zeros on the left.
   *
   * @param width characters, 1 to 1000
   * @return the step
   */
  public static NormaliseStep padZeros(int width) {
    return new Values.PadZeros(inRange(width, "pad-zeros"));
  }

  /**
   * Leaves out a beginning where it is there.
   *
   * @param prefix the beginning, compared exactly
   * @return the step
   */
  public static NormaliseStep dropPrefix(String prefix) {
    Objects.requireNonNull(prefix, "prefix");
    return new Ends.DropAffix(true, prefix);
  }

  /**
   * Leaves out an end where it is there.
   *
   * @param suffix the end, compared exactly
   * @return the step
   */
  public static NormaliseStep dropSuffix(String suffix) {
    Objects.requireNonNull(suffix, "suffix");
    return new Ends.DropAffix(false, suffix);
  }

  /**
   * Keeps the first characters.
   *
   * @param count code points, 1 to 1000
   * @return the step
   */
  public static NormaliseStep first(int count) {
    return new Ends.Keep(true, inRange(count, "first"));
  }

  /**
   * Keeps the last characters.
   *
   * @param count code points, 1 to 1000
   * @return the step
   */
  public static NormaliseStep last(int count) {
    return new Ends.Keep(false, inRange(count, "last"));
  }

  /**
   * Makes dates of one day one text.
   *
   * @param patterns such as {@code dd/MM/yyyy}, tried in order
   * @return the step
   * @throws SettingException when a pattern is not one
   */
  public static NormaliseStep asDate(List<String> patterns) {
    Objects.requireNonNull(patterns, "patterns");
    try {
      return new Values.AsDate(patterns);
    } catch (IllegalArgumentException e) {
      throw new SettingException(
          "as-date: not a date pattern: " + e.getMessage() + "; write it as dd/MM/yyyy");
    }
  }

  /**
   * Replaces what a regular expression finds.
   *
   * @param pattern a regular expression in RE2 syntax; matching is linear in the length of the cell
   * @param with what to put; {@code $1} stands for the first group
   * @return the step
   * @throws SettingException when the pattern does not compile
   */
  public static NormaliseStep replace(String pattern, String with) {
    Objects.requireNonNull(pattern, "pattern");
    Objects.requireNonNull(with, "with");
    if (pattern.length() > MOST_PATTERN) {
      throw new SettingException(
          "replace: a pattern of "
              + pattern.length()
              + " characters, more than "
              + MOST_PATTERN
              + "; use several steps, or a table of corrections");
    }
    try {
      Pattern compiled = Pattern.compile(pattern);
      checkGroups(compiled, with);
      return new Values.Replace(compiled, with);
    } catch (StackOverflowError e) {
      throw new SettingException(
          "replace: the pattern has groups within groups beyond what can be gone through");
    } catch (PatternSyntaxException e) {
      int at = e.getPattern() == null ? -1 : pattern.indexOf(e.getPattern());
      throw new SettingException(
          "replace: the pattern "
              + pattern
              + " does not compile: "
              + e.getDescription()
              + (at < 0 ? "" : " at character " + (at + 1) + " (" + e.getPattern() + ")"));
    }
  }

  /** What is put in is checked before any row: a group that is not there would end the run. */
  private static void checkGroups(Pattern pattern, String with) {
    try {
      Matcher matcher = Pattern.compile(pattern.pattern() + "|").matcher("");
      if (matcher.find()) {
        matcher.appendReplacement(new StringBuilder(), with);
      }
    } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
      throw new SettingException(
          "replace: cannot put `"
              + with
              + "`: the pattern has "
              + (pattern.groupCount() == 0 ? "no groups" : "groups up to $" + pattern.groupCount())
              + "; $1 stands for the first group, and a dollar sign is written \\$");
    }
  }

  /**
   * A step that takes no argument, by its name; one of others too, which {@link ServiceLoader}
   * finds and whose name has a colon, such as {@code bridge:without-name}.
   *
   * @param name such as {@code trim}
   * @return the step
   * @throws SettingException when no step of that name does without an argument
   */
  public static NormaliseStep named(String name) {
    Objects.requireNonNull(name, "name");
    return switch (name) {
      case "trim" -> trim();
      case "collapse-spaces" -> collapseSpaces();
      case "ignore-case" -> ignoreCase();
      case "ignore-accents" -> ignoreAccents();
      case "ignore-punctuation" -> ignorePunctuation();
      case "drop-leading-zeros" -> dropLeadingZeros();
      case "digits-only" -> digitsOnly();
      case "as-number" -> asNumber();
      case "as-date" -> asDate(List.of("yyyy-MM-dd"));
      case "none" ->
          throw new SettingException("normalise: \"none\" stands alone, not beside other steps");
      default -> name.indexOf(':') > 0 ? ofOthers(name) : throwUnknown(name);
    };
  }

  private static NormaliseStep ofOthers(String name) {
    return ByOwnName.find(
        ServiceLoader.load(NormaliseStep.class), NormaliseStep::name, name, "normalise", "step");
  }

  private static NormaliseStep throwUnknown(String name) {
    throw unknown(name);
  }

  /**
   * A step that takes an argument, by its name.
   *
   * @param name such as {@code drop-suffix}
   * @param argument the argument as text; date patterns parted by {@code |}, a replacement written
   *     {@code PATTERN => TEXT}
   * @return the step
   * @throws SettingException when no step of that name takes an argument, or the argument is wrong
   */
  public static NormaliseStep named(String name, String argument) {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(argument, "argument");
    return switch (name) {
      case "pad-zeros" -> padZeros(number(name, argument));
      case "drop-prefix" -> dropPrefix(given(name, argument));
      case "drop-suffix" -> dropSuffix(given(name, argument));
      case "first" -> first(number(name, argument));
      case "last" -> last(number(name, argument));
      case "as-date" -> asDate(List.of(given(name, argument).split("\\s*\\|\\s*")));
      case "replace" -> {
        int at = argument.indexOf("=>");
        if (at < 0) {
          throw new SettingException("replace: write it as PATTERN => TEXT");
        }
        yield replace(argument.substring(0, at).strip(), argument.substring(at + 2).strip());
      }
      default -> {
        if (PLAIN.contains(name)) {
          throw new SettingException("normalise: " + name + " takes no argument");
        }
        throw unknown(name);
      }
    };
  }

  /**
   * Reads steps as an option writes them: {@code NAME} or {@code NAME=ARGUMENT}.
   *
   * @param names the steps in the order to apply; {@code none} alone turns normalising off
   * @return the steps
   * @throws SettingException when one is wrong
   */
  public static List<NormaliseStep> parse(List<String> names) {
    Objects.requireNonNull(names, "names");
    if (names.equals(List.of("none"))) {
      return List.of();
    }
    return names.stream()
        .map(String::strip)
        .map(
            text -> {
              int at = text.indexOf('=');
              return at < 0 ? named(text) : named(text.substring(0, at), text.substring(at + 1));
            })
        .toList();
  }

  private static SettingException unknown(String name) {
    if (WITH_ARGUMENT.contains(name)) {
      String example =
          switch (name) {
            case "pad-zeros" -> "6";
            case "first", "last" -> "3";
            case "replace" -> "{ pattern: P, with: R }";
            default -> "TEXT";
          };
      return new SettingException(
          "normalise: " + name + " needs an argument, such as " + name + ": " + example);
    }
    List<String> all = new ArrayList<>(PLAIN);
    all.addAll(WITH_ARGUMENT);
    return new SettingException(
        "normalise: no step is called \"" + name + "\"; " + NearestName.hint(name, all));
  }

  private static String given(String name, String argument) {
    if (argument.isEmpty()) {
      throw new SettingException("normalise: " + name + " needs a text that is not empty");
    }
    return argument;
  }

  private static int number(String name, String argument) {
    try {
      return inRange(Integer.parseInt(argument.strip()), name);
    } catch (NumberFormatException e) {
      throw new SettingException(
          "normalise: " + name + " takes a whole number, not \"" + argument + "\"");
    }
  }

  private static int inRange(int count, String name) {
    if (count < 1 || count > MOST_CHARACTERS) {
      throw new SettingException(
          "normalise: " + name + " takes a number from 1 to " + MOST_CHARACTERS + ", not " + count);
    }
    return count;
  }
}
