package org.abletwine.table;

import java.util.Arrays;

/**
 * The text of a batch: characters, and for text that was read one byte beside each character, for a
 * writer to copy where all around it is plain ASCII. Reused; used by one thread at a time.
 */
final class BatchText {
  private static final int BLOCK_BITS = 5;
  private static final byte NO_CHARACTER = -1;

  /** The characters. */
  char[] characters;

  /** How many of them are taken. */
  int used;

  /** One byte for each of the first {@link #bytesHeld} characters. */
  byte[] bytes = new byte[0];

  private int bytesHeld;

  /** For each block of characters whether any is not ASCII. */
  private boolean[] notAscii = new boolean[1];

  private boolean allAscii = true;

  /**
   * @param room characters to begin with
   */
  BatchText(int room) {
    characters = new char[room];
  }

  void clear() {
    used = 0;
    Arrays.fill(notAscii, 0, (bytesHeld >>> BLOCK_BITS) + 1, false);
    allAscii = true;
    bytesHeld = 0;
  }

  /** Makes room for so many characters more. */
  char[] room(int more) {
    if (used + more > characters.length) {
      int length = characters.length + characters.length / 2;
      characters = Arrays.copyOf(characters, Math.max(used + more, length));
    }
    return characters;
  }

  /** Takes plain ASCII characters written after those used, and their bytes. */
  void tookAscii(byte[] from, int start, int count) {
    roomForBytes(count);
    System.arraycopy(from, start, bytes, used, count);
    used += count;
    bytesHeld = used;
  }

  /** Takes any characters written after those used. */
  void took(int count) {
    roomForBytes(count);
    int end = used + count;
    for (int i = used; i < end; i++) {
      char c = characters[i];
      if (c < 0x80) {
        bytes[i] = (byte) c;
      } else {
        bytes[i] = NO_CHARACTER;
        notAscii[i >>> BLOCK_BITS] = true;
        allAscii = false;
      }
    }
    used = end;
    bytesHeld = end;
  }

  /** Follows characters that were written anew among those taken. */
  void rewrote(int start, int end) {
    for (int i = start; i < Math.min(end, bytesHeld); i++) {
      char c = characters[i];
      bytes[i] = c < 0x80 ? (byte) c : NO_CHARACTER;
      if (c >= 0x80) {
        notAscii[i >>> BLOCK_BITS] = true;
        allAscii = false;
      }
    }
  }

  private void roomForBytes(int more) {
    if (used + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, characters.length);
      notAscii = Arrays.copyOf(notAscii, (characters.length >>> BLOCK_BITS) + 1);
    }
  }

  /** Whether the bytes of a slice are the slice: it was read, and all around it is ASCII. */
  boolean hasBytes(int start, int end) {
    if (end > bytesHeld) {
      return false;
    }
    if (allAscii) {
      return true;
    }
    int last = end >>> BLOCK_BITS;
    for (int block = start >>> BLOCK_BITS; block <= last; block++) {
      if (notAscii[block]) {
        return false;
      }
    }
    return true;
  }

  /** Appends a text and returns where it begins. */
  int append(String value) {
    int start = used;
    value.getChars(0, value.length(), room(value.length()), start);
    used += value.length();
    return start;
  }

  @Override
  public String toString() {
    return "BatchText[" + used + " characters]";
  }
}
