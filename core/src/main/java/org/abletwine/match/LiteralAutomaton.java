package org.abletwine.match;

import java.io.Serializable;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.List;

/**
 * Finds every one of many literals in a text in one pass (Aho and Corasick, 1975), or those it
 * starts with. Cost: one step a character, and one for each literal found, whatever their number.
 *
 * <p>Characters that no literal has share one class; the transitions are a table of node times
 * class when that stays below 64 million entries, which holds for tens of thousands of literals.
 * Beyond that, building refuses. Immutable; safe to share between threads.
 */
final class LiteralAutomaton implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final long MOST_ENTRIES = 1L << 26;

  private final char[] classed;
  private final int[] classOf = new int[Character.MAX_VALUE + 1];
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
    long characters = 1;
    boolean[] used = new boolean[Character.MAX_VALUE + 1];
    int distinct = 0;
    for (String literal : literals) {
      characters += literal.length();
      for (int i = 0; i < literal.length(); i++) {
        distinct += used[literal.charAt(i)] ? 0 : 1;
        used[literal.charAt(i)] = true;
      }
    }
    classed = new char[distinct];
    int number = 0;
    for (int c = 0; c < used.length; c++) {
      if (used[c]) {
        classed[number] = (char) c;
        classOf[c] = ++number;
      }
    }
    classes = distinct + 1;
    if (characters * classes > MOST_ENTRIES) {
      throw new IllegalStateException("the patterns are too many and too long for one lookup");
    }
    next = new int[(int) (characters * classes)];
    report = new int[(int) characters];
    Arrays.fill(report, -1);
    shorter = new int[(int) characters];
    literalNext = new int[literals.size()];
    for (int literal = literals.size() - 1; literal >= 0; literal--) {
      insert(literals.get(literal), literal);
    }
    next = Arrays.copyOf(next, nodes * classes);
    report = Arrays.copyOf(report, nodes);
    shorter = Arrays.copyOf(shorter, nodes);
    if (anywhere) {
      link();
    }
  }

  private void insert(String literal, int number) {
    int node = 0;
    for (int i = 0; i < literal.length(); i++) {
      int at = node * classes + classOf[literal.charAt(i)];
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
  void anywhere(char[] text, int start, int end, Hit hit) {
    int node = 0;
    for (int i = start; i < end; i++) {
      node = next[node * classes + classOf[text[i]]];
      for (int at = report[node] >= 0 ? node : shorter[node]; at != 0; at = shorter[at]) {
        for (int literal = report[at]; literal >= 0; literal = literalNext[literal]) {
          hit.found(literal);
        }
      }
    }
  }

  /** Reports every literal the text starts with, the shortest first. */
  void atStart(char[] text, int start, int end, Hit hit) {
    int node = 0;
    for (int i = start; i < end; i++) {
      int symbol = classOf[text[i]];
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
