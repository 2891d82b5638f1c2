package org.abletwine.enrich;

import java.io.DataOutput;
import java.util.List;
import org.abletwine.step.Exceptions;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * What one of several processes hands on to the one that puts all together: each row that needs
 * attention, in their order, and then what was counted. What needs attention in a reference is left
 * to that one. Used by one thread at a time.
 */
final class HandedOn implements Exceptions {
  private static final Found NOTHING = new Found("", "", "", 0, "", "", null, List.of());

  private final Carrier carrier;
  private boolean rows;

  HandedOn(DataOutput into) {
    carrier = Carrier.to(into);
  }

  /** The steps are prepared: what is found from here on is about rows. */
  void rowsBegin() {
    rows = true;
  }

  @Override
  public void found(Found found) {
    if (rows) {
      carrier.flag(true);
      carried(found, carrier);
    }
  }

  /** All rows have been taken. */
  void end(Counted counted) {
    carrier.flag(false);
    counted.carried(carrier);
  }

  /** {@return the next that needs attention; null when there are no more} */
  static @Nullable Found next(Carrier from) {
    return from.flag(false) ? carried(NOTHING, from) : null;
  }

  private static Found carried(Found found, Carrier carrier) {
    return new Found(
        carrier.words(found.step()),
        carrier.words(found.kind()),
        carrier.words(found.table()),
        carrier.number(found.row()),
        carrier.words(found.key()),
        carrier.words(found.detail()),
        carrier.text(found.measure()),
        carrier.texts(found.carried()));
  }
}
