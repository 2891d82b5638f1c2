package org.abletwine.match.index;

import java.io.Serializable;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.List;
import org.abletwine.table.text.Utf8;

/**
 * Finds every one of many literals in a text in one pass (Aho and Corasick, 1975), or those it
 * starts with. Cost: one step a byte, and one for each literal found, whatever their number.
 *
 * <p>Text and literals are UTF-8, in which no character is part of another. Bytes that no literal
 * has share one class; the transitions are a table of node times class when that stays below 64
 * million entries, which holds for tens of thousands of literals. Beyond that, building refuses.
 * Immutable; safe to share between threads.
 */
final class LiteralAutomaton implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final long MOST_ENTRIES = 1L << 26;

  private static final int BYTES = 1 << 8;

  private final int[] classOf = new int[BYTES];
  private final int classes;
  private int[] next;
  private int[] report;
  private int[] shorter;
  private final int[] literalNext;
  private int nodes = 1;

  /** Told about each literal found. */
  interface Hit {
    void found(int literal);
  }

  /**
   * @param literals the literals, none of them empty; the same one may stand several times
   * @param anywhere whether they are looked for anywhere in the text, or only at its start
   */
  LiteralAutomaton(List<String> literals, boolean anywhere) {
    byte[][] texts = literals.stream().map(Utf8::bytes).toArray(byte[][]::new);
    long bytes = 1;
    int distinct = 0;
    for (byte[] literal : texts) {
      bytes += literal.length;
      for (byte b : literal) {
        if (classOf[b & 0xFF] == 0) {
          classOf[b & 0xFF] = ++distinct;
        }
      }
    }
    classes = distinct + 1;
    if (bytes * classes > MOST_ENTRIES) {
      throw new IllegalStateException("the patterns are too many and too long for one lookup");
    }
    next = new int[(int) (bytes * classes)];
    report = new int[(int) bytes];
    Arrays.fill(report, -1);
    shorter = new int[(int) bytes];
    literalNext = new int[texts.length];
    for (int literal = texts.length - 1; literal >= 0; literal--) {
      insert(texts[literal], literal);
    }
    next = Arrays.copyOf(next, nodes * classes);
    report = Arrays.copyOf(report, nodes);
    shorter = Arrays.copyOf(shorter, nodes);
    if (anywhere) {
      link();
    }
  }

  private void insert(byte[] literal, int number) {
    int node = 0;
    for (byte b : literal) {
      int at = node * classes + classOf[b & 0xFF];
      if (next[at] == 0) {
        next[at] = nodes++;
      }
      node = next[at];
    }
    literalNext[number] = report[node];
    report[node] = number;
  }

  /** Completes the transitions, breadth first, and links each node to the next shorter report. */
  private void link() {
    int[] fail = new int[nodes];
    ArrayDeque<Integer> queue = new ArrayDeque<>();
    for (int c = 1; c < classes; c++) {
      if (next[c] != 0) {
        queue.add(next[c]);
      }
    }
    while (!queue.isEmpty()) {
      int node = queue.remove();
      int back = fail[node];
      shorter[node] = report[back] >= 0 ? back : shorter[back];
      for (int c = 1; c < classes; c++) {
        int child = next[node * classes + c];
        if (child == 0) {
          next[node * classes + c] = next[back * classes + c];
        } else {
          fail[child] = next[back * classes + c];
          queue.add(child);
        }
      }
    }
  }

  /** Reports every literal found anywhere; one may be reported several times. */
  void anywhere(byte[] text, int start, int end, Hit hit) {
    int node = 0;
    for (int i = start; i < end; i++) {
      node = next[node * classes + classOf[text[i] & 0xFF]];
      for (int at = report[node] >= 0 ? node : shorter[node]; at != 0; at = shorter[at]) {
        for (int literal = report[at]; literal >= 0; literal = literalNext[literal]) {
          hit.found(literal);
        }
      }
    }
  }

  /** Reports every literal the text starts with, the shortest first. */
  void atStart(byte[] text, int start, int end, Hit hit) {
    int node = 0;
    for (int i = start; i < end; i++) {
      int symbol = classOf[text[i] & 0xFF];
      node = symbol == 0 ? 0 : next[node * classes + symbol];
      if (node == 0) {
        return;
      }
      for (int literal = report[node]; literal >= 0; literal = literalNext[literal]) {
        hit.found(literal);
      }
    }
  }

  @Override
  public String toString() {
    return "LiteralAutomaton[" + nodes + " nodes, " + classes + " classes]";
  }
}
