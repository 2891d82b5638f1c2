package org.abletwine.table.output;

/** Bytes that were put one behind the other, in memory or in a file, and may be read by many. */
public interface StoredBytes {

  /** Returns how many bytes there are. */
  long size();

  /**
   * Reads bytes.
   *
   * @param at the place of the first, 0-based
   * @param into where they go
   * @param from the place of the first there, 0-based
   * @return how many there were, at most as many as there is room for; 0 at the end
   * @throws org.abletwine.table.DataException when they cannot be read
   */
  int read(long at, byte[] into, int from);

  /**
   * Puts bytes behind those there are. By one thread at a time.
   *
   * @param bytes from here
   * @param length so many, from the first on
   * @throws org.abletwine.table.DataException when they cannot be kept, a full disk included
   */
  void append(byte[] bytes, int length);
}
