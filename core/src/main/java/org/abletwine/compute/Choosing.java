package org.abletwine.compute;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Nodes that take one of several values: CASE and COALESCE. */
final class Choosing {
  private Choosing() {}

  /** Copies a row's value. */
  static void copy(Values from, int row, Values to, Kind kind) {
    if (!from.known[row]) {
      return;
    }
    switch (kind) {
      case TEXT -> to.text(row, from.text[row]);
      case NUMBER -> to.number(row, from, row);
      default -> to.day(row, from.digits[row]);
    }
  }

  /** CASE: the first branch whose condition is true; each branch sees only its own rows. */
  static final class Case extends Node {
    private final List<Node> conditions;
    private final List<Node> results;
    private final @Nullable Node otherwise;

    Case(Kind kind, List<Node> conditions, List<Node> results, @Nullable Node otherwise) {
      super(kind);
      this.conditions = conditions;
      this.results = results;
      this.otherwise = otherwise;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      int rows = frame.rows();
      boolean[] open = new boolean[rows];
      for (int row = 0; row < rows; row++) {
        open[row] = !skip(asked, row);
      }
      for (int branch = 0; branch < conditions.size(); branch++) {
        Values truth = conditions.get(branch).eval(frame, open);
        boolean[] chosen = new boolean[rows];
        for (int row = 0; row < rows; row++) {
          boolean is = open[row] & truth.known[row] & truth.digits[row] != 0;
          chosen[row] = is;
          open[row] &= !is;
        }
        take(results.get(branch).eval(frame, chosen), chosen);
      }
      if (otherwise != null) {
        take(otherwise.eval(frame, open), open);
      }
      if (kind == Kind.NUMBER) {
        out.survey(rows);
      }
    }

    private void take(Values values, boolean[] chosen) {
      if (kind == Kind.NUMBER && !values.anyWide()) {
        takeNumbers(values, chosen);
        return;
      }
      for (int row = 0; row < chosen.length; row++) {
        if (chosen[row]) {
          copy(values, row, out, kind);
        }
      }
    }

    /** Takes them without a branch for each row: which are chosen is hard to foretell. */
    private void takeNumbers(Values values, boolean[] chosen) {
      boolean[] known = out.known;
      long[] digits = out.digits;
      byte[] scale = out.scale;
      for (int row = 0; row < chosen.length; row++) {
        boolean take = chosen[row];
        int bits = take ? -1 : 0;
        known[row] = take & values.known[row] | !take & known[row];
        digits[row] ^= (digits[row] ^ values.digits[row]) & bits;
        scale[row] ^= (byte) ((scale[row] ^ values.scale[row]) & bits);
      }
    }
  }

  /** COALESCE: the first that is not null; later ones see only rows still without. */
  static final class First extends Node {
    private final List<Node> nodes;

    First(Kind kind, List<Node> nodes) {
      super(kind);
      this.nodes = nodes;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      boolean[] open = new boolean[frame.rows()];
      for (int row = 0; row < open.length; row++) {
        open[row] = !skip(asked, row);
      }
      for (Node node : nodes) {
        Values values = node.eval(frame, open);
        for (int row = 0; row < open.length; row++) {
          if (open[row] && values.known[row]) {
            copy(values, row, out, kind);
            open[row] = false;
          }
        }
      }
    }
  }

  /** NULLIF: null where the two are equal. */
  static final class NullIf extends Node {
    private final Node value;
    private final Node equal;

    NullIf(Node value, Node equal) {
      super(value.kind);
      this.value = value;
      this.equal = equal;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      Values same = equal.eval(frame, asked);
      boolean[] drop = new boolean[frame.rows()];
      for (int row = 0; row < drop.length; row++) {
        drop[row] = same.isTrue(row);
      }
      Values values = value.eval(frame, asked);
      for (int row = 0; row < drop.length; row++) {
        if (!drop[row]) {
          copy(values, row, out, kind);
        }
      }
    }
  }
}
