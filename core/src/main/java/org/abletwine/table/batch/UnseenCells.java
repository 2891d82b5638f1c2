package org.abletwine.table.batch;

/** Notes the cells of a row of which only the first were noted, when they are asked for. */
public interface UnseenCells {
  /**
   * Notes the cells of a stretch of text, as slices of it.
   *
   * @param text where they are; may be changed within the stretch
   * @param start where the first one begins, 0-based
   * @param end where the last one ends, exclusive
   * @param starts takes where each cell begins, without its quotes
   * @param ends takes where each cell ends, without its quotes, exclusive
   * @param marks takes how each cell is marked, as in {@link Batch#addSlice}
   * @param cell the place of the first one in these
   * @return the marks, or-ed together
   */
  int note(byte[] text, int start, int end, int[] starts, int[] ends, byte[] marks, int cell);
}
