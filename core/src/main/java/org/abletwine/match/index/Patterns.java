package org.abletwine.match.index;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.abletwine.match.MatchRule;
import org.jspecify.annotations.Nullable;

/** One pattern, compiled. Stateless in use; safe to share between threads. */
interface Patterns extends Serializable {
  /** Characters of a regular expression at most. */
  int MOST_REGEX = 10_000;

  /** Whether a text fits. */
  boolean fits(String text);

  /** A literal that every text that fits has in it; empty when there is none to be sure of. */
  String literal();

  /** How many of the pattern's characters are literal: the more, the more specific. */
  int specificity();

  /**
   * Compiles a pattern.
   *
   * @param folded whether case is ignored: a regular expression then takes letters of either case,
   *     and the texts it is looked for in have had theirs folded; other patterns have been folded
   *     as the texts were
   * @return the pattern, or null when it is a regular expression that does not compile
   */
  static @Nullable Patterns of(MatchRule.Kind kind, String text, boolean folded) {
    return switch (kind) {
      case STARTS_WITH -> new Literal(text, true);
      case CONTAINS -> new Literal(text, false);
      case WILDCARD -> Wildcard.of(text);
      default -> regex(text, folded);
    };
  }

  private static @Nullable Patterns regex(String text, boolean folded) {
    if (text.length() > MOST_REGEX) {
      return null;
    }
    try {
      Pattern compiled = Pattern.compile(text, folded ? Pattern.CASE_INSENSITIVE : 0);
      String literal = RequiredLiteral.of(text);
      if (!folded) {
        return new Regex(compiled, literal);
      }
      // In folded text an ASCII letter can only be met in its lower case; other letters may differ.
      boolean ascii = literal.codePoints().allMatch(c -> c < 0x80);
      return new Regex(compiled, ascii ? literal.toLowerCase(Locale.ROOT) : "");
    } catch (PatternSyntaxException | StackOverflowError e) {
      return null; // groups within groups beyond what the library can go through
    }
  }

  /** A part text. */
  record Literal(String literal, boolean atStart) implements Patterns {
    private static final long serialVersionUID = 1L;

    @Override
    public boolean fits(String text) {
      return atStart ? text.startsWith(literal) : text.contains(literal);
    }

    @Override
    public int specificity() {
      return literal.codePointCount(0, literal.length());
    }
  }

  /**
   * A pattern in which {@code *} is any run of characters and {@code ?} any one.
   *
   * @param compiled what it fits
   * @param literal its longest run without either
   * @param specificity its characters that are neither
   */
  record Wildcard(TextPattern compiled, String literal, int specificity) implements Patterns {
    private static final long serialVersionUID = 1L;

    static Wildcard of(String pattern) {
      String longest = "";
      for (String run : pattern.split("[*?]")) {
        longest = run.length() > longest.length() ? run : longest;
      }
      int literals = (int) pattern.codePoints().filter(c -> c != '*' && c != '?').count();
      return new Wildcard(TextPattern.of(pattern, '*', '?', -1), longest, literals);
    }

    @Override
    public boolean fits(String text) {
      return compiled.fits(text);
    }
  }

  /**
   * A regular expression, found anywhere.
   *
   * @param pattern the expression, compiled
   * @param literal a text that all it finds have in them, or empty
   */
  record Regex(Pattern pattern, String literal) implements Patterns {
    private static final long serialVersionUID = 1L;

    @Override
    public boolean fits(String text) {
      return pattern.matcher(text).find();
    }

    @Override
    public int specificity() {
      return pattern.pattern().codePointCount(0, pattern.pattern().length());
    }
  }

  /**
   * The longest run of characters that a regular expression cannot do without. Careful rather than
   * clever: what it does not understand ends a run, and alternatives or flags mean there is none.
   */
  final class RequiredLiteral {
    private RequiredLiteral() {}

    static String of(String regex) {
      List<String> runs = new ArrayList<>();
      StringBuilder run = new StringBuilder();
      int at = 0;
      while (at < regex.length()) {
        char c = regex.charAt(at);
        switch (c) {
          case '|':
            return "";
          case '(':
            if (regex.startsWith("(?", at)) {
              return "";
            }
            at = groupEnd(regex, at);
            if (at < 0) {
              return "";
            }
            end(run, runs);
            break;
          case '[':
            at = classEnd(regex, at);
            if (at < 0) {
              return "";
            }
            end(run, runs);
            break;
          case '*', '?', '{':
            if (run.length() > 0) {
              run.setLength(run.length() - 1);
            }
            end(run, runs);
            at = c == '{' ? Math.max(at, regex.indexOf('}', at)) : at;
            break;
          case '+', '.', '^', '$':
            end(run, runs);
            break;
          case '\\':
            at++;
            if (at < regex.length() && !Character.isLetterOrDigit(regex.charAt(at))) {
              run.append(regex.charAt(at));
            } else if (at < regex.length() && "QEpPx01234567".indexOf(regex.charAt(at)) >= 0) {
              return ""; // more characters belong to it than this one
            } else {
              end(run, runs);
            }
            break;
          default:
            if (Character.isSurrogate(c)) {
              end(run, runs);
            } else {
              run.append(c);
            }
        }
        at++;
      }
      end(run, runs);
      String longest = "";
      for (String one : runs) {
        longest = one.length() > longest.length() ? one : longest;
      }
      return longest;
    }

    private static void end(StringBuilder run, List<String> runs) {
      runs.add(run.toString());
      run.setLength(0);
    }

    /** The closing bracket of a group; negative when something in it is not plain enough. */
    private static int groupEnd(String regex, int from) {
      int depth = 0;
      for (int at = from; at < regex.length(); at++) {
        switch (regex.charAt(at)) {
          case '\\' -> {
            at++;
            if (at < regex.length() && regex.charAt(at) == 'Q') {
              return -1;
            }
          }
          case '[' -> {
            at = classEnd(regex, at);
            if (at < 0) {
              return -1;
            }
          }
          case '(' -> depth++;
          case ')' -> {
            if (--depth == 0) {
              return at;
            }
          }
          default -> {}
        }
      }
      return -1;
    }

    /**
     * The closing bracket of a class: one that stands first is a character like any other. Negative
     * when there is none, or another bracket opens within, as those of named classes do.
     */
    private static int classEnd(String regex, int from) {
      int first = regex.startsWith("^", from + 1) ? from + 2 : from + 1;
      for (int at = first; at < regex.length(); at++) {
        char c = regex.charAt(at);
        if (c == '\\') {
          at++;
        } else if (c == '[') {
          return -1;
        } else if (c == ']' && at > first) {
          return at;
        }
      }
      return -1;
    }
  }
}
