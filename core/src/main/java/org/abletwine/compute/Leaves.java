package org.abletwine.compute;

import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DatePatterns;
import org.jspecify.annotations.Nullable;

/** The ends of an expression's branches: columns and literals. */
final class Leaves {
  private Leaves() {}

  /** A literal, or null. */
  static final class Constant extends Node {
    private final Literal literal;

    /** Puts the literal's value into a row. */
    interface Literal {
      void put(Values into, int row);
    }

    Constant(Kind kind, Literal literal) {
      super(kind);
      this.literal = literal;
    }

    /** Literals stay the same, so they are put into each row once. */
    @Override
    Values eval(Frame frame, boolean @Nullable [] asked) {
      if (out.known.length < frame.rows()) {
        super.eval(frame, asked);
      }
      return out;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      for (int row = 0; row < out.known.length; row++) {
        literal.put(out, row);
      }
      if (kind == Kind.NUMBER) {
        out.survey(out.known.length);
      }
    }

    @Override
    @Nullable Integer constant() {
      Values one = new Values();
      one.prepare(1, kind);
      literal.put(one, 0);
      return kind == Kind.NUMBER && one.known[0] ? Conversions.integer(one, 0) : null;
    }
  }

  /** A column, read as the kind of value its use needs. */
  static final class Column extends Node {
    final String name;
    private final int number;
    private final DatePatterns dates;
    private final boolean whole;

    /** Takes the text of a column of numbers that is read as dates. */
    private final CellVector scratch = new CellVector();

    /**
     * @param kind what it is read as
     * @param name the column, for messages
     * @param number its number in the batches
     * @param type its declared type; null for none
     */
    Column(Kind kind, String name, int number, @Nullable ColumnType type) {
      super(kind);
      this.name = name;
      this.number = number;
      this.dates = new DatePatterns(type == null ? List.of() : type.patterns());
      this.whole = type != null && type.kind() == ColumnType.Kind.INTEGER;
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      if (kind == Kind.NUMBER) {
        numbers(frame, asked);
        return;
      }
      CellVector cells = frame.batch().column(number);
      if (kind == Kind.DATE) {
        cells = cells.asText(scratch);
      }
      for (int row = 0; row < frame.rows(); row++) {
        if (cells.isNull(row) || skip(asked, row)) {
          continue;
        }
        switch (kind) {
          case DATE -> day(frame, cells, row);
          default -> out.text(row, cells.get(row));
        }
      }
    }

    private void numbers(Frame frame, boolean @Nullable [] asked) {
      Batch batch = frame.batch();
      if (number < batch.baseColumns()) {
        numbersOfBase(frame, batch, asked);
      } else {
        CellVector cells = batch.column(number);
        if (cells.inNumbers()) {
          out.takeNumbers(cells, frame.rows()); // computed by a step before: nothing to be read
        }
        for (int row = 0; row < frame.rows() && !cells.inNumbers(); row++) {
          if (!cells.isNull(row) && !skip(asked, row)) {
            number(frame, cells, row);
          }
        }
      }
      if (whole) {
        wholeOnly(frame, asked);
      }
      if (out.sharedScale < 0) {
        out.survey(frame.rows());
      }
    }

    private void wholeOnly(Frame frame, boolean @Nullable [] asked) {
      for (int row = 0; row < frame.rows(); row++) {
        if (out.known[row] && !skip(asked, row) && !out.isWhole(row)) {
          out.known[row] = false;
          frame.error(row, unfit(frame.batch().column(number), row, "a whole number"));
        }
      }
    }

    /** Straight from the text that was read, without a view of the column. */
    private void numbersOfBase(Frame frame, Batch batch, boolean @Nullable [] asked) {
      byte[] text = batch.text();
      for (int row = 0; row < frame.rows(); row++) {
        int base = batch.baseRow(row);
        if ((batch.baseMark(base, number) & Batch.NULL) != 0 || skip(asked, row)) {
          continue;
        }
        int start = batch.baseStart(base, number);
        int end = batch.baseEnd(base, number);
        if (!Decimals.read(text, start, end, out, row)) {
          frame.error(row, unfit(batch.column(number), row, "a number"));
        }
      }
    }

    private void number(Frame frame, CellVector cells, int row) {
      if (!Decimals.read(cells, row, out, row)) {
        frame.error(row, unfit(frame.batch().column(number), row, "a number"));
      }
    }

    private void day(Frame frame, CellVector cells, int row) {
      long day = dates.day(cells.text, cells.starts[row], cells.ends[row]);
      if (day == DatePatterns.NONE) {
        frame.error(row, unfit(cells, row, "a date"));
      } else {
        out.day(row, day);
      }
    }

    private String unfit(CellVector cells, int row, String noun) {
      return "column \"" + name + "\": \"" + cells.get(row) + "\" is not " + noun;
    }
  }
}
