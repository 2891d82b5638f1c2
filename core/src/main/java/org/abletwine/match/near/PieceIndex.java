package org.abletwine.match.near;

/**
 * Which keys have which pieces: how many have each, and for the long ones which. Flat arrays, about
 * 100 bytes for a name, 300 for a code. Immutable once built; safe to share between threads.
 */
final class PieceIndex {
  private static final int LONGEST_LIST = 1 << 30;
  private static final int PARTS = 256;

  private final int keys;

  /** An open-addressing table of pieces; zero where there is none. */
  private final long[] table;

  private final int[] counts;

  /** Where the list of a piece begins, and one more; lists of keys stand in {@link #lists}. */
  private final int[] starts;

  private final int[] lists;

  /** The length of each key as a vector of its long pieces, in parts of {@link #PARTS}. */
  private final char[] lengths;

  /** Goes through the pieces of all keys, in order. */
  interface Source {
    /**
     * Takes the pieces of a key.
     *
     * @param codes whether those of a code are taken, else those of a text
     */
    void pieces(int key, boolean codes, TextPieces into);
  }

  /**
   * @param keys how many keys there are
   */
  PieceIndex(int keys, Source source) {
    this.keys = keys;
    TextPieces pieces = new TextPieces();
    Growing growing = new Growing();
    for (int kind = 0; kind < 2; kind++) {
      for (int key = 0; key < keys; key++) {
        source.pieces(key, kind == 1, pieces);
        for (int i = 0; i < pieces.count(); i++) {
          growing.count(pieces.piece(i));
        }
      }
    }
    table = growing.table;
    counts = growing.counts;
    starts = new int[table.length + 1];
    for (int at = 0; at < table.length; at++) {
      long next = starts[at];
      next += TextPieces.isLong(table[at]) ? counts[at] : 0;
      if (next > LONGEST_LIST) {
        throw new OutOfMemoryError("too many keys to look for near misses");
      }
      starts[at + 1] = (int) next;
    }
    lists = new int[starts[table.length]];
    lengths = new char[keys];
    int[] filled = new int[table.length];
    for (int kind = 0; kind < 2; kind++) {
      for (int key = 0; key < keys; key++) {
        source.pieces(key, kind == 1, pieces);
        double sum = 0;
        for (int i = 0; i < pieces.count(); i++) {
          int at = at(pieces.piece(i));
          if (TextPieces.isLong(pieces.piece(i))) {
            lists[starts[at] + filled[at]++] = key;
            sum += square(rarity(at));
          }
        }
        if (kind == 0) {
          lengths[key] = (char) Math.min(Character.MAX_VALUE, PARTS * Math.sqrt(sum));
        }
      }
    }
  }

  /** A table that grows while pieces are counted. */
  private static final class Growing {
    private long[] table = new long[1 << 12];
    private int[] counts = new int[1 << 12];
    private int used;

    void count(long piece) {
      int at = find(table, piece);
      if (table[at] == 0) {
        table[at] = piece;
        if (++used > table.length / 2) {
          counts[at]++;
          grow();
          return;
        }
      }
      counts[at]++;
    }

    private void grow() {
      long[] before = table;
      int[] countsBefore = counts;
      table = new long[2 * before.length];
      counts = new int[table.length];
      for (int i = 0; i < before.length; i++) {
        if (before[i] != 0) {
          int at = find(table, before[i]);
          table[at] = before[i];
          counts[at] = countsBefore[i];
        }
      }
    }
  }

  private static int find(long[] table, long piece) {
    int mask = table.length - 1;
    int at = (int) (piece >>> 20) & mask;
    while (table[at] != 0 && table[at] != piece) {
      at = at + 1 & mask;
    }
    return at;
  }

  /** Where a piece stands; a free place when no key has it. */
  int at(long piece) {
    return find(table, piece);
  }

  /** How many keys have the piece at a place. */
  int count(int at) {
    return counts[at];
  }

  /** Where the keys that have it begin in {@link #key}. */
  int start(int at) {
    return starts[at];
  }

  int end(int at) {
    return starts[at + 1];
  }

  int key(int at) {
    return lists[at];
  }

  float length(int key) {
    return (float) lengths[key] / PARTS;
  }

  /** How rare the piece at a place is: the logarithm of one in how many keys has it, and one. */
  double rarity(int at) {
    return Math.log((1.0 + keys) / (1.0 + counts[at])) + 1;
  }

  private static double square(double value) {
    return value * value;
  }

  /** Returns the memory it takes, in bytes. */
  long bytes() {
    return 8L * table.length
        + 4L * (counts.length + starts.length + lists.length)
        + 2L * lengths.length;
  }
}
