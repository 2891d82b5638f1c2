package org.abletwine.lookup;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Objects;
import org.abletwine.step.Exceptions;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.output.StoredBytes;
import org.abletwine.table.spill.RowBytes;
import org.jspecify.annotations.Nullable;

/** Asks one part of a large reference, and writes down the answers. Belongs to one thread. */
final class Answerer implements Workers.Worker {
  private final LookupWorker lookup;
  private final Teller teller;
  private final int turnColumn;
  private final int attributes;
  private final StoredBytes file;
  private final Deque<Exceptions.Found> told = new ArrayDeque<>();
  private final RowBytes answer = new RowBytes();
  private final RowBytes gathered = new RowBytes();

  /**
   * @param turnColumn the column that holds a row's turn among those of its number
   * @param file takes the answers, in order
   */
  Answerer(PreparedLookup.Shared shared, int turnColumn, StoredBytes file) {
    lookup = new LookupWorker(shared, told::add);
    teller = new Teller(shared, Exceptions.NONE);
    attributes = shared.lookup().bring.size();
    this.turnColumn = turnColumn;
    this.file = file;
  }

  @Override
  public void work(Batch batch) {
    told.clear();
    lookup.apply(batch);
    Settled settled = lookup.settled();
    CellVector turns = batch.column(turnColumn);
    CellVector[] cells = new CellVector[attributes];
    for (int a = 0; a < attributes; a++) {
      cells[a] = batch.column(batch.baseColumns() + a).asText(new CellVector());
    }
    int rows = batch.rows();
    for (int row = 0; row < rows; ) {
      long number = batch.rowNumber(row);
      String turn = turns.get(row);
      int end = row + 1;
      while (end < rows && batch.rowNumber(end) == number && Objects.equals(turn, turns.get(end))) {
        end++;
      }
      answer.clear();
      answer.number(settled.outcome[row]);
      answer.number(settled.source[row]);
      answer.text(detail(settled.outcome[row]));
      answer.number(end - row);
      for (; row < end; row++) {
        for (CellVector cell : cells) {
          answer.cell(cell, row);
        }
      }
      gathered.number(number);
      gathered.number(turn == null ? 0 : Long.parseLong(turn));
      gathered.cell(answer.bytes(), 0, answer.used());
    }
  }

  /**
   * What there is to say of a row, beside its key: those that are told of are so in their order.
   */
  private @Nullable String detail(byte outcome) {
    String detail = teller.tells(outcome) ? told.remove().detail() : "";
    return detail.isEmpty() ? null : detail;
  }

  @Override
  public boolean inOrder() {
    file.append(gathered.bytes(), gathered.used());
    gathered.clear();
    return true;
  }

  LookupWorker lookup() {
    return lookup;
  }
}
