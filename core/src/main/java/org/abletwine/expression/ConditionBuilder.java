package org.abletwine.expression;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import net.sf.jsqlparser.expression.DateValue;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.ComparisonOperator;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.schema.Column;
import org.abletwine.expression.Condition.Test;
import org.abletwine.table.CellVector;
import org.abletwine.table.NearestName;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/** Turns a parsed SQL condition into a test. */
final class ConditionBuilder {
  /** Gives a text for a row, or null. */
  private interface Value {
    @Nullable String of(CellVector[] cells, int row);
  }

  private final String text;
  private final Schema schema;
  private final String tableName;
  private final Set<Integer> used;

  ConditionBuilder(String text, Schema schema, String tableName, Set<Integer> used) {
    this.text = text;
    this.schema = schema;
    this.tableName = tableName;
    this.used = used;
  }

  Test condition(Expression e) {
    if (e instanceof ExpressionList<?> list && list.size() == 1) {
      return condition(list.get(0));
    }
    if (e instanceof AndExpression and) {
      Test left = condition(and.getLeftExpression());
      Test right = condition(and.getRightExpression());
      return (cells, row) -> Math.min(left.test(cells, row), right.test(cells, row));
    }
    if (e instanceof OrExpression or) {
      Test left = condition(or.getLeftExpression());
      Test right = condition(or.getRightExpression());
      return (cells, row) -> Math.max(left.test(cells, row), right.test(cells, row));
    }
    if (e instanceof NotExpression not) {
      return negated(condition(not.getExpression()), true);
    }
    if (e instanceof IsNullExpression isNull) {
      Value value = value(isNull.getLeftExpression());
      boolean not = isNull.isNot();
      return (cells, row) -> (value.of(cells, row) == null) != not ? Test.TRUE : Test.FALSE;
    }
    if (e instanceof InExpression in) {
      return negated(in(in), in.isNot());
    }
    if (e instanceof Between between) {
      Test low = comparison(">=", between.getLeftExpression(), between.getBetweenExpressionStart());
      Test high = comparison("<=", between.getLeftExpression(), between.getBetweenExpressionEnd());
      return negated(
          (cells, row) -> Math.min(low.test(cells, row), high.test(cells, row)), between.isNot());
    }
    if (e instanceof LikeExpression like) {
      return negated(like(like), like.isNot());
    }
    if (e instanceof ComparisonOperator comparison) {
      return comparison(
          comparison.getStringExpression(),
          comparison.getLeftExpression(),
          comparison.getRightExpression());
    }
    throw new SettingException(
        "where: `"
            + e
            + "` in `"
            + text
            + "` is not a condition; compare it with something, such"
            + " as "
            + e
            + " = 'yes'");
  }

  private static Test negated(Test test, boolean not) {
    return not ? (cells, row) -> Test.TRUE - test.test(cells, row) : test;
  }

  private Test in(InExpression in) {
    if (!(in.getRightExpression() instanceof ExpressionList<?> list)) {
      throw new SettingException("where: IN needs a list in brackets, in `" + text + "`");
    }
    List<Test> equals = new ArrayList<>();
    for (Expression item : list) {
      equals.add(comparison("=", in.getLeftExpression(), item));
    }
    return (cells, row) -> {
      int any = Test.FALSE;
      for (Test equal : equals) {
        any = Math.max(any, equal.test(cells, row));
      }
      return any;
    };
  }

  private Test like(LikeExpression like) {
    if (!(like.getRightExpression() instanceof StringValue wanted)) {
      throw new SettingException("where: LIKE needs a text in single quotes, in `" + text + "`");
    }
    StringBuilder regex = new StringBuilder("(?s)");
    for (char c : wanted.getNotExcapedValue().toCharArray()) {
      regex.append(c == '%' ? ".*" : c == '_' ? "." : Pattern.quote(String.valueOf(c)));
    }
    Pattern pattern = Pattern.compile(regex.toString());
    Value value = value(like.getLeftExpression());
    return (cells, row) -> {
      String cell = value.of(cells, row);
      return cell == null ? Test.UNKNOWN : pattern.matches(cell) ? Test.TRUE : Test.FALSE;
    };
  }

  private Test comparison(String operator, Expression leftSide, Expression rightSide) {
    Value left = value(leftSide);
    Value right = value(rightSide);
    boolean numbers = isNumber(leftSide) || isNumber(rightSide);
    return (cells, row) -> {
      String a = left.of(cells, row);
      String b = right.of(cells, row);
      if (a == null || b == null) {
        return Test.UNKNOWN;
      }
      int order;
      if (numbers) {
        BigDecimal x = number(a);
        BigDecimal y = number(b);
        if (x == null || y == null) {
          return Test.UNKNOWN;
        }
        order = x.compareTo(y);
      } else {
        order = a.compareTo(b);
      }
      return holds(operator, order) ? Test.TRUE : Test.FALSE;
    };
  }

  private static boolean holds(String operator, int order) {
    return switch (operator) {
      case "=" -> order == 0;
      case "<>", "!=" -> order != 0;
      case "<" -> order < 0;
      case "<=" -> order <= 0;
      case ">" -> order > 0;
      case ">=" -> order >= 0;
      default -> throw new SettingException("where: no comparison is written " + operator);
    };
  }

  private static boolean isNumber(Expression e) {
    return e instanceof LongValue || e instanceof DoubleValue || e instanceof SignedExpression;
  }

  private static @Nullable BigDecimal number(String cell) {
    try {
      return new BigDecimal(cell.strip());
    } catch (NumberFormatException e) {
      return null;
    }
  }

  private Value value(Expression e) {
    if (e instanceof StringValue literal) {
      return constant(literal.getNotExcapedValue());
    }
    if (e instanceof LongValue || e instanceof DoubleValue || e instanceof SignedExpression) {
      return constant(e.toString().replace(" ", ""));
    }
    if (e instanceof DateValue date) {
      return constant(date.getValue().toString());
    }
    if (e instanceof NullValue) {
      return (cells, row) -> null;
    }
    if (e instanceof Column column) {
      String written = column.getFullyQualifiedName();
      String name =
          written.length() > 1 && written.startsWith("\"") && written.endsWith("\"")
              ? written.substring(1, written.length() - 1).replace("\"\"", "\"")
              : written;
      int at = schema.indexOf(name);
      if (at < 0) {
        int place = text.indexOf(written);
        throw new SettingException(
            "where: "
                + tableName
                + " has no column \""
                + name
                + "\""
                + (place < 0 ? "" : " (at character " + (place + 1) + ")")
                + "; "
                + NearestName.hint(name, schema.names()));
      }
      used.add(at);
      return (cells, row) -> cells[at].get(row);
    }
    throw new SettingException(
        "where: `"
            + e
            + "` cannot be used here; compare columns, texts in single quotes and"
            + " numbers");
  }

  private static Value constant(String value) {
    return (cells, row) -> value;
  }
}
