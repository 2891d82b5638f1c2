package org.abletwine.derive;

import java.util.Locale;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/**
 * What a rollup totals, as a plan writes it.
 *
 * @param expression totals, and arithmetic with them; a column's name where {@code column} is
 *     stated
 * @param as what it is called in the output
 * @param column the column whose sum it is and nothing else; null for any other
 */
record RollupTotal(String expression, String as, @Nullable String column) {
  private static final String NAME = "\"(?:[^\"]|\"\")+\"";

  /**
   * Reads {@code net_kg}, {@code avg(net_kg)} or {@code sum(payable) / sum(net_kg) as per_kg}.
   *
   * @throws SettingException when it needs a name and has none
   */
  static RollupTotal parse(String text) {
    String whole = text.strip();
    int as = lastAs(whole);
    String expression = as < 0 ? whole : whole.substring(0, as).strip();
    String name = as < 0 ? null : unquoted(whole.substring(as + 4).strip());
    if (expression.toLowerCase(Locale.ROOT).startsWith("listagg")) {
      throw new SettingException(Rollup.WHERE + ": listagg is not a total; use it in bring");
    }
    if (expression.isEmpty() || name != null && name.isEmpty()) {
      throw new SettingException(Rollup.WHERE + ": cannot read `" + text + "`: a name is missing");
    }
    if (expression.indexOf('(') < 0) {
      String column = unquoted(expression);
      return new RollupTotal(column, name == null ? column : name, column);
    }
    String summed = onlySum(expression);
    return new RollupTotal(expression, name == null ? called(expression, text) : name, summed);
  }

  /** Where the last {@code as} begins that stands in no bracket or quote; negative for none. */
  private static int lastAs(String text) {
    int depth = 0;
    int found = -1;
    char quote = 0;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (quote != 0) {
        quote = c == quote ? 0 : quote;
      } else if (c == '"' || c == '\'') {
        quote = c;
      } else if (c == '(' || c == ')') {
        depth += c == '(' ? 1 : -1;
      } else if (depth == 0 && text.regionMatches(true, i, " as ", 0, 4)) {
        found = i;
      }
    }
    return found;
  }

  private static String unquoted(String name) {
    return name.matches(NAME) ? name.substring(1, name.length() - 1).replace("\"\"", "\"") : name;
  }

  /** The column of {@code sum(COLUMN)}; null for anything else. */
  private static @Nullable String onlySum(String expression) {
    boolean sum = expression.matches("(?i)sum\\s*\\([^()]*\\)");
    String of =
        sum ? expression.substring(expression.indexOf('(') + 1, expression.length() - 1) : "";
    boolean plain = of.strip().matches(NAME + "|[\\p{L}_][\\p{L}\\p{N}_ ]*");
    return sum && plain ? unquoted(of.strip()) : null;
  }

  /** What a single total is called that has no name: {@code avg(x)} is avg_x. */
  private static String called(String expression, String text) {
    if (!expression.matches("(?s)\\w+\\s*\\([^()]*\\)")) {
      throw new SettingException(
          Rollup.WHERE + ": `" + text + "` needs a name; write " + text.strip() + " as NAME");
    }
    int open = expression.indexOf('(');
    String inner = expression.substring(open + 1, expression.length() - 1).strip();
    return inner.equals("*")
        ? "rows"
        : expression.substring(0, open).strip() + "_" + inner.replaceAll("[^\\p{L}\\p{N}]+", "_");
  }
}
