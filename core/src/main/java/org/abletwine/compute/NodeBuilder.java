package org.abletwine.compute;

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
import net.sf.jsqlparser.expression.CaseExpression;
import net.sf.jsqlparser.expression.CastExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.ExtractExpression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.IntervalExpression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NullValue;
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
import net.sf.jsqlparser.expression.operators.relational.ComparisonOperator;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.schema.Column;
import org.abletwine.table.text.DatePatterns;
import org.jspecify.annotations.Nullable;

/** Turns a parsed expression into nodes, checking kinds on the way. */
final class NodeBuilder {
  /** Operations one within another at most: each takes room on the stack of every thread. */
  static final int MOST_DEPTH = 200;

  private final Scope scope;
  private final Moments moments;
  private final Functions functions;
  private final Literals literals;
  private final Conditions conditions;
  private final Map<Expression, Kind> naturals = new IdentityHashMap<>();
  private int depth;

  /**
   * @param scope the columns
   * @param today what CURRENT_DATE is; null when the plan does not state it
   */
  NodeBuilder(Scope scope, @Nullable LocalDate today) {
    this.scope = scope;
    this.moments = new Moments(this, scope);
    this.functions = new Functions(this, scope, moments);
    this.literals = new Literals(this, scope, today);
    this.conditions = new Conditions(this, scope);
  }

  Conditions conditions() {
    return conditions;
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
          ? Literals.truth(name.equalsIgnoreCase("true"))
          : scope.column(name, wanted);
    }
    Node literal = literals.of(e, wanted);
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
      return moments.extract(extract.getName(), extract.getExpression());
    }
    if (e instanceof TrimFunction trim) {
      return functions.trim(trim);
    }
    if (e instanceof Function function) {
      return functions.of(function, wanted);
    }
    Node truth = conditions.of(e);
    if (truth != null) {
      return truth;
    }
    String word = unit(e);
    if (word != null) {
      return scope.column(word, wanted); // the parser takes some plain words for units of time
    }
    throw scope.wrongPart(e, "cannot be used here");
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
      return interval(e.getLeftExpression(), interval, operator == '-');
    }
    if (e.getLeftExpression() instanceof IntervalExpression interval && operator == '+') {
      return interval(e.getRightExpression(), interval, false);
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
        && DatePatterns.isoDay(Literals.text(literal).strip()) != DatePatterns.NONE;
  }

  private Node interval(Expression day, IntervalExpression interval, boolean back) {
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
    return Arithmetic.shifted(build(day, Kind.DATE), back ? -count : count, known);
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

  /** The one character of a literal. */
  int oneCharacter(Expression e, String what) {
    String value = e instanceof StringValue literal ? Literals.text(literal) : "";
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
              : this.conditions.compare("=", e.getSwitchExpression(), when.getWhenExpression()));
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
      return Literals.day(literals.date(cast, Literals.text(text)));
    }
    if (type.equals("DATE") && cast.getLeftExpression() instanceof Column) {
      return moments.cast(cast.getLeftExpression());
    }
    Node inner = build(cast.getLeftExpression(), Kind.ANY);
    return switch (type) {
      case "BOOLEAN" -> Conversions.toTruth(inner);
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
              "casts to a type that is not known; DATE, INTEGER, DECIMAL, BOOLEAN and VARCHAR"
                  + " are");
    };
  }
}
