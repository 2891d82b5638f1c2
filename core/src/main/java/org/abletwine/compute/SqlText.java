package org.abletwine.compute;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/** Reads the text of an expression with the SQL parser, and says what to do when it cannot. */
final class SqlText {
  private static final Pattern PLACE = Pattern.compile("line \\d+, column (\\d+)");

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
    try {
      return parse(text);
    } catch (JSQLParserException e) {
      throw new SettingException(
          where + ": cannot read `" + text + "`: " + place(e) + reserved(text, names));
    }
  }

  private static Expression parse(String text) throws JSQLParserException {
    try {
      return CCJSqlParserUtil.parseExpression(text, false);
    } catch (JSQLParserException e) {
      return CCJSqlParserUtil.parseCondExpression(text, false);
    }
  }

  private static String place(JSQLParserException e) {
    Throwable cause = e.getCause();
    String message = String.valueOf(cause == null ? e.getMessage() : cause.getMessage());
    Matcher place = PLACE.matcher(message);
    return place.find()
        ? "it goes wrong at character " + place.group(1)
        : "it is not an expression of ISO SQL";
  }

  /** A hint at the column names that have to be quoted, when that is all there is to it. */
  private static String reserved(String text, List<String> names) {
    String mended = text;
    String last = null;
    for (String name : names) {
      String quoted = quoted(mended, name);
      if (quoted != null) {
        if (readable(quoted)) {
          return "; write \"" + name + "\" in double quotes, since it is a word of SQL too";
        }
        mended = quoted;
        last = name;
      }
    }
    return last != null && readable(mended)
        ? "; write column names in double quotes, since some are words of SQL too"
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
    } catch (JSQLParserException e) {
      return false;
    }
  }
}
