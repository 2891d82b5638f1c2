package org.abletwine.audit;

/**
 * Counts distinct 64-bit hashes: exactly up to a limit, then estimated.
 *
 * <p>The estimate is HyperLogLog (Flajolet, Fusy, Gandouet and Meunier, 2007) with 4096 registers
 * of one byte: standard error 1.04 / sqrt(4096) = 1.6 %. Used by one thread.
 */
final class HashCounter {
  /** Standard error of an estimate. */
  static final double ERROR = 1.04 / 64;

  private static final int REGISTER_BITS = 12;

  private static final int SLOTS = 64;

  private final int most;
  private long[] slots = new long[SLOTS];
  private int size;
  private final byte[] registers = new byte[1 << REGISTER_BITS];
  private boolean estimated;

  /**
   * @param limit up to how many are counted exactly, rounded up to what half of the slots hold
   */
  HashCounter(int limit) {
    int half = SLOTS / 2;
    while (half < limit) {
      half *= 2;
    }
    this.most = half;
  }

  /** Adds a hash; returns whether it was new, as far as that is known. */
  boolean add(long hash) {
    long value = hash == 0 ? 1 : hash;
    int register = (int) (value >>> 64 - REGISTER_BITS);
    int rank = Long.numberOfLeadingZeros(value << REGISTER_BITS | 1L << REGISTER_BITS - 1) + 1;
    if (rank > registers[register]) {
      registers[register] = (byte) rank;
    }
    if (estimated) {
      return false;
    }
    int mask = slots.length - 1;
    int slot = (int) value & mask;
    while (slots[slot] != 0) {
      if (slots[slot] == value) {
        return false;
      }
      slot = slot + 1 & mask;
    }
    slots[slot] = value;
    if (++size > most) {
      estimate();
    } else if (size * 2 > slots.length) {
      grow();
    }
    return true;
  }

  private void grow() {
    long[] old = slots;
    slots = new long[old.length * 2];
    int mask = slots.length - 1;
    for (long value : old) {
      if (value != 0) {
        int slot = (int) value & mask;
        while (slots[slot] != 0) {
          slot = slot + 1 & mask;
        }
        slots[slot] = value;
      }
    }
  }

  /**
   * Adds all that another one has counted. Its slots are in the order of those here, so there is
   * room for all beforehand: else the first slots would be crowded while the others are free.
   *
   * @return whether none of it was here, as far as that is known
   */
  boolean merge(HashCounter other) {
    for (int register = 0; register < registers.length; register++) {
      registers[register] = (byte) Math.max(registers[register], other.registers[register]);
    }
    if (other.estimated) {
      estimate();
    }
    while (!estimated && slots.length < 2 * Math.min(size + other.size, most)) {
      grow();
    }
    boolean allNew = !estimated;
    for (long value : other.slots) {
      if (value != 0) {
        allNew &= add(value);
      }
    }
    return allNew;
  }

  /** Counts no longer exactly, and lets go of the memory that took. */
  void estimate() {
    estimated = true;
    slots = new long[0];
  }

  boolean exact() {
    return !estimated;
  }

  long count() {
    if (!estimated) {
      return size;
    }
    double sum = 0;
    for (byte register : registers) {
      sum += Math.pow(2, -register);
    }
    int m = registers.length;
    return Math.round(0.7213 / (1 + 1.079 / m) * m * m / sum);
  }

  /** The hash of a cell with all its bits mixed: the low ones count too. */
  static long mixed(long hash) {
    long h = (hash ^ hash >>> 32) * 0xBF58476D1CE4E5B9L;
    return h ^ h >>> 32;
  }

  @Override
  public String toString() {
    return "HashCounter[" + count() + (estimated ? " estimated]" : "]");
  }
}
