package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ValueOrder;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * What a stored row of a reference holds: the plain attributes brought, then the aggregates, then
 * the key as written, then whatever rules look at.
 */
final class KeptColumns {
  private static final int ROWS_THEMSELVES = -1;

  private final Lookup lookup;
  private final List<Attribute> brought;
  private final int plain;
  private final int[] columns;
  private final int duplicatesCell;
  private final int newestCell;

  /** For each attribute brought the cell that is put together: its own, or the values counted. */
  private final int[] combinedCells;

  KeptColumns(Lookup lookup, KeyLayout layout) {
    this.lookup = lookup;
    Schema schema = lookup.reference.schema();
    brought = inCellOrder(lookup.bring);
    plain = (int) brought.stream().filter(a -> a.aggregate() == null).count();
    IntStream.Builder kept = IntStream.builder();
    brought.forEach(a -> kept.add(a.ofRows() ? ROWS_THEMSELVES : schema.indexOf(a.source())));
    layout.theirs(lookup).forEach(column -> kept.add(schema.indexOf(column)));
    int next = brought.size() + layout.theirs(lookup).size();
    String newest = lookup.several.column();
    newestCell = newest == null ? -1 : next++;
    if (newest != null) {
      kept.add(schema.indexOf(newest));
    }
    String decides = lookup.duplicates.column();
    duplicatesCell = decides == null ? -1 : next++;
    if (decides != null) {
      kept.add(schema.indexOf(decides));
    }
    combinedCells = IntStream.range(0, brought.size()).toArray();
    for (int cell = 0; cell < combinedCells.length; cell++) {
      Aggregate aggregate = brought.get(cell).aggregate();
      if (aggregate != null && aggregate.function() == Aggregate.Function.COUNT_DISTINCT) {
        combinedCells[cell] = next++;
        kept.add(schema.indexOf(brought.get(cell).source()));
      }
    }
    switch (lookup.duplicates.rule()) {
      case FULLEST, IDENTICAL -> IntStream.range(0, schema.size()).forEach(kept::add);
      default -> {}
    }
    columns = kept.build().toArray();
  }

  /** Attributes in the order of their cells: the plain ones first. */
  static List<Attribute> inCellOrder(List<Attribute> attributes) {
    List<Attribute> ordered = new ArrayList<>();
    attributes.stream().filter(a -> a.aggregate() == null).forEach(ordered::add);
    attributes.stream().filter(a -> a.aggregate() != null).forEach(ordered::add);
    return ordered;
  }

  int cells() {
    return columns.length;
  }

  /** {@return the columns of the table that are looked at} */
  BitSet looked() {
    BitSet looked = new BitSet();
    for (int column : columns) {
      if (column >= 0) {
        looked.set(column);
      }
    }
    return looked;
  }

  /** The first of the cells that hold every column of the table, for rules that need them. */
  int tableCells() {
    return switch (lookup.duplicates.rule()) {
      case FULLEST, IDENTICAL -> columns.length - lookup.reference.schema().size();
      default -> columns.length;
    };
  }

  int brought() {
    return brought.size();
  }

  int plain() {
    return plain;
  }

  List<Choices.Combined> aggregates() {
    List<Choices.Combined> aggregates = new ArrayList<>();
    for (int cell = 0; cell < brought.size(); cell++) {
      Aggregate aggregate = brought.get(cell).aggregate();
      if (aggregate != null) {
        ColumnType type = lookup.reference.type(brought.get(cell).source());
        aggregates.add(new Choices.Combined(aggregate, type, combinedCells[cell]));
      }
    }
    return aggregates;
  }

  /** The cell that a rule for duplicates looks at, or -1. */
  int duplicatesCell() {
    return duplicatesCell;
  }

  /** The cell that the rule for several looks at, or -1. */
  int newestCell() {
    return newestCell;
  }

  /**
   * The cells of a batch's rows.
   *
   * @param passing which rows the reference's condition lets pass; of the others nothing is asked
   */
  CellVector[] of(Batch batch, IntPredicate passing) {
    CellVector[] cells = new CellVector[columns.length];
    for (int cell = 0; cell < cells.length; cell++) {
      Aggregate aggregate = cell < brought.size() ? brought.get(cell).aggregate() : null;
      cells[cell] =
          aggregate == null
              ? batch.column(columns[cell])
              : single(batch, passing, columns[cell], aggregate, brought.get(cell));
    }
    return cells;
  }

  private CellVector single(
      Batch batch, IntPredicate passing, int column, Aggregate aggregate, Attribute attribute) {
    CellVector cells = new CellVector();
    cells.clear();
    ValueOrder needed = aggregate.needed(lookup.reference.type(attribute.source()));
    for (int row = 0; row < batch.rows(); row++) {
      if (!passing.test(row)) {
        cells.appendNull();
        continue;
      }
      @Nullable String value = column < 0 ? null : batch.column(column).get(row);
      if (needed != null && value != null && !needed.fits(value)) {
        throw new DataException(
            lookup.reference.name()
                + ", row "
                + batch.rowNumber(row)
                + ", column \""
                + attribute.source()
                + "\": \""
                + Veil.over(lookup.hides(attribute.source()), value)
                + "\" is not "
                + needed.noun()
                + ", which "
                + attribute
                + " needs; correct the row, or leave it out by a condition (where:)",
            lookup.reference.name(),
            batch.rowNumber(row),
            attribute.source());
      }
      cells.append(aggregate.ofOne(value, column < 0));
    }
    return cells;
  }
}
