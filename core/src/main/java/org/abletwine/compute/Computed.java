package org.abletwine.compute;

import org.abletwine.table.Batch;

/**
 * The values an expression has computed for a batch, for expressions after it. They are its values
 * as long as the batch holds the same rows in the same order.
 */
public final class Computed {
  private final Node node;
  private Values values = new Values();
  private Batch batch = new Batch(0);
  private int version = -1;

  Computed(Node node) {
    this.node = node;
  }

  Kind kind() {
    return node.kind;
  }

  void of(Batch rows, Values of) {
    batch = rows;
    version = rows.version();
    values = of;
  }

  boolean isOf(Batch rows) {
    return rows == batch && rows.version() == version;
  }

  Values values() {
    return values;
  }
}
