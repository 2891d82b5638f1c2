package org.abletwine.audit;

/** What a value is counted as, in one number, so that it need not be looked at again. */
final class Traits {
  private static final int KIND_BITS = 3;
  private static final ValueKinds.Kind[] KINDS = ValueKinds.Kind.values();

  private Traits() {}

  /**
   * @param stray whether it has a space at either end
   * @param kind what it is by itself
   * @param word which word for null it is; -1 for none
   */
  static int of(boolean stray, ValueKinds.Kind kind, int word) {
    return (word + 1 << KIND_BITS | kind.ordinal()) << 1 | (stray ? 1 : 0);
  }

  static boolean stray(int traits) {
    return (traits & 1) != 0;
  }

  static ValueKinds.Kind kind(int traits) {
    return KINDS[traits >> 1 & (1 << KIND_BITS) - 1];
  }

  static int word(int traits) {
    return (traits >> 1 + KIND_BITS) - 1;
  }
}
