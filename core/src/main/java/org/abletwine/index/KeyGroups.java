package org.abletwine.index;

import java.io.Serializable;
import java.util.Arrays;
import java.util.function.IntUnaryOperator;

/**
 * The rows of each key that stands on more than one row. Memory follows the number of such rows
 * only. Groups and rows are numbered from 0; a group's rows are in file order.
 *
 * <p>Each row after a group's first has a link entry, (row, entry before it); a group holds its
 * first row and its latest entry.
 */
public final class KeyGroups implements RowSets, Serializable {
  private static final long serialVersionUID = 1L;
  private static final int NONE = -1;

  private int[] first = new int[16];
  private int[] latest = new int[16];
  private int[] sizes = new int[16];
  private int count;
  private int[] linkRow = new int[16];
  private int[] linkBefore = new int[16];
  private int links;

  int open(int firstRow, int secondRow) {
    if (count == first.length) {
      first = Arrays.copyOf(first, count * 2);
      latest = Arrays.copyOf(latest, count * 2);
      sizes = Arrays.copyOf(sizes, count * 2);
    }
    first[count] = firstRow;
    latest[count] = link(secondRow, NONE);
    sizes[count] = 2;
    return count++;
  }

  void join(int group, int row) {
    latest[group] = link(row, latest[group]);
    sizes[group]++;
  }

  private int link(int row, int before) {
    if (links == linkRow.length) {
      linkRow = Arrays.copyOf(linkRow, links * 2);
      linkBefore = Arrays.copyOf(linkBefore, links * 2);
    }
    linkRow[links] = row;
    linkBefore[links] = before;
    return links++;
  }

  @Override
  public int count() {
    return count;
  }

  @Override
  public int size(int group) {
    return sizes[group];
  }

  /**
   * @param group a group
   * @return its first row in file order
   */
  public int firstRow(int group) {
    return first[group];
  }

  /**
   * @param group a group
   * @return its last row in file order
   */
  public int lastRow(int group) {
    return linkRow[latest[group]];
  }

  @Override
  public int[] rows(int group) {
    int[] rows = new int[sizes[group]];
    int at = rows.length;
    for (int link = latest[group]; link != NONE; link = linkBefore[link]) {
      rows[--at] = linkRow[link];
    }
    rows[0] = first[group];
    return rows;
  }

  /**
   * The same groups in another order: rows within a group, and groups by their first row.
   *
   * @param numbers for each row what to order it by
   * @return the groups, those and their rows numbered as here
   */
  public KeyGroups inOrder(IntUnaryOperator numbers) {
    int[][] all = new int[count][];
    for (int group = 0; group < count; group++) {
      int[] rows = rows(group);
      sort(rows, numbers);
      all[group] = rows;
    }
    KeyGroups ordered = new KeyGroups();
    int[] order =
        GroupOrder.sorted(count, group -> numbers.applyAsInt(all[group][0]), (one, other) -> 0);
    for (int group : order) {
      int[] rows = all[group];
      int opened = ordered.open(rows[0], rows[1]);
      for (int i = 2; i < rows.length; i++) {
        ordered.join(opened, rows[i]);
      }
    }
    return ordered;
  }

  /** Most groups have two or three rows, nearly in order: sorted by insertion. */
  private static void sort(int[] rows, IntUnaryOperator numbers) {
    for (int i = 1; i < rows.length; i++) {
      int row = rows[i];
      int number = numbers.applyAsInt(row);
      int at = i;
      while (at > 0 && numbers.applyAsInt(rows[at - 1]) > number) {
        rows[at] = rows[at - 1];
        at--;
      }
      rows[at] = row;
    }
  }

  long bytes() {
    return 4L * (first.length + latest.length + sizes.length + 2L * linkRow.length);
  }

  @Override
  public String toString() {
    return "KeyGroups[" + count + "]";
  }
}
