package org.abletwine.match;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** One pattern, compiled. Stateless in use; safe to share between threads. */
interface Patterns extends Serializable {

  /** Whether a text fits. */
  boolean fits(String text);

  /** A literal that every text that fits has in it; empty when there is none to be sure of. */
  String literal();

  /** How many of the pattern's characters are literal: the more, the more specific. */
  int specificity();

  /**
   * Compiles a pattern.
   *
   * @return the pattern, or null when it is a regular expression that does not compile
   */
  static @Nullable Patterns of(MatchRule.Kind kind, String text) {
    return switch (kind) {
      case STARTS_WITH -> new Literal(text, true);
      case CONTAINS -> new Literal(text, false);
      case WILDCARD -> Wildcard.of(text);
      default -> {
        try {
          yield new Regex(Pattern.compile(text));
        } catch (PatternSyntaxException e) {
          yield null;
        }
      }
    };
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
   * @param pattern the pattern
   * @param literal its longest run without either
   */
  record Wildcard(String pattern, String literal) implements Patterns {
    private static final long serialVersionUID = 1L;

    static Wildcard of(String pattern) {
      String longest = "";
      for (String run : pattern.split("[*?]")) {
        longest = run.length() > longest.length() ? run : longest;
      }
      return new Wildcard(pattern, longest);
    }

    /** Greedy with one point of return, the last star: linear but for texts that almost fit. */
    @Override
    public boolean fits(String text) {
      int at = 0;
      int p = 0;
      int star = -1;
      int mark = 0;
      while (at < text.length()) {
        if (p < pattern.length() && pattern.charAt(p) == '*') {
          star = p++;
          mark = at;
        } else if (p < pattern.length() && one(text, at, pattern.charAt(p))) {
          at += pattern.charAt(p) == '?' ? width(text, at) : 1;
          p++;
        } else if (star >= 0) {
          p = star + 1;
          mark += width(text, mark);
          at = mark;
        } else {
          return false;
        }
      }
      while (p < pattern.length() && pattern.charAt(p) == '*') {
        p++;
      }
      return p == pattern.length();
    }

    private static boolean one(String text, int at, char c) {
      return c == '?' || text.charAt(at) == c;
    }

    private static int width(String text, int at) {
      return Character.charCount(text.codePointAt(at));
    }

    @Override
    public int specificity() {
      return (int) pattern.codePoints().filter(c -> c != '*' && c != '?').count();
    }
  }

  /** A regular expression, found anywhere. */
  record Regex(Pattern pattern) implements Patterns {
    private static final long serialVersionUID = 1L;

    @Override
    public boolean fits(String text) {
      return pattern.matcher(text).find();
    }

    @Override
    public String literal() {
      return RequiredLiteral.of(pattern.pattern());
    }

    @Override
    public int specificity() {
      return pattern.pattern().length();
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
            } else if (at < regex.length() && "QEpPx".indexOf(regex.charAt(at)) >= 0) {
              return "";
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
          case '\\' -> at++;
          case '[' -> at = classEnd(regex, at);
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

    private static int classEnd(String regex, int from) {
      for (int at = from + 2; at < regex.length(); at++) {
        if (regex.charAt(at) == '\\') {
          at++;
        } else if (regex.charAt(at) == ']') {
          return at;
        }
      }
      return regex.length();
    }
  }
}
