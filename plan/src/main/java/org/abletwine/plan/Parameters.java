package org.abletwine.plan;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * The values that a plan leaves open: {@code ${month}} stands for one in its texts and paths, and
 * with one more dollar sign for these characters themselves. Within SQL a parameter is a value and
 * nothing else.
 */
final class Parameters {
  static final Parameters NONE = new Parameters(Map.of());

  private static final Pattern NAME = Pattern.compile("[A-Za-z][A-Za-z0-9_-]*");
  private static final Pattern USE = Pattern.compile("\\$(\\$\\{|\\{([^{}]*)})");
  private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9]\\d*)(\\.\\d+)?");

  private final Map<String, String> values;

  private Parameters(Map<String, String> values) {
    this.values = values;
  }

  /**
   * Reads the parameters of a plan.
   *
   * @param node what is stated; null when nothing is
   * @param set the values given for this run
   * @throws SettingException when a value is given for a parameter that there is not
   */
  static Parameters read(@Nullable PlanNode node, Map<String, String> set) {
    Map<String, String> values = new LinkedHashMap<>();
    Map<String, PlanNode> stated = node == null ? Map.of() : node.anyEntries();
    for (String name : set.keySet()) {
      if (!stated.containsKey(name)) {
        throw new SettingException(
            "--set: the plan has no parameter \""
                + name
                + "\"; "
                + (stated.isEmpty()
                    ? "it has none; state parameters: { " + name + ": VALUE } in it"
                    : NearestName.hint(name, stated.keySet())));
      }
    }
    stated.forEach(
        (name, value) -> {
          if (!NAME.matcher(name).matches()) {
            value.wrong("the name of a parameter is a plain word, such as month");
          } else if (set.containsKey(name)) {
            values.put(name, set.get(name));
          } else if (value.isNothing()) {
            value.wrong(
                "the parameter has no value; give it one here, or with --set " + name + "=VALUE");
          } else {
            String text = value.text();
            if (text != null) {
              values.put(name, text);
            }
          }
        });
    return new Parameters(values);
  }

  /** {@return the parameters and their values} */
  Map<String, String> values() {
    return values;
  }

  /** A text with its parameters put in; those that there are not are noted. */
  String in(String text, PlanNode node) {
    if (text.indexOf('$') < 0) {
      return text;
    }
    Matcher use = USE.matcher(text);
    StringBuilder filled = new StringBuilder();
    while (use.find()) {
      use.appendReplacement(
          filled,
          Matcher.quoteReplacement(use.group(2) == null ? "${" : value(use.group(2), node)));
    }
    return use.appendTail(filled).toString();
  }

  private String value(String name, PlanNode node) {
    String value = values.get(name);
    if (value == null) {
      node.wrong(
          "no parameter is called \""
              + name
              + "\"; "
              + (values.isEmpty()
                  ? "state parameters: { " + name + ": VALUE }, or write $${ for these characters"
                  : NearestName.hint(name, values.keySet())));
      return "";
    }
    return value;
  }

  /**
   * A SQL expression with its parameters put in as values: a number as it is, all else as a text;
   * within single quotes as a part of that text.
   */
  String inSql(String sql, PlanNode node) {
    if (sql.indexOf('$') < 0) {
      return sql;
    }
    StringBuilder filled = new StringBuilder();
    Matcher use = USE.matcher(sql);
    int from = 0;
    char quote = 0;
    while (use.find(from)) {
      for (int at = from; at < use.start(); at++) {
        char c = sql.charAt(at);
        quote = quote == 0 && (c == '\'' || c == '"') ? c : quote == c ? 0 : quote;
      }
      filled.append(sql, from, use.start());
      if (use.group(2) == null) {
        filled.append("${");
      } else if (quote == '"') {
        node.wrong("${" + use.group(2) + "} stands in a name; in SQL a parameter is a value");
      } else {
        String value = value(use.group(2), node).replace("'", "''");
        boolean bare = quote == 0 && !NUMBER.matcher(value).matches();
        filled.append(bare ? "'" + value + "'" : value);
      }
      from = use.end();
    }
    return filled.append(sql, from, sql.length()).toString();
  }
}
