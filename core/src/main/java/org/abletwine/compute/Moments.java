package org.abletwine.compute;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.schema.Column;
import org.abletwine.table.text.DatePatterns;
import org.jspecify.annotations.Nullable;

/** Functions of days, and of days with a time, which are text until somebody asks for a part. */
final class Moments {
  private final NodeBuilder nodes;
  private final Scope scope;

  Moments(NodeBuilder nodes, Scope scope) {
    this.nodes = nodes;
    this.scope = scope;
  }

  /**
   * A value that is a day, or a day with a time.
   *
   * @param node days, or text
   * @param dates how the text is written
   */
  private record Moment(Node node, DatePatterns dates) {
    /** The time in a row, midnight of a day; null for what is none, which is an error. */
    @Nullable LocalDateTime at(Values values, int row, Frame frame) {
      if (node.kind == Kind.DATE) {
        return LocalDate.ofEpochDay(values.digits[row]).atStartOfDay();
      }
      LocalDateTime time = dates.read(values.text(row).strip());
      if (time == null) {
        frame.error(row, "\"" + values.text(row) + "\" is not a date, nor a date and time");
      }
      return time;
    }
  }

  private Moment moment(Expression e) {
    List<String> patterns = e instanceof Column column ? scope.patterns(column) : List.of();
    boolean day = nodes.natural(e) == Kind.DATE;
    return day
        ? new Moment(nodes.build(e, Kind.DATE), new DatePatterns(List.of()))
        : new Moment(Conversions.toText(nodes.build(e, Kind.ANY)), new DatePatterns(patterns));
  }

  /** A part of a day, or of a day with a time. */
  Node extract(String field, Expression e) {
    String wanted = field.toUpperCase(Locale.ROOT);
    if (!List.of("YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND").contains(wanted)) {
      throw scope.wrong("EXTRACT takes YEAR, MONTH, DAY, HOUR, MINUTE or SECOND, not " + field);
    }
    boolean ofDay = List.of("YEAR", "MONTH", "DAY").contains(wanted);
    if (!ofDay && nodes.natural(e) == Kind.DATE) {
      throw scope.wrongPart(e, "is a date, which has no " + wanted.toLowerCase(Locale.ROOT));
    }
    if (ofDay && !isDateTime(e)) {
      return new Arithmetic.Function(
          (a, row, out, frame) ->
              part(wanted, LocalDate.ofEpochDay(a[0].digits[row]).atStartOfDay(), out, row),
          nodes.build(e, Kind.DATE));
    }
    Moment moment = moment(e);
    return new Arithmetic.Function(
        (a, row, out, frame) -> {
          LocalDateTime time = moment.at(a[0], row, frame);
          if (time != null) {
            part(wanted, time, out, row);
          }
        },
        moment.node());
  }

  private static void part(String wanted, LocalDateTime time, Values out, int row) {
    switch (wanted) {
      case "YEAR" -> out.number(row, time.getYear(), 0);
      case "MONTH" -> out.number(row, time.getMonthValue(), 0);
      case "DAY" -> out.number(row, time.getDayOfMonth(), 0);
      case "HOUR" -> out.number(row, time.getHour(), 0);
      case "MINUTE" -> out.number(row, time.getMinute(), 0);
      default -> {
        BigDecimal nanos = BigDecimal.valueOf(time.getNano(), 9).stripTrailingZeros();
        out.number(row, BigDecimal.valueOf(time.getSecond()).add(nanos));
      }
    }
  }

  /** Whether it is a column of days with times, or a text. */
  private boolean isDateTime(Expression e) {
    return e instanceof Column column && scope.isDateTime(column);
  }

  /** A day, or a day with a time, as text by a pattern. */
  Node text(Expression e, Expression pattern) {
    if (!(pattern instanceof StringValue literal)) {
      throw scope.wrongPart(pattern, "must be a pattern in single quotes, such as 'MM/yyyy'");
    }
    DateTimeFormatter formatter;
    try {
      formatter = DatePatterns.formatter(Literals.text(literal));
    } catch (IllegalArgumentException x) {
      throw scope.wrongPart(
          pattern, "is no pattern of a date: " + x.getMessage() + "; write such as 'dd.MM.yyyy'");
    }
    Moment moment = moment(e);
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> {
          LocalDateTime time = moment.at(a[0], row, frame);
          if (time != null) {
            out.text(row, formatter.format(time));
          }
        },
        moment.node());
  }

  /** The first or the last day of the month. */
  Node endOfMonth(Expression e, boolean last) {
    Node day = day(e);
    return new Arithmetic.Function(
        Kind.DATE,
        (a, row, out, frame) -> {
          YearMonth month = YearMonth.from(LocalDate.ofEpochDay(a[0].digits[row]));
          out.day(row, (last ? month.atEndOfMonth() : month.atDay(1)).toEpochDay());
        },
        day);
  }

  /** CAST of a column to a date: its day where it has a time, by its patterns where it has some. */
  Node cast(Expression column) {
    return isDateTime(column) ? day(column) : Conversions.toDate(nodes.build(column, Kind.ANY));
  }

  /** A day, be it of a day with a time. */
  Node day(Expression e) {
    if (!isDateTime(e)) {
      return nodes.build(e, Kind.DATE);
    }
    Moment moment = moment(e);
    return new Arithmetic.Function(
        Kind.DATE,
        (a, row, out, frame) -> {
          LocalDateTime time = moment.at(a[0], row, frame);
          if (time != null) {
            out.day(row, time.toLocalDate().toEpochDay());
          }
        },
        moment.node());
  }
}
