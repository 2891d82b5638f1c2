package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.TrimFunction;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.NearestName;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/** The scalar functions of ISO SQL that expressions may use. */
final class Functions {
  static final List<String> NAMES =
      List.of(
          "abs",
          "ceiling",
          "char_length",
          "coalesce",
          "date_text",
          "extract",
          "first_of_month",
          "floor",
          "greatest",
          "last_of_month",
          "least",
          "lower",
          "lpad",
          "mod",
          "nullif",
          "position",
          "power",
          "replace",
          "round",
          "rpad",
          "substring",
          "trim",
          "upper");

  private static final int MOST_PLACES = 100;

  /** Characters that {@code ||} and {@code REPLACE} make at most. */
  static final int MOST_TEXT = 100_000;

  private final NodeBuilder nodes;
  private final Scope scope;
  private final Moments moments;

  Functions(NodeBuilder nodes, Scope scope, Moments moments) {
    this.nodes = nodes;
    this.moments = moments;
    this.scope = scope;
  }

  Node of(Function function, Kind wanted) {
    String name = function.getName().toLowerCase(Locale.ROOT);
    List<Expression> arguments = arguments(function);
    if (function.isDistinct() || function.isAllColumns() || function.getOrderByElements() != null) {
      throw scope.wrongPart(function, "holds words that a scalar function does not take");
    }
    return switch (name) {
      case "upper" -> text(function, arguments, value -> value.toUpperCase(Locale.ROOT));
      case "lower" -> text(function, arguments, value -> value.toLowerCase(Locale.ROOT));
      case "trim" -> text(function, arguments, value -> trimmed(value, ' ', "BOTH"));
      case "char_length", "character_length" -> {
        count(function, arguments, 1, 1);
        yield new Arithmetic.Function(
            (a, row, out, frame) ->
                out.number(row, a[0].text(row).codePointCount(0, a[0].text(row).length()), 0),
            asText(arguments.get(0)));
      }
      case "replace" -> {
        count(function, arguments, 3, 3);
        yield new Arithmetic.Function(
            Kind.TEXT,
            (a, row, out, frame) ->
                replaced(a[0].text(row), a[1].text(row), a[2].text(row), row, out, frame),
            asText(arguments.get(0)),
            asText(arguments.get(1)),
            asText(arguments.get(2)));
      }
      case "substring" -> substring(function, arguments);
      case "position" -> {
        count(function, arguments, 2, 2);
        yield new Arithmetic.Function(
            (a, row, out, frame) -> {
              int at = a[1].text(row).indexOf(a[0].text(row));
              out.number(row, at < 0 ? 0 : a[1].text(row).codePointCount(0, at) + 1, 0);
            },
            asText(arguments.get(0)),
            asText(arguments.get(1)));
      }
      case "round" -> rounded(function, arguments, RoundingMode.HALF_UP, 2);
      case "floor" -> rounded(function, arguments, RoundingMode.FLOOR, 1);
      case "ceiling", "ceil" -> rounded(function, arguments, RoundingMode.CEILING, 1);
      case "abs" -> {
        count(function, arguments, 1, 1);
        yield new Arithmetic.Function(
            (a, row, out, frame) -> out.number(row, a[0].number(row).abs()),
            number(arguments.get(0)));
      }
      case "mod" -> {
        count(function, arguments, 2, 2);
        yield new Arithmetic.Binary('%', number(arguments.get(0)), number(arguments.get(1)));
      }
      case "power" -> power(function, arguments);
      case "coalesce" -> {
        count(function, arguments, 1, 99);
        Kind kind = nodes.common(arguments, wanted);
        List<Node> all = new ArrayList<>();
        arguments.forEach(argument -> all.add(nodes.build(argument, kind)));
        yield new Choosing.First(kind, all);
      }
      case "nullif" -> {
        count(function, arguments, 2, 2);
        Kind kind = nodes.common(arguments, wanted);
        yield new Choosing.NullIf(
            nodes.build(arguments.get(0), kind),
            nodes.conditions().compare("=", arguments.get(0), arguments.get(1)));
      }
      case "greatest", "least" -> extreme(function, arguments, wanted, name.equals("least"));
      case "lpad", "rpad" -> padded(function, arguments, name.equals("lpad"));
      case "date_text" -> {
        count(function, arguments, 2, 2);
        yield moments.text(arguments.get(0), arguments.get(1));
      }
      case "first_of_month", "last_of_month" -> {
        count(function, arguments, 1, 1);
        yield moments.endOfMonth(arguments.get(0), name.equals("last_of_month"));
      }
      default ->
          throw scope.wrongPart(
              function, "is not a known function; " + NearestName.hint(name, NAMES));
    };
  }

  /**
   * As ISO SQL has it: null where any is. Columns of no stated type are compared as numbers where
   * all of a row are, else as text.
   */
  private Node extreme(Function function, List<Expression> arguments, Kind wanted, boolean least) {
    count(function, arguments, 1, 99);
    Kind kind = nodes.common(arguments, wanted);
    boolean untyped =
        kind == Kind.TEXT && arguments.stream().allMatch(e -> nodes.natural(e) == Kind.ANY);
    if (kind == Kind.TRUTH) {
      throw scope.wrongPart(function, "has conditions in it, which have no order");
    }
    Node[] all = arguments.stream().map(e -> nodes.build(e, kind)).toArray(Node[]::new);
    return new Arithmetic.Function(
        kind,
        (a, row, out, frame) -> {
          BigDecimal[] numbers = untyped ? numbers(a, row) : null;
          int best = 0;
          for (int i = 1; i < a.length; i++) {
            int order =
                numbers == null
                    ? order(kind, a[i], a[best], row)
                    : numbers[i].compareTo(numbers[best]);
            best = order != 0 && least == order < 0 ? i : best;
          }
          switch (kind) {
            case NUMBER -> out.number(row, a[best].number(row));
            case DATE -> out.day(row, a[best].digits[row]);
            default -> out.text(row, a[best].text(row));
          }
        },
        all);
  }

  /** The values of a row as numbers; null when one of them is none. */
  private static BigDecimal @Nullable [] numbers(Values[] values, int row) {
    BigDecimal[] numbers = new BigDecimal[values.length];
    for (int i = 0; i < numbers.length; i++) {
      BigDecimal number = DecimalText.read(values[i].text(row));
      if (number == null) {
        return null;
      }
      numbers[i] = number;
    }
    return numbers;
  }

  private static int order(Kind kind, Values one, Values other, int row) {
    return switch (kind) {
      case NUMBER -> one.number(row).compareTo(other.number(row));
      case DATE -> Long.compare(one.digits[row], other.digits[row]);
      default -> ValueOrder.byCodePoint(one.text(row), other.text(row));
    };
  }

  /** As ISO SQL pads: with spaces where nothing else is stated; what is longer is cut. */
  private Node padded(Function function, List<Expression> arguments, boolean left) {
    count(function, arguments, 2, 3);
    Node[] all = new Node[arguments.size()];
    all[0] = asText(arguments.get(0));
    all[1] = number(arguments.get(1));
    if (all.length == 3) {
      all[2] = asText(arguments.get(2));
    }
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> {
          Integer length = Conversions.integer(a[1], row);
          String fill = a.length < 3 ? " " : a[2].text(row);
          if (length == null || length < 0 || fill.isEmpty()) {
            frame.error(row, "a text is filled up to a whole length of 0 or more, with something");
          } else if (fits(length, row, frame)) {
            out.text(row, padded(a[0].text(row), length, fill, left));
          }
        },
        all);
  }

  private static String padded(String text, int length, String fill, boolean left) {
    int points = text.codePointCount(0, text.length());
    if (points >= length) {
      return text.substring(0, text.offsetByCodePoints(0, length));
    }
    int[] filling = fill.codePoints().toArray();
    StringBuilder more = new StringBuilder();
    for (int i = 0; i < length - points; i++) {
      more.appendCodePoint(filling[i % filling.length]);
    }
    return left ? more + text : text + more;
  }

  private static void replaced(
      String text, String what, String with, int row, Values out, Frame frame) {
    long times = 0;
    for (int at = what.isEmpty() ? -1 : text.indexOf(what);
        at >= 0;
        at = text.indexOf(what, at + what.length())) {
      times++;
    }
    if (fits(text.length() + times * (with.length() - what.length()), row, frame)) {
      out.text(row, times == 0 ? text : text.replace(what, with));
    }
  }

  /** Whether a text is not too long for what an expression may make; if it is, that is an error. */
  private static boolean fits(long length, int row, Frame frame) {
    if (length > MOST_TEXT) {
      frame.error(row, "the text would have " + length + " characters, more than " + MOST_TEXT);
    }
    return length <= MOST_TEXT;
  }

  /** Whether a function gives one of its arguments, so that these say what kind it is of. */
  static boolean chooses(Function function) {
    String name = function.getName().toLowerCase(Locale.ROOT);
    return name.equals("coalesce")
        || name.equals("nullif")
        || name.equals("greatest")
        || name.equals("least");
  }

  static List<Expression> arguments(Function function) {
    List<Expression> arguments = new ArrayList<>();
    if (function.getNamedParameters() != null) {
      function.getNamedParameters().forEach(arguments::add);
    } else if (function.getParameters() != null) {
      function.getParameters().forEach(arguments::add);
    }
    return arguments;
  }

  private void count(Function function, List<Expression> arguments, int least, int most) {
    if (arguments.size() < least || arguments.size() > most) {
      throw scope.wrongPart(
          function,
          "takes "
              + (least == most ? String.valueOf(least) : least + " to " + most)
              + (most == 1 ? " value" : " values")
              + ", not "
              + arguments.size());
    }
  }

  private Node number(Expression e) {
    return nodes.build(e, Kind.NUMBER);
  }

  private Node asText(Expression e) {
    return Conversions.toText(nodes.build(e, Kind.ANY));
  }

  private Node text(Function function, List<Expression> arguments, UnaryOperator<String> body) {
    count(function, arguments, 1, 1);
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> out.text(row, body.apply(a[0].text(row))),
        asText(arguments.get(0)));
  }

  private Node substring(Function function, List<Expression> arguments) {
    count(function, arguments, 2, 3);
    Node[] all = new Node[arguments.size()];
    all[0] = asText(arguments.get(0));
    for (int i = 1; i < all.length; i++) {
      all[i] = number(arguments.get(i));
    }
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> {
          Integer from = Conversions.integer(a[1], row);
          Integer length = a.length < 3 ? Integer.valueOf(-1) : Conversions.integer(a[2], row);
          if (from == null || length == null || a.length == 3 && length < 0) {
            frame.error(row, "substring needs whole numbers, and a length of 0 or more");
            return;
          }
          out.text(row, part(a[0].text(row), from, a.length < 3 ? null : length));
        },
        all);
  }

  /** As ISO SQL counts: characters from 1; what lies before the text counts, but is not there. */
  private static String part(String text, int from, @Nullable Integer length) {
    int[] points = text.codePoints().toArray();
    long end = length == null ? points.length : Math.min(points.length, (long) from - 1 + length);
    int start = Math.max(0, from - 1);
    return start >= end ? "" : new String(points, start, (int) end - start);
  }

  private Node rounded(Function function, List<Expression> arguments, RoundingMode mode, int most) {
    count(function, arguments, 1, most);
    Integer stated =
        arguments.size() == 1 ? Integer.valueOf(0) : number(arguments.get(1)).constant();
    if (stated != null && Math.abs(stated) <= MOST_PLACES) {
      return new Arithmetic.Round(number(arguments.get(0)), stated, mode);
    }
    return new Arithmetic.Function(
        (a, row, out, frame) -> {
          Integer places = Conversions.integer(a[1], row);
          if (places == null || Math.abs(places) > MOST_PLACES) {
            frame.error(row, "round needs a whole number of places, at most 100");
          } else {
            Decimals.round(a[0], row, places, mode, out);
          }
        },
        number(arguments.get(0)),
        number(arguments.get(1)));
  }

  private Node power(Function function, List<Expression> arguments) {
    count(function, arguments, 2, 2);
    return new Arithmetic.Function(
        (a, row, out, frame) -> {
          Integer exponent = Conversions.integer(a[1], row);
          BigDecimal base = a[0].number(row);
          if (exponent == null || Math.abs(exponent) > 999) {
            frame.error(row, "power needs a whole exponent, at most 999");
          } else if (exponent < 0 && base.signum() == 0) {
            frame.error(row, "power: zero has no negative power");
          } else if ((long) base.precision() * Math.abs(exponent) > 2L * Decimals.MOST_DIGITS) {
            frame.error(row, "power: more than " + Decimals.MOST_DIGITS + " digits");
          } else if (exponent < 0) {
            Decimals.divideWide(BigDecimal.ONE, base.pow(-exponent), out, row);
          } else {
            out.number(row, base.pow(exponent));
          }
        },
        number(arguments.get(0)),
        number(arguments.get(1)));
  }

  Node concat(List<Expression> parts) {
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> {
          String left = a[0].text(row);
          String right = a[1].text(row);
          if (fits((long) left.length() + right.length(), row, frame)) {
            out.text(row, left + right);
          }
        },
        asText(parts.get(0)),
        asText(parts.get(1)));
  }

  Node trim(TrimFunction trim) {
    boolean from = trim.getFromExpression() != null;
    Expression value = from ? trim.getFromExpression() : trim.getExpression();
    int what =
        from && trim.getExpression() != null
            ? nodes.oneCharacter(trim.getExpression(), "TRIM")
            : ' ';
    String side = trim.getTrimSpecification() == null ? "BOTH" : trim.getTrimSpecification().name();
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> out.text(row, trimmed(a[0].text(row), what, side)),
        asText(value));
  }

  /** As ISO SQL trims: one stated character, or else the plain space, and no other. */
  private static String trimmed(String text, int what, String side) {
    int width = Character.charCount(what);
    int start = 0;
    int end = text.length();
    while (!side.equals("TRAILING") && start < end && text.codePointAt(start) == what) {
      start += width;
    }
    while (!side.equals("LEADING") && end > start && text.codePointBefore(end) == what) {
      end -= width;
    }
    return text.substring(start, end);
  }
}
