package org.abletwine.compute;

import java.util.ArrayList;
import java.util.List;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.ComparisonOperator;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsBooleanExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.IsUnknownExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import org.abletwine.match.index.TextPattern;
import org.jspecify.annotations.Nullable;

/** Builds the nodes of conditions: comparisons, BETWEEN, IN, LIKE, IS NULL and NOT. */
final class Conditions {
  private final NodeBuilder nodes;
  private final Scope scope;

  Conditions(NodeBuilder nodes, Scope scope) {
    this.nodes = nodes;
    this.scope = scope;
  }

  /** The node of a condition; null when the expression is none. */
  @Nullable Node of(Expression e) {
    if (e instanceof NotExpression not) {
      return new Logic.Single(false, nodes.build(not.getExpression(), Kind.TRUTH));
    }
    if (e instanceof IsNullExpression isNull) {
      Node test = new Logic.Single(true, nodes.build(isNull.getLeftExpression(), Kind.ANY));
      return isNull.isNot() ? new Logic.Single(false, test) : test;
    }
    if (e instanceof IsBooleanExpression is) {
      Node test = new Logic.Is(is.isTrue(), nodes.build(is.getLeftExpression(), Kind.TRUTH));
      return is.isNot() ? new Logic.Single(false, test) : test;
    }
    if (e instanceof IsUnknownExpression is) {
      Node test = new Logic.Single(true, nodes.build(is.getLeftExpression(), Kind.TRUTH));
      return is.isNot() ? new Logic.Single(false, test) : test;
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
    boolean untyped = nodes.natural(left) == Kind.ANY && nodes.natural(right) == Kind.ANY;
    Kind kind = nodes.common(List.of(left, right), Kind.ANY);
    Logic.Comparison node =
        new Logic.Comparison(operator, nodes.build(left, kind), nodes.build(right, kind));
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
    int escape = like.getEscape() == null ? -1 : nodes.oneCharacter(like.getEscape(), "ESCAPE");
    try {
      TextPattern pattern = TextPattern.of(Literals.text(wanted), '%', '_', escape);
      Node node = new Logic.Like(nodes.build(like.getLeftExpression(), Kind.TEXT), pattern);
      return like.isNot() ? new Logic.Single(false, node) : node;
    } catch (IllegalArgumentException x) {
      throw scope.wrongPart(like, "cannot be read: " + x.getMessage());
    }
  }
}
