package org.abletwine.derive.total;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.compute.GroupTotals;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * The totals within expressions, such as {@code sum(payable)} in {@code sum(payable) /
 * sum(net_kg)}: each once, however often it is written. An expression is then one over their
 * values, in which each total is a column called as it is written. Used by one thread while it is
 * filled; not changed afterwards.
 */
public final class TotalCalls {
  private static final Set<String> FUNCTIONS = Set.of("sum", "avg", "min", "max", "count");

  private final Columns columns;
  private final String where;
  private final Evaluation settings;
  private final List<String> texts = new ArrayList<>();
  private final List<Call> calls = new ArrayList<>();

  /**
   * @param columns the columns the totals may be of
   * @param where the setting they stand in, for messages
   * @param settings how what is totalled is evaluated
   */
  public TotalCalls(Columns columns, String where, Evaluation settings) {
    this.columns = columns;
    this.where = where;
    this.settings = settings;
  }

  /**
   * A total.
   *
   * @param function what is totalled
   * @param column the column of it; {@link #ROWS} for rows, {@link #COMPUTED} where it is computed
   * @param argument what is totalled where it is computed
   * @param type what it holds, where that is stated
   */
  public record Call(
      GroupTotals.Function function,
      int column,
      @Nullable Expression argument,
      @Nullable ColumnType type) {
    /** Stands for the rows themselves. */
    public static final int ROWS = -1;

    /** Stands for what is computed for each row. */
    public static final int COMPUTED = -2;

    private boolean numeric() {
      return function == GroupTotals.Function.SUM || function == GroupTotals.Function.AVG;
    }

    private @Nullable ColumnType result() {
      boolean extreme =
          function == GroupTotals.Function.MIN || function == GroupTotals.Function.MAX;
      return extreme ? type : ColumnType.of(ColumnType.Kind.NUMBER);
    }
  }

  /**
   * Reads an expression and takes over its totals.
   *
   * @param text such as {@code sum(payable) / sum(net_kg)}
   * @return the expression over the totals, each a quoted name
   * @throws SettingException when a total cannot be read
   */
  public String read(String text) {
    StringBuilder rest = new StringBuilder();
    int at = 0;
    while (at < text.length()) {
      int end = wordEnd(text, at);
      String word = text.substring(at, end);
      int open = skipSpaces(text, end);
      boolean call =
          FUNCTIONS.contains(word.toLowerCase(Locale.ROOT))
              && open < text.length()
              && text.charAt(open) == '(';
      if (call) {
        int close = closing(text, open);
        String whole = text.substring(at, close + 1);
        add(whole, word.toLowerCase(Locale.ROOT), text.substring(open + 1, close).strip());
        rest.append(quoted(whole));
        at = close + 1;
      } else {
        int next = end > at ? end : afterQuote(text, at);
        rest.append(text, at, next);
        at = next;
      }
    }
    return rest.toString();
  }

  /** The end of the word that begins here; the same place where none does. */
  private static int wordEnd(String text, int at) {
    int end = at;
    while (end < text.length()
        && (Character.isLetterOrDigit(text.charAt(end)) || text.charAt(end) == '_')) {
      end++;
    }
    return end;
  }

  private static int skipSpaces(String text, int at) {
    int end = at;
    while (end < text.length() && text.charAt(end) == ' ') {
      end++;
    }
    return end;
  }

  /** The place after a character, or after a text or name in quotes that begins with it. */
  private static int afterQuote(String text, int at) {
    char c = text.charAt(at);
    if (c != '"' && c != '\'') {
      return at + 1;
    }
    int end = text.indexOf(c, at + 1);
    return end < 0 ? text.length() : end + 1;
  }

  private int closing(String text, int open) {
    int depth = 0;
    for (int at = open; at < text.length(); at = afterQuote(text, at)) {
      depth += text.charAt(at) == '(' ? 1 : text.charAt(at) == ')' ? -1 : 0;
      if (depth == 0) {
        return at;
      }
    }
    throw new SettingException(where + ": `" + text + "`: a bracket is not closed");
  }

  private static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }

  /**
   * Takes over the sum of a column.
   *
   * @param column its name
   * @return the total, as a quoted name
   */
  public String sumOf(String column) {
    String whole = "sum(" + column + ")";
    if (!texts.contains(whole)) {
      texts.add(whole);
      calls.add(ofColumn(whole, GroupTotals.Function.SUM, column));
    }
    return quoted(whole);
  }

  private void add(String whole, String word, String of) {
    if (texts.contains(whole)) {
      return;
    }
    boolean distinct = of.toLowerCase(Locale.ROOT).startsWith("distinct ");
    String argument = distinct ? of.substring("distinct ".length()).strip() : of;
    if (argument.equals("*") && !word.equals("count")) {
      throw new SettingException(where + ": `" + whole + "`: only count takes *");
    }
    if (distinct && !word.equals("count")) {
      throw new SettingException(where + ": `" + whole + "`: only count takes distinct");
    }
    GroupTotals.Function function =
        GroupTotals.Function.valueOf(word.toUpperCase(Locale.ROOT) + (distinct ? "_DISTINCT" : ""));
    calls.add(call(whole, function, argument));
    texts.add(whole);
  }

  private Call call(String whole, GroupTotals.Function function, String argument) {
    if (argument.equals("*")) {
      return new Call(function, Call.ROWS, null, null);
    }
    boolean quotedName = argument.matches("\"([^\"]|\"\")+\"");
    String name =
        quotedName ? argument.substring(1, argument.length() - 1).replace("\"\"", "\"") : argument;
    if (columns.names().contains(name) || name.matches("[\\p{L}_][\\p{L}\\p{N}_]*")) {
      return ofColumn(whole, function, name);
    }
    boolean number = function == GroupTotals.Function.SUM || function == GroupTotals.Function.AVG;
    Expression computed =
        number
            ? Expression.number(argument, columns, where, settings)
            : Expression.of(argument, columns, where, settings);
    if (!counts(function)) {
      computed.inputs().forEach(input -> columns.requireShown(input, where + ", " + whole));
    }
    ColumnType type = computed.type();
    // Text may turn out to be all numbers.
    return new Call(
        function, Call.COMPUTED, computed, type.kind() == ColumnType.Kind.TEXT ? null : type);
  }

  private static boolean counts(GroupTotals.Function function) {
    return function == GroupTotals.Function.COUNT
        || function == GroupTotals.Function.COUNT_DISTINCT;
  }

  private Call ofColumn(String whole, GroupTotals.Function function, String name) {
    int number = columns.require(name, where);
    if (!counts(function)) {
      columns.requireShown(name, where + ", " + whole);
    }
    ColumnType type = columns.type(name);
    Call call = new Call(function, number, null, type);
    if (call.numeric() && type != null && !type.kind().numeric()) {
      throw new SettingException(
          where
              + ", "
              + whole
              + ": the column holds "
              + ValueOrder.of(type).noun()
              + ", and a number is needed; total it with min, max or count, or correct its type");
    }
    return call;
  }

  /** Returns how many totals there are. */
  public int count() {
    return calls.size();
  }

  /** Returns the totals as they are written. */
  public List<String> texts() {
    return List.copyOf(texts);
  }

  /**
   * Returns a total.
   *
   * @param total which, 0-based
   */
  public Call call(int total) {
    return calls.get(total);
  }

  /** Returns the totals as columns, each called as it is written. */
  public Columns asColumns() {
    Columns of = new Columns("the totals", new Schema(texts));
    for (int i = 0; i < calls.size(); i++) {
      of.typed(texts.get(i), calls.get(i).result());
    }
    return of;
  }

  /** What a total holds, where that is known. */
  @Nullable ColumnType type(int total) {
    return calls.get(total).result();
  }

  /** A total's place among the counters of groups. */
  GroupTotals over(int total, GroupIndex groups) {
    Call call = calls.get(total);
    return new GroupTotals(
        call.function(),
        groups,
        total * GroupTotals.COUNTERS,
        call.type(),
        where + ", " + texts.get(total),
        settings);
  }
}
