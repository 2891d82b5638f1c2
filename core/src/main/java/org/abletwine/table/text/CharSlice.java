package org.abletwine.table.text;

/** Characters of an array as a text, used again and again. Used by one thread. */
public final class CharSlice implements CharSequence {
  private char[] of = {};
  private int from;
  private int length;

  /** A text without characters. */
  public CharSlice() {}

  /**
   * Makes it show other characters.
   *
   * @param characters where they are; not copied
   * @param start the first of them, 0-based
   * @param count how many
   * @return this text
   */
  public CharSequence over(char[] characters, int start, int count) {
    of = characters;
    from = start;
    length = count;
    return this;
  }

  @Override
  public int length() {
    return length;
  }

  @Override
  public char charAt(int at) {
    return of[from + at];
  }

  @Override
  public CharSequence subSequence(int start, int end) {
    return new String(of, from + start, end - start);
  }

  @Override
  public String toString() {
    return new String(of, from, length);
  }
}
