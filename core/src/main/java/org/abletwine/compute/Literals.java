package org.abletwine.compute;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Locale;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.DateTimeLiteralExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.TimeKeyExpression;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** Builds the nodes of literals: numbers, texts, dates, truth values, NULL and CURRENT_DATE. */
final class Literals {
  private final NodeBuilder nodes;
  private final Scope scope;
  private final @Nullable LocalDate today;

  Literals(NodeBuilder nodes, Scope scope, @Nullable LocalDate today) {
    this.nodes = nodes;
    this.scope = scope;
    this.today = today;
  }

  /** The node of a literal; null when the expression is none. */
  @Nullable Node of(Expression e, Kind wanted) {
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
      Node inner = nodes.build(signed.getExpression(), Kind.NUMBER);
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

  static Node truth(boolean value) {
    return new Leaves.Constant(Kind.TRUTH, (into, row) -> into.truth(row, value));
  }

  static Node day(LocalDate date) {
    long day = date.toEpochDay();
    return new Leaves.Constant(Kind.DATE, (into, row) -> into.day(row, day));
  }

  LocalDate date(Expression e, String text) {
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
}
