package org.abletwine.compute;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.util.List;
import java.util.Locale;
import org.abletwine.table.CellVector;
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

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      for (int row = 0; row < frame.rows(); row++) {
        literal.put(out, row);
      }
    }
  }

  /** A column, read as the kind of value its use needs. */
  static final class Column extends Node {
    final String name;
    private final int number;
    private final DateTimeFormatter @Nullable [] formatters;

    Column(Kind kind, String name, int number, List<String> patterns) {
      super(kind);
      this.name = name;
      this.number = number;
      this.formatters =
          patterns.isEmpty()
              ? null
              : patterns.stream().map(Column::formatter).toArray(DateTimeFormatter[]::new);
    }

    private static DateTimeFormatter formatter(String pattern) {
      return new DateTimeFormatterBuilder()
          .parseCaseInsensitive()
          .appendPattern(pattern.replace('y', 'u'))
          .toFormatter(Locale.ENGLISH)
          .withResolverStyle(ResolverStyle.STRICT);
    }

    @Override
    void compute(Frame frame, boolean @Nullable [] asked) {
      CellVector cells = frame.batch().column(number);
      for (int row = 0; row < frame.rows(); row++) {
        int start = cells.starts[row];
        if (start < 0 || skip(asked, row)) {
          continue;
        }
        int end = cells.ends[row];
        switch (kind) {
          case NUMBER -> {
            if (!Decimals.read(cells.text, start, end, out, row)) {
              frame.error(row, unfit(cells, row, "a number"));
            }
          }
          case DATE -> day(frame, cells, row);
          case TRUTH -> truth(frame, cells, row);
          default -> out.text(row, cells.get(row));
        }
      }
    }

    private void day(Frame frame, CellVector cells, int row) {
      String text = String.valueOf(cells.get(row)).strip();
      try {
        out.day(row, parse(text).toEpochDay());
      } catch (DateTimeException e) {
        frame.error(row, unfit(cells, row, "a date"));
      }
    }

    private LocalDate parse(String text) {
      if (formatters == null) {
        return LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text);
      }
      DateTimeException last = new DateTimeException("no pattern");
      for (DateTimeFormatter formatter : formatters) {
        try {
          return LocalDate.parse(text, formatter);
        } catch (DateTimeException e) {
          last = e;
        }
      }
      throw last;
    }

    private void truth(Frame frame, CellVector cells, int row) {
      String text = String.valueOf(cells.get(row)).strip().toLowerCase(Locale.ROOT);
      if (text.equals("true") || text.equals("false")) {
        out.truth(row, text.equals("true"));
      } else {
        frame.error(row, unfit(cells, row, "true or false"));
      }
    }

    private String unfit(CellVector cells, int row, String noun) {
      return "column \"" + name + "\": \"" + cells.get(row) + "\" is not " + noun;
    }
  }
}
