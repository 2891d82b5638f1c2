package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.step.Exceptions;

/**
 * What one worker's steps have to tell about the rows of a piece, kept until it is the piece's
 * turn: then row by row, and for each row step by step, wherever the rows were cut.
 */
final class InRowOrder implements Exceptions {
  private final Exceptions listener;
  private final List<Found> found = new ArrayList<>();

  InRowOrder(Exceptions listener) {
    this.listener = listener;
  }

  @Override
  public void found(Found what) {
    found.add(what);
  }

  void tell() {
    found.sort(
        (one, other) -> Long.compare(one.row(), other.row())); // stable: steps stay in their order
    found.forEach(listener::found);
    found.clear();
  }
}
