package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** CAST, and values as text. */
final class Conversions {
  private Conversions() {}

  /** A value as text: numbers plainly, days as ISO 8601. */
  static String text(Values values, int row, Kind kind) {
    return switch (kind) {
      case NUMBER -> values.number(row).toPlainString();
      case DATE -> LocalDate.ofEpochDay(values.digits[row]).toString();
      case TRUTH -> values.digits[row] != 0 ? "true" : "false";
      default -> values.text(row);
    };
  }

  /**
   * Text of a stated length.
   *
   * @param length how many characters at most, as code points
   * @param pad whether shorter text is filled up with spaces
   */
  static Node toText(Node node, int length, boolean pad) {
    return new Arithmetic.Function(
        Kind.TEXT,
        (a, row, out, frame) -> {
          String text = text(a[0], row, node.kind);
          int points = text.codePointCount(0, text.length());
          out.text(
              row,
              points > length
                  ? text.substring(0, text.offsetByCodePoints(0, length))
                  : pad ? text + " ".repeat(length - points) : text);
        },
        node);
  }

  static Node toText(Node node) {
    return node.kind == Kind.TEXT
        ? node
        : new Arithmetic.Function(
            Kind.TEXT, (a, row, out, frame) -> out.text(row, text(a[0], row, node.kind)), node);
  }

  /**
   * A number with a stated scale.
   *
   * @param precision digits in all, or -1
   * @param scale places, or -1 to leave them
   */
  static Node toNumber(Node node, int precision, int scale) {
    return new Arithmetic.Function(
        Kind.NUMBER,
        (a, row, out, frame) -> {
          BigDecimal value =
              switch (node.kind) {
                case NUMBER -> a[0].number(row);
                case TRUTH -> a[0].digits[row] != 0 ? BigDecimal.ONE : BigDecimal.ZERO;
                default -> DecimalText.read(text(a[0], row, node.kind));
              };
          if (value == null) {
            frame.error(row, "cast: \"" + text(a[0], row, node.kind) + "\" is not a number");
            return;
          }
          BigDecimal scaled = scale < 0 ? value : value.setScale(scale, RoundingMode.HALF_UP);
          if (precision >= 0 && scaled.precision() - scaled.scale() > precision - scale) {
            frame.error(
                row,
                "cast: "
                    + value.toPlainString()
                    + " does not fit decimal("
                    + precision
                    + ", "
                    + scale
                    + ")");
            return;
          }
          out.number(row, scaled);
        },
        node);
  }

  /** A truth value of a text that says true or false, whatever its case. */
  static Node toTruth(Node node) {
    if (node.kind == Kind.TRUTH) {
      return node;
    }
    return new Arithmetic.Function(
        Kind.TRUTH,
        (a, row, out, frame) -> {
          String text = text(a[0], row, node.kind).strip();
          if (text.equalsIgnoreCase("true") || text.equalsIgnoreCase("false")) {
            out.truth(row, text.equalsIgnoreCase("true"));
          } else {
            frame.error(row, "cast: \"" + text + "\" is neither true nor false");
          }
        },
        node);
  }

  static Node toDate(Node node) {
    if (node.kind == Kind.DATE) {
      return node;
    }
    return new Arithmetic.Function(
        Kind.DATE,
        (a, row, out, frame) -> {
          long day = DatePatterns.isoDay(a[0].text(row).strip());
          if (day == DatePatterns.NONE) {
            frame.error(row, "cast: \"" + a[0].text(row) + "\" is not a date");
          } else {
            out.day(row, day);
          }
        },
        node);
  }

  /** An integer from a number that was checked to be one. */
  static @Nullable Integer integer(Values values, int row) {
    try {
      return values.number(row).intValueExact();
    } catch (ArithmeticException e) {
      return null;
    }
  }
}
