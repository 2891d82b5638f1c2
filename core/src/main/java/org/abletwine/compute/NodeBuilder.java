package org.abletwine.compute;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import net.sf.jsqlparser.expression.BinaryExpression;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.CaseExpression;
import net.sf.jsqlparser.expression.CastExpression;
import net.sf.jsqlparser.expression.DateTimeLiteralExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.ExtractExpression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.IntervalExpression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.TimeKeyExpression;
import net.sf.jsqlparser.expression.TrimFunction;
import net.sf.jsqlparser.expression.WhenClause;
import net.sf.jsqlparser.expression.operators.arithmetic.Addition;
import net.sf.jsqlparser.expression.operators.arithmetic.Concat;
import net.sf.jsqlparser.expression.operators.arithmetic.Division;
import net.sf.jsqlparser.expression.operators.arithmetic.Modulo;
import net.sf.jsqlparser.expression.operators.arithmetic.Multiplication;
import net.sf.jsqlparser.expression.operators.arithmetic.Subtraction;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.ComparisonOperator;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.schema.Column;
import org.abletwine.match.index.TextPattern;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** Turns a parsed expression into nodes, checking kinds on the way. */
final class NodeBuilder {
  /** Operations one within another at most: each takes room on the stack of every thread. */
  static final int MOST_DEPTH = 200;

  private final Scope scope;
  private final @Nullable LocalDate today;
  private final Functions functions;
  private final Map<Expression, Kind> naturals = new IdentityHashMap<>();
  private int depth;

  /**
   * @param scope the columns
   * @param today what CURRENT_DATE is; null when the plan does not state it
   */
  NodeBuilder(Scope scope, @Nullable LocalDate today) {
    this.scope = scope;
    this.today = today;
    this.functions = new Functions(this, scope);
  }

  /** Builds a node of the wanted kind; ANY takes what comes. */
  Node build(Expression e, Kind wanted) {
    if (++depth > MOST_DEPTH) {
      throw scope.wrong(
          "more than "
              + MOST_DEPTH
              + " operations stand one within another; compute a part of it as a column of its"
              + " own");
    }
    Node node = make(e, wanted);
    depth--;
    if (wanted == Kind.ANY || node.kind == wanted) {
      return node;
    }
    throw scope.wrongPart(e, "is " + node.kind.noun() + " where " + wanted.noun() + " is needed");
  }

  private Node make(Expression e, Kind wanted) {
    if (e instanceof ExpressionList<?> list && list.size() == 1) {
      return make(list.get(0), wanted);
    }
    if (e instanceof Column column) {
      String name = column.getFullyQualifiedName();
      boolean word = name.equalsIgnoreCase("true") || name.equalsIgnoreCase("false");
      if (wanted == Kind.TRUTH && !word) {
        scope.column(name, Kind.ANY); // a wrong name is told as such
        throw scope.wrongPart(
            name, "is not a condition; compare it with something, such as " + name + " = 'yes'");
      }
      return word && wanted != Kind.TEXT
          ? truth(name.equalsIgnoreCase("true"))
          : scope.column(name, wanted);
    }
    Node literal = literal(e, wanted);
    if (literal != null) {
      return literal;
    }
    if (e instanceof BinaryExpression binary
        && !(e instanceof ComparisonOperator)
        && !(e instanceof LikeExpression)) {
      return binary(binary, wanted);
    }
    if (e instanceof CaseExpression one) {
      return caseNode(one, wanted);
    }
    if (e instanceof CastExpression cast) {
      return cast(cast);
    }
    if (e instanceof ExtractExpression extract) {
      return functions.extract(extract.getName(), build(extract.getExpression(), Kind.DATE));
    }
    if (e instanceof TrimFunction trim) {
      return functions.trim(trim);
    }
    if (e instanceof Function function) {
      return functions.of(function, wanted);
    }
    Node truth = condition(e);
    if (truth != null) {
      return truth;
    }
    String word = unit(e);
    if (word != null) {
      return scope.column(word, wanted); // the parser takes some plain words for units of time
    }
    throw scope.wrongPart(e, "cannot be used here");
  }

  private @Nullable Node literal(Expression e, Kind wanted) {
    if (e instanceof LongValue || e instanceof DoubleValue) {
      BigDecimal value = DecimalText.read(e.toString());
      if (value == null) {
        throw scope.wrongPart(
            e,
            "is not a number of up to "
                + DecimalText.MOST_CHARACTERS
                + " characters and an exponent of up to "
                + DecimalText.MOST_EXPONENT);
      }
      return number(value);
    }
    if (e instanceof SignedExpression signed) {
      if (signed.getSign() != '-' && signed.getSign() != '+') {
        throw scope.wrongPart(e, "uses an operator that is not known");
      }
      Node inner = build(signed.getExpression(), Kind.NUMBER);
      return signed.getSign() == '-'
          ? new Arithmetic.Binary('-', number(BigDecimal.ZERO), inner)
          : inner;
    }
    if (e instanceof StringValue text) {
      if (text.getPrefix() != null && !text.getPrefix().equalsIgnoreCase("N")) {
        throw scope.wrongPart(e, "has a letter before the quote; write the text as it is");
      }
      String value = text(text);
      return wanted == Kind.DATE
          ? day(date(e, value))
          : new Leaves.Constant(Kind.TEXT, (into, row) -> into.text(row, value));
    }
    if (e instanceof DateTimeLiteralExpression date
        && date.getType() == DateTimeLiteralExpression.DateTime.DATE) {
      return day(date(e, date.getValue().replace("'", "")));
    }
    if (e instanceof BooleanValue value) {
      return truth(value.getValue());
    }
    if (e instanceof NullValue) {
      return new Leaves.Constant(wanted == Kind.ANY ? Kind.TEXT : wanted, (into, row) -> {});
    }
    if (e instanceof TimeKeyExpression key) {
      if (!key.getStringValue().toUpperCase(Locale.ROOT).startsWith("CURRENT_DATE")) {
        throw scope.wrongPart(e, "is not known; only CURRENT_DATE is");
      }
      if (today == null) {
        throw scope.wrong(
            "CURRENT_DATE makes a run unrepeatable unless the plan states it; add current-date:"
                + " 2026-11-23, or current-date: today");
      }
      return day(today);
    }
    return null;
  }

  static Node number(BigDecimal value) {
    return new Leaves.Constant(Kind.NUMBER, (into, row) -> into.number(row, value));
  }

  private static Node truth(boolean value) {
    return new Leaves.Constant(Kind.TRUTH, (into, row) -> into.truth(row, value));
  }

  private static Node day(LocalDate date) {
    long day = date.toEpochDay();
    return new Leaves.Constant(Kind.DATE, (into, row) -> into.day(row, day));
  }

  private LocalDate date(Expression e, String text) {
    long day = DatePatterns.isoDay(text.strip());
    if (day == DatePatterns.NONE) {
      throw scope.wrongPart(e, "is not a date; write it as '2026-07-20'");
    }
    return LocalDate.ofEpochDay(day);
  }

  /** What a text in single quotes stands for. */
  static String text(StringValue literal) {
    String written = literal.getValue();
    return written.replace("''", "'");
  }

  private Node binary(BinaryExpression e, Kind wanted) {
    if (e instanceof AndExpression || e instanceof OrExpression) {
      return new Logic.Both(
          e instanceof AndExpression,
          build(e.getLeftExpression(), Kind.TRUTH),
          build(e.getRightExpression(), Kind.TRUTH));
    }
    if (e instanceof Concat) {
      return functions.concat(List.of(e.getLeftExpression(), e.getRightExpression()));
    }
    char operator =
        e instanceof Addition
            ? '+'
            : e instanceof Subtraction
                ? '-'
                : e instanceof Multiplication
                    ? '*'
                    : e instanceof Division ? '/' : e instanceof Modulo ? '%' : 0;
    if (operator == 0) {
      throw scope.wrongPart(e, "uses an operator that is not known");
    }
    if (e.getRightExpression() instanceof IntervalExpression interval && operator <= '-') {
      return interval(e, interval, operator == '-');
    }
    return operator == '-'
        ? difference(e.getLeftExpression(), e.getRightExpression())
        : new Arithmetic.Binary(
            operator,
            build(e.getLeftExpression(), Kind.NUMBER),
            build(e.getRightExpression(), Kind.NUMBER));
  }

  /** Days between dates where either side is one, else a number less another. */
  private Node difference(Expression left, Expression right) {
    Kind one = natural(left);
    Kind other = natural(right);
    boolean days =
        one == Kind.DATE
            || other == Kind.DATE
            || one == Kind.ANY && isDay(right)
            || other == Kind.ANY && isDay(left);
    if (days) {
      return Arithmetic.days(build(left, Kind.DATE), build(right, Kind.DATE));
    }
    Node numbers = new Arithmetic.Binary('-', build(left, Kind.NUMBER), build(right, Kind.NUMBER));
    return one == Kind.ANY && other == Kind.ANY
        ? new UntypedDifference(
            numbers, Arithmetic.days(build(left, Kind.DATE), build(right, Kind.DATE)))
        : numbers;
  }

  private static boolean isDay(Expression e) {
    return e instanceof StringValue literal
        && DatePatterns.isoDay(text(literal).strip()) != DatePatterns.NONE;
  }

  private Node interval(BinaryExpression e, IntervalExpression interval, boolean back) {
    String amount = String.valueOf(interval.getParameter()).replace("'", "").strip();
    String written = interval.toString().strip().toUpperCase(Locale.ROOT);
    String unit = written.substring(written.lastIndexOf(' ') + 1);
    ChronoUnit known =
        switch (unit) {
          case "DAY", "DAYS" -> ChronoUnit.DAYS;
          case "MONTH", "MONTHS" -> ChronoUnit.MONTHS;
          case "YEAR", "YEARS" -> ChronoUnit.YEARS;
          default -> throw scope.wrongPart(interval, "needs DAY, MONTH or YEAR");
        };
    if (!amount.matches("[+-]?[0-9]{1,7}")) {
      throw scope.wrongPart(
          interval, "needs a whole number of up to seven digits, such as INTERVAL '14' DAY");
    }
    long count = Long.parseLong(amount);
    return Arithmetic.shifted(
        build(e.getLeftExpression(), Kind.DATE), back ? -count : count, known);
  }

  /**
   * The kind an expression has of itself; ANY for columns of no stated type, literals of null, and
   * choices between nothing but these.
   */
  Kind natural(Expression e) {
    Kind known = naturals.get(e);
    if (known == null) {
      known = findNatural(e);
      naturals.put(e, known);
    }
    return known;
  }

  private Kind findNatural(Expression e) {
    if (e instanceof ExpressionList<?> list && list.size() == 1) {
      return natural(list.get(0));
    }
    if (e instanceof NullValue) {
      return Kind.ANY;
    }
    if (e instanceof Column column) {
      String name = column.getFullyQualifiedName();
      if (name.equalsIgnoreCase("true") || name.equalsIgnoreCase("false")) {
        return Kind.TRUTH;
      }
      return scope.typed(name) ? scope.column(name, Kind.ANY).kind : Kind.ANY;
    }
    if (e instanceof CaseExpression one) {
      return agreed(outcomes(one));
    }
    if (e instanceof Function function && Functions.chooses(function)) {
      return agreed(Functions.arguments(function));
    }
    String word = e instanceof TimeKeyExpression ? null : unit(e);
    return word != null
        ? scope.typed(word) ? scope.column(word, Kind.ANY).kind : Kind.ANY
        : build(e, Kind.ANY).kind;
  }

  /** The column that a word is called like which the parser takes for a unit of time. */
  private @Nullable String unit(Expression e) {
    boolean made =
        e instanceof BinaryExpression
            || e instanceof Function
            || e instanceof CastExpression
            || e instanceof StringValue
            || e instanceof LongValue
            || e instanceof DoubleValue;
    return made ? null : scope.columnLike(e.toString());
  }

  /** The kind that several expressions agree on, where they must be of one. */
  Kind common(List<? extends Expression> all, Kind wanted) {
    if (wanted != Kind.ANY) {
      return wanted;
    }
    Kind found = agreed(all);
    return found == Kind.ANY ? Kind.TEXT : found;
  }

  private Kind agreed(List<? extends Expression> all) {
    Kind found = Kind.ANY;
    for (Expression e : all) {
      Kind kind = natural(e);
      boolean text = kind == Kind.TEXT && found == Kind.DATE && e instanceof StringValue;
      if (kind == Kind.DATE && found == Kind.TEXT || text) {
        found = Kind.DATE;
      } else if (found == Kind.ANY) {
        found = kind;
      }
    }
    return found;
  }

  private @Nullable Node condition(Expression e) {
    if (e instanceof NotExpression not) {
      return new Logic.Single(false, build(not.getExpression(), Kind.TRUTH));
    }
    if (e instanceof IsNullExpression isNull) {
      Node test = new Logic.Single(true, build(isNull.getLeftExpression(), Kind.ANY));
      return isNull.isNot() ? new Logic.Single(false, test) : test;
    }
    if (e instanceof ComparisonOperator comparison) {
      return compare(
          comparison.getStringExpression(),
          comparison.getLeftExpression(),
          comparison.getRightExpression());
    }
    if (e instanceof Between between) {
      if (between.isUsingSymmetric()) {
        throw scope.wrongPart(e, "uses SYMMETRIC, which is not known");
      }
      Node both =
          new Logic.Both(
              true,
              compare(">=", between.getLeftExpression(), between.getBetweenExpressionStart()),
              compare("<=", between.getLeftExpression(), between.getBetweenExpressionEnd()));
      return between.isNot() ? new Logic.Single(false, both) : both;
    }
    if (e instanceof InExpression in) {
      return in(in);
    }
    if (e instanceof LikeExpression like) {
      return like(like);
    }
    return null;
  }

  Node compare(String operator, Expression left, Expression right) {
    boolean untyped = natural(left) == Kind.ANY && natural(right) == Kind.ANY;
    Kind kind = common(List.of(left, right), Kind.ANY);
    Logic.Comparison node = new Logic.Comparison(operator, build(left, kind), build(right, kind));
    return untyped ? node.ofUntyped() : node;
  }

  private Node in(InExpression in) {
    if (!(in.getRightExpression() instanceof ExpressionList<?> list)) {
      throw scope.wrongPart(in, "needs a list in brackets");
    }
    List<Node> equal = new ArrayList<>();
    list.forEach(item -> equal.add(compare("=", in.getLeftExpression(), item)));
    if (equal.isEmpty()) {
      throw scope.wrongPart(in, "needs at least one value");
    }
    Node any = any(equal);
    return in.isNot() ? new Logic.Single(false, any) : any;
  }

  /** Any of some conditions, by halves: a list may be long, and a tree of it shall not be deep. */
  private static Node any(List<Node> all) {
    int half = all.size() / 2;
    return half == 0
        ? all.get(0)
        : new Logic.Both(false, any(all.subList(0, half)), any(all.subList(half, all.size())));
  }

  private Node like(LikeExpression like) {
    if (like.getLikeKeyWord() != LikeExpression.KeyWord.LIKE) {
      throw scope.wrongPart(like, "uses an operator that is not known; LIKE is, with % and _");
    }
    if (!(like.getRightExpression() instanceof StringValue wanted)) {
      throw scope.wrongPart(like, "needs a text in single quotes");
    }
    int escape = like.getEscape() == null ? -1 : oneCharacter(like.getEscape(), "ESCAPE");
    try {
      TextPattern pattern = TextPattern.of(text(wanted), '%', '_', escape);
      Node node = new Logic.Like(build(like.getLeftExpression(), Kind.TEXT), pattern);
      return like.isNot() ? new Logic.Single(false, node) : node;
    } catch (IllegalArgumentException x) {
      throw scope.wrongPart(like, "cannot be read: " + x.getMessage());
    }
  }

  /** The one character of a literal. */
  int oneCharacter(Expression e, String what) {
    String value = e instanceof StringValue literal ? text(literal) : "";
    if (value.codePointCount(0, value.length()) != 1) {
      throw scope.wrongPart(e, "must be a single character in single quotes, for " + what);
    }
    return value.codePointAt(0);
  }

  private static List<Expression> outcomes(CaseExpression e) {
    List<Expression> outcomes = new ArrayList<>();
    e.getWhenClauses().forEach(when -> outcomes.add(when.getThenExpression()));
    if (e.getElseExpression() != null) {
      outcomes.add(e.getElseExpression());
    }
    return outcomes;
  }

  private Node caseNode(CaseExpression e, Kind wanted) {
    Kind kind = common(outcomes(e), wanted);
    List<Node> conditions = new ArrayList<>();
    List<Node> results = new ArrayList<>();
    for (WhenClause when : e.getWhenClauses()) {
      conditions.add(
          e.getSwitchExpression() == null
              ? build(when.getWhenExpression(), Kind.TRUTH)
              : compare("=", e.getSwitchExpression(), when.getWhenExpression()));
      results.add(build(when.getThenExpression(), kind));
    }
    Node otherwise = e.getElseExpression() == null ? null : build(e.getElseExpression(), kind);
    return new Choosing.Case(kind, conditions, results, otherwise);
  }

  private Node cast(CastExpression cast) {
    String word = cast.keyword;
    if (word != null && !word.isEmpty() && !word.equalsIgnoreCase("CAST")) {
      throw scope.wrongPart(cast, "is not known; CAST(x AS TYPE) is");
    }
    String written = cast.getColDataType().toString().toUpperCase(Locale.ROOT);
    String type = written.replaceAll("\\s*\\(.*", "").strip();
    List<Integer> sizes = new ArrayList<>();
    int most = type.matches("DECIMAL|NUMERIC") ? Decimals.MOST_DIGITS : Functions.MOST_TEXT;
    for (MatchResult size : Pattern.compile("\\d+").matcher(written).results().toList()) {
      boolean fits = size.group().length() < 9 && Integer.parseInt(size.group()) <= most;
      sizes.add(fits ? Integer.parseInt(size.group()) : -1);
    }
    if (sizes.contains(-1)) {
      throw scope.wrongPart(cast, "states a size beyond " + most);
    }
    if (sizes.size() > 1 && sizes.get(1) > sizes.get(0)) {
      throw scope.wrongPart(cast, "states more decimal places than digits");
    }
    if (type.equals("DATE") && cast.getLeftExpression() instanceof StringValue text) {
      return day(date(cast, text(text)));
    }
    Node inner = build(cast.getLeftExpression(), Kind.ANY);
    return switch (type) {
      case "DATE" -> Conversions.toDate(inner);
      case "INTEGER", "INT", "BIGINT", "SMALLINT" -> Conversions.toNumber(inner, -1, 0);
      case "DECIMAL", "NUMERIC" ->
          sizes.isEmpty()
              ? Conversions.toNumber(inner, -1, -1)
              : Conversions.toNumber(inner, sizes.get(0), sizes.size() > 1 ? sizes.get(1) : 0);
      case "VARCHAR", "CHAR", "CHARACTER", "TEXT", "CHARACTER VARYING" ->
          sizes.isEmpty()
              ? Conversions.toText(inner)
              : Conversions.toText(inner, sizes.get(0), type.matches("CHAR|CHARACTER"));
      default ->
          throw scope.wrongPart(
              cast,
              "casts to a type that is not known; DATE, INTEGER, DECIMAL" + " and VARCHAR are");
    };
  }
}
