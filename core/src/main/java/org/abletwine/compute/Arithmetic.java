package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import org.abletwine.table.text.DatePatterns;
import org.jspecify.annotations.Nullable;

/** Nodes that compute numbers and days. */
final class Arithmetic {

  private static final long MOST_DAYS = 4_000_000;

  private Arithmetic() {}

  /** Two numbers in, one out; null when either is. */
  static final class Binary extends Node {
    private final char operator;
    private final Node left;
    private final Node right;
    private final int tens;
    private boolean bare = true;

    /**
     * @param operator one of + - * / %
     */
    Binary(char operator, Node left, Node right) {
      super(Kind.NUMBER);
      this.operator = operator;
      this.left = left;
      this.right = right;
      Integer by = operator == '/' ? right.constant() : null;
      this.tens = by == null ? -1 : Decimals.powerOfTen(by);
    }

    /** Lets a quotient have more places than it needs, for whoever rounds it at once. */
    void roundedAfter() {
      bare = false;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = left.eval(frame, asked);
      Values b = right.eval(frame, asked);
      if (atOnce(a, b, frame.rows())) {
        return;
      }
      for (int row = 0; row < frame.rows(); row++) {
        if (!a.known[row] || !b.known[row] || skip(asked, row)) {
          continue;
        }
        switch (operator) {
          case '+' -> Decimals.add(a, b, false, out, row);
          case '-' -> Decimals.add(a, b, true, out, row);
          case '*' -> Decimals.multiply(a, b, out, row);
          default -> divide(frame, a, b, row);
        }
        if (out.isWide(row) && Decimals.tooLong(out.number(row))) {
          out.known[row] = false;
          frame.error(row, "a number of more than " + Decimals.MOST_DIGITS + " digits");
        }
      }
    }

    private boolean atOnce(Values a, Values b, int rows) {
      return switch (operator) {
        case '+' -> SharedScale.add(a, b, false, out, rows);
        case '-' -> SharedScale.add(a, b, true, out, rows);
        case '*' -> SharedScale.multiply(a, b, out, rows);
        default -> tens >= 0 && SharedScale.divide(a, tens, bare, out, rows);
      };
    }

    private void divide(Frame frame, Values a, Values b, int row) {
      if (!b.isWide(row) && b.digits[row] == 0) {
        frame.error(row, "division of " + a.number(row).toPlainString() + " by zero");
      } else if (operator == '/') {
        Decimals.divide(a, b, out, row);
      } else {
        BigDecimal x = a.number(row);
        BigDecimal y = b.number(row);
        // The library lets the places follow the quotient: here they are the operands' alone.
        out.number(row, x.remainder(y).setScale(Math.max(x.scale(), y.scale())));
      }
    }
  }

  /** Numbers in, a number out, by a function; null when any is. */
  static final class Function extends Node {
    private final Node[] arguments;
    private final Body body;

    /** Computes one row. */
    interface Body {
      void of(Values[] arguments, int row, Values out, Frame frame);
    }

    Function(Body body, Node... arguments) {
      this(Kind.NUMBER, body, arguments);
    }

    Function(Kind kind, Body body, Node... arguments) {
      super(kind);
      this.arguments = arguments;
      this.body = body;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values[] values = new Values[arguments.length];
      for (int i = 0; i < values.length; i++) {
        values[i] = arguments[i].eval(frame, asked);
      }
      for (int row = 0; row < frame.rows(); row++) {
        boolean all = !skip(asked, row);
        for (int i = 0; i < values.length && all; i++) {
          all = values[i].known[row];
        }
        if (all) {
          body.of(values, row, out, frame);
        }
      }
    }
  }

  /** Days from one date to another; null when either is. */
  static Node days(Node left, Node right) {
    return new Function(
        (a, row, out, frame) -> out.number(row, a[0].digits[row] - a[1].digits[row], 0),
        left,
        right);
  }

  /** A number rounded to a stated count of places; null when it is. */
  static final class Round extends Node {
    private final Node number;
    private final int places;
    private final RoundingMode mode;

    Round(Node number, int places, RoundingMode mode) {
      super(Kind.NUMBER);
      this.number = number;
      this.places = places;
      this.mode = mode;
      if (number instanceof Binary binary) {
        binary.roundedAfter();
      }
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = number.eval(frame, asked);
      if (SharedScale.round(a, places, mode, out, frame.rows())) {
        return;
      }
      for (int row = 0; row < frame.rows(); row++) {
        if (a.known[row] && !skip(asked, row)) {
          Decimals.round(a, row, places, mode, out);
        }
      }
    }
  }

  /** A day so many days, months or years later. */
  static Node shifted(Node day, long amount, ChronoUnit unit) {
    return new Function(
        Kind.DATE,
        (a, row, out, frame) -> {
          LocalDate from = LocalDate.ofEpochDay(a[0].digits[row]);
          LocalDate shifted = Math.abs(amount) > MOST_DAYS ? null : from.plus(amount, unit);
          if (shifted == null
              || shifted.getYear() < 1
              || shifted.getYear() > DatePatterns.LAST_YEAR) {
            frame.error(
                row,
                from
                    + (amount < 0 ? " less " : " plus ")
                    + Long.toString(amount).replace("-", "")
                    + " "
                    + unit.toString().toLowerCase(Locale.ROOT)
                    + " is not between 0001-01-01 and 9999-12-31");
          } else {
            out.day(row, shifted.toEpochDay());
          }
        },
        day);
  }
}
