package org.abletwine.index;

/** Small non-negative numbers in one to five bytes, seven bits a byte, low bits first. */
final class Varint {
  private Varint() {}

  static int size(int value) {
    int size = 1;
    for (int rest = value >>> 7; rest != 0; rest >>>= 7) {
      size++;
    }
    return size;
  }

  static int write(byte[] bytes, int to, int value) {
    int at = to;
    int rest = value;
    while (rest >>> 7 != 0) {
      bytes[at++] = (byte) (rest | 0x80);
      rest >>>= 7;
    }
    bytes[at++] = (byte) rest;
    return at;
  }

  static int read(byte[] bytes, int from) {
    int b = bytes[from];
    if (b >= 0) {
      return b;
    }
    int value = b & 0x7F;
    int at = from + 1;
    for (int shift = 7; ; shift += 7) {
      b = bytes[at++];
      value |= (b & 0x7F) << shift;
      if (b >= 0) {
        return value;
      }
    }
  }
}
