package org.abletwine.compute;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/** Reads the text of an expression with the SQL parser, and says what to do when it cannot. */
final class SqlText {
  /** Characters of an expression at most. */
  static final int MOST_CHARACTERS = 20_000;

  /** Brackets one within another at most. */
  static final int MOST_BRACKETS = 100;

  private static final Pattern PLACE = Pattern.compile("line (\\d+), column (\\d+)");

  /** A condition within CAST that the parser does not take. */
  private static final Pattern BARE_CAST =
      Pattern.compile("\\bcast\\s*\\([^()]*[=<>]", Pattern.CASE_INSENSITIVE);

  /** What the parser says of text that goes on where an expression is complete. */
  private static final Pattern PARTIAL = Pattern.compile("partial expression (.+)", Pattern.DOTALL);

  private SqlText() {}

  /**
   * Reads an expression or a condition.
   *
   * @param text the text
   * @param names the columns there are: one of them may be a word of SQL
   * @param where the setting it stands in, for messages
   * @throws SettingException when it cannot be read
   */
  static Expression parse(String text, List<String> names, String where) {
    checkSize(text, where);
    try {
      return parse(text);
    } catch (Unreadable e) {
      throw new SettingException(
          where
              + ": cannot read `"
              + text
              + "`: "
              + e.getMessage()
              + reserved(text, names)
              + (BARE_CAST.matcher(text).find()
                  ? "; a condition within CAST stands in brackets: CAST((a = b) AS INTEGER)"
                  : ""));
    }
  }

  /** What is too large is refused before the parser, whose stack and time follow it. */
  private static void checkSize(String text, String where) {
    if (text.length() > MOST_CHARACTERS) {
      throw new SettingException(
          where
              + ": an expression of "
              + text.length()
              + " characters, more than "
              + MOST_CHARACTERS
              + "; compute parts of it as columns of their own");
    }
    int depth = 0;
    for (int i = 0; i < text.length(); i++) {
      depth += text.charAt(i) == '(' ? 1 : text.charAt(i) == ')' ? -1 : 0;
      if (depth > MOST_BRACKETS) {
        throw new SettingException(
            where
                + ": more than "
                + MOST_BRACKETS
                + " brackets one within another, at character "
                + (i + 1)
                + "; compute a part of it as a column of its own");
      }
    }
  }

  /** The parser's way to say no, which has many forms, as one with its place in words. */
  private static final class Unreadable extends Exception {
    private static final long serialVersionUID = 1L;

    Unreadable(String place, Throwable cause) {
      super(place, cause);
    }
  }

  private static Expression parse(String text) throws Unreadable {
    if (text.isBlank()) {
      throw new Unreadable("there is nothing in it", new IllegalArgumentException(text));
    }
    Throwable first;
    try {
      return CCJSqlParserUtil.parseExpression(text, false);
    } catch (JSQLParserException | RuntimeException | StackOverflowError e) {
      first = e;
    }
    try {
      return CCJSqlParserUtil.parseCondExpression(text, false);
    } catch (JSQLParserException | RuntimeException | StackOverflowError e) {
      Matcher partial = PARTIAL.matcher(String.valueOf(e.getMessage()));
      throw new Unreadable(
          partial.find() ? "it goes wrong after `" + partial.group(1) + "`" : place(text, first),
          e);
    }
  }

  /** Where the parser stopped, and what there may have been wrong. */
  private static String place(String text, Throwable error) {
    Throwable cause = error.getCause() == null ? error : error.getCause();
    Matcher place = PLACE.matcher(String.valueOf(cause.getMessage()));
    if (!place.find()) {
      return "it is not an expression of ISO SQL";
    }
    int line = Integer.parseInt(place.group(1));
    int at = Integer.parseInt(place.group(2));
    String where =
        "it goes wrong at " + (line > 1 ? "line " + line + ", " : "") + "character " + at;
    if (at > text.length() && text.chars().filter(c -> c == '\'').count() % 2 != 0) {
      return where + ": a single quote is not closed";
    }
    if (at > text.length() && text.chars().filter(c -> c == '"').count() % 2 != 0) {
      return where + ": a double quote is not closed";
    }
    int c = line == 1 && at >= 1 && at <= text.length() ? text.charAt(at - 1) : ' ';
    boolean hidden = c >= 0x80 && (Character.isSpaceChar(c) || Character.isISOControl(c));
    return hidden || c < ' '
        ? where + ": " + String.format(Locale.ROOT, "U+%04X", c) + " is no space; write a plain one"
        : where;
  }

  /** A hint at the column names that have to be quoted, when that is all there is to it. */
  private static String reserved(String text, List<String> names) {
    String mended = text;
    for (String name : names) {
      String alone = quoted(text, name);
      if (alone != null && readable(alone)) {
        return "; write \""
            + name
            + "\" in double quotes, since it is "
            + (name.matches("\\w+") ? "a word of SQL too" : "no plain word")
            + ": "
            + alone;
      }
      String more = quoted(mended, name);
      mended = more == null ? mended : more;
    }
    return !mended.equals(text) && readable(mended)
        ? "; write column names in double quotes that are no plain words, or words of SQL too: "
            + mended
        : "";
  }

  /** The text with a name quoted wherever it stands as a bare word; null when it does not. */
  private static @Nullable String quoted(String text, String name) {
    Matcher bare =
        Pattern.compile("(?<![\\w\"'.])" + Pattern.quote(name) + "(?![\\w\"'(])").matcher(text);
    String quoted = Matcher.quoteReplacement('"' + name + '"');
    return bare.find() ? bare.replaceAll(quoted) : null;
  }

  private static boolean readable(String text) {
    try {
      parse(text);
      return true;
    } catch (Unreadable e) {
      return false;
    }
  }
}
