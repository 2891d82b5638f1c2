package org.abletwine.key;

import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;

/** Steps at the ends of a cell: they move positions and copy nothing. */
final class Ends {
  private Ends() {}

  /** Leaves out leading zeros; a cell of zeros only keeps one. */
  static final class DropLeadingZeros extends NamedStep {
    private static final long serialVersionUID = 1L;

    DropLeadingZeros() {
      super("drop-leading-zeros");
    }

    @Override
    public void apply(CellVector cells, int rows) {
      byte[] text = cells.text;
      for (int row = 0; row < rows; row++) {
        int start = cells.starts[row];
        int last = cells.ends[row] - 1;
        while (start < last && text[start] == '0') {
          start++;
        }
        cells.starts[row] = start;
      }
    }
  }

  /** Leaves out a stated beginning or end, where it is there and something is left. */
  static final class DropAffix extends NamedStep {
    private static final long serialVersionUID = 1L;

    private final boolean prefix;
    private final byte[] affix;

    DropAffix(boolean prefix, String affix) {
      super((prefix ? "drop-prefix: " : "drop-suffix: ") + affix);
      this.prefix = prefix;
      this.affix = Utf8.bytes(affix);
    }

    @Override
    public void apply(CellVector cells, int rows) {
      for (int row = 0; row < rows; row++) {
        int start = cells.starts[row];
        int end = cells.ends[row];
        int from = prefix ? start : end - affix.length;
        if (start >= 0
            && end - start > affix.length
            && java.util.Arrays.equals(
                cells.text, from, from + affix.length, affix, 0, affix.length)) {
          if (prefix) {
            cells.starts[row] += affix.length;
          } else {
            cells.ends[row] -= affix.length;
          }
        }
      }
    }
  }

  /** Keeps so many characters (Unicode code points) of one end. */
  static final class Keep extends NamedStep {
    private static final long serialVersionUID = 1L;

    private final boolean first;
    private final int count;

    Keep(boolean first, int count) {
      super((first ? "first: " : "last: ") + count);
      this.first = first;
      this.count = count;
    }

    @Override
    public void apply(CellVector cells, int rows) {
      for (int row = 0; row < rows; row++) {
        int start = cells.starts[row];
        int end = cells.ends[row];
        if (end - start > count && Utf8.points(cells.text, start, end) > count) {
          if (first) {
            cells.ends[row] = forward(cells.text, start, count);
          } else {
            cells.starts[row] = back(cells.text, end, count);
          }
        }
      }
    }

    /** Where so many characters from a place on end; more follow. */
    private static int forward(byte[] text, int from, int count) {
      int at = from;
      for (int left = count; left > 0 || !Utf8.leads(text[at]); at++) {
        left -= Utf8.leads(text[at]) ? 1 : 0;
      }
      return at;
    }

    /** Where the last so many characters before a place begin. */
    private static int back(byte[] text, int end, int count) {
      int at = end;
      for (int left = count; left > 0; ) {
        left -= Utf8.leads(text[--at]) ? 1 : 0;
      }
      return at;
    }
  }
}
