package org.abletwine.compute;

import java.math.BigDecimal;
import org.abletwine.match.index.TextPattern;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/** Nodes with three-valued truth. */
final class Logic {
  private Logic() {}

  /** Whether a condition is true, or false: never unknown. */
  static final class Is extends Node {
    private final boolean wanted;
    private final Node condition;

    Is(boolean wanted, Node condition) {
      super(Kind.TRUTH);
      this.wanted = wanted;
      this.condition = condition;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = condition.eval(frame, asked);
      for (int row = 0; row < frame.rows(); row++) {
        if (!skip(asked, row)) {
          out.truth(row, a.known[row] && (a.digits[row] != 0) == wanted);
        }
      }
    }
  }

  /** Compares two values of one kind; unknown when either is null. */
  static final class Comparison extends Node {
    private final boolean less;
    private final boolean equal;
    private final boolean greater;
    private final Node left;
    private final Node right;

    /**
     * @param operator one of = &lt;&gt; != &lt; &lt;= &gt; &gt;=
     */
    Comparison(String operator, Node left, Node right) {
      super(Kind.TRUTH);
      boolean not = operator.equals("!=");
      this.less = not || operator.indexOf('<') >= 0;
      this.equal = !not && operator.indexOf('=') >= 0;
      this.greater = not || operator.indexOf('>') >= 0;
      this.left = left;
      this.right = right;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = left.eval(frame, asked);
      Values b = right.eval(frame, asked);
      if (left.kind == Kind.NUMBER
          && SharedScale.compare(a, b, less, equal, greater, out, frame.rows())) {
        return;
      }
      for (int row = 0; row < frame.rows(); row++) {
        if (a.known[row] && b.known[row] && !skip(asked, row)) {
          out.truth(row, holds(order(a, b, row)));
        }
      }
    }

    private int order(Values a, Values b, int row) {
      return switch (left.kind) {
        case NUMBER -> Decimals.compare(a, b, row);
        case TEXT -> text(a.text(row), b.text(row));
        default -> Long.compare(a.digits[row], b.digits[row]);
      };
    }

    /** Columns of no stated type: as numbers when both are, else as text. */
    private int text(String a, String b) {
      if (untyped) {
        BigDecimal x = DecimalText.read(a);
        BigDecimal y = x == null ? null : DecimalText.read(b);
        if (x != null && y != null) {
          return x.compareTo(y);
        }
      }
      return ValueOrder.byCodePoint(a, b);
    }

    private boolean untyped;

    Comparison ofUntyped() {
      untyped = true;
      return this;
    }

    private boolean holds(int order) {
      return order < 0 ? less : order > 0 ? greater : equal;
    }
  }

  /** AND, OR: the right side is asked only where the left does not settle it. */
  static final class Both extends Node {
    private final boolean and;
    private final Node left;
    private final Node right;

    Both(boolean and, Node left, Node right) {
      super(Kind.TRUTH);
      this.and = and;
      this.left = left;
      this.right = right;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = left.eval(frame, asked);
      boolean[] open = new boolean[frame.rows()];
      for (int row = 0; row < open.length; row++) {
        open[row] = !skip(asked, row) && !(and ? a.isFalse(row) : a.isTrue(row));
      }
      Values b = right.eval(frame, open);
      for (int row = 0; row < open.length; row++) {
        if (!open[row]) {
          out.truth(row, !and);
        } else if (and ? b.isFalse(row) : b.isTrue(row)) {
          out.truth(row, !and);
        } else if (a.known[row] && b.known[row]) {
          out.truth(row, and);
        }
      }
    }
  }

  /** NOT, or IS NULL, which is never unknown. */
  static final class Single extends Node {
    private final boolean isNull;
    private final Node inner;

    Single(boolean isNull, Node inner) {
      super(Kind.TRUTH);
      this.isNull = isNull;
      this.inner = inner;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = inner.eval(frame, asked);
      for (int row = 0; row < frame.rows(); row++) {
        if (isNull) {
          out.truth(row, !a.known[row]);
        } else if (a.known[row]) {
          out.truth(row, a.digits[row] == 0);
        }
      }
    }
  }

  /** LIKE with a pattern that is a literal. */
  static final class Like extends Node {
    private final Node value;
    private final TextPattern pattern;

    Like(Node value, TextPattern pattern) {
      super(Kind.TRUTH);
      this.value = value;
      this.pattern = pattern;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values a = value.eval(frame, asked);
      for (int row = 0; row < frame.rows(); row++) {
        if (a.known[row] && !skip(asked, row)) {
          out.truth(row, pattern.fits(a.text(row)));
        }
      }
    }
  }
}
