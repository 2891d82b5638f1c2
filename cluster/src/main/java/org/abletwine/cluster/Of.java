package org.abletwine.cluster;

import java.io.Serializable;

/**
 * A table that processes read together.
 *
 * @param round in which of the rounds it is a reference, 0-based; -1 for the transactions
 * @param number which of the references there, 0-based
 */
record Of(int round, int number) implements Serializable {
  static final Of TRANSACTIONS = new Of(-1, 0);

  boolean reference() {
    return round >= 0;
  }
}
