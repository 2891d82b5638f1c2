package org.abletwine.report.chart;

import java.awt.Shape;
import java.awt.geom.PathIterator;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.abletwine.table.text.DecimalText;

/**
 * Writes the outline of a shape as path data (W3C, Scalable Vector Graphics 1.1, 8.3): hundredths,
 * each point from the one before, so that no error adds up and few characters are needed. Letters
 * are drawn as outlines, which make up most of a picture. Used by one thread.
 */
final class PathData {
  private static final int PARTS = 100;
  private static final byte[] COMMANDS = {'m', 'l', 'q', 'c', 'z'};
  private static final int[] POINTS = {1, 1, 2, 3, 0};

  /** Characters that one segment takes at most. */
  private static final int MOST = 1 + 6 * (1 + DecimalText.MOST_BYTES);

  private byte[] text = new byte[1 << 12];
  private int used;

  // In hundredths, as they were written.
  private long x;
  private long y;
  private long startX;
  private long startY;

  private PathData() {}

  /** Returns the outline; empty when there is none. */
  static String of(Shape shape) {
    PathData data = new PathData();
    double[] points = new double[6];
    for (PathIterator at = shape.getPathIterator(null); !at.isDone(); at.next()) {
      data.add(at.currentSegment(points), points);
    }
    return new String(data.text, 0, data.used, StandardCharsets.US_ASCII);
  }

  /** The kinds of segments are numbered as the commands are. */
  private void add(int kind, double[] points) {
    if (used + MOST > text.length) {
      text = Arrays.copyOf(text, 2 * text.length);
    }
    text[used++] = COMMANDS[kind];
    long fromX = x;
    long fromY = y;
    for (int point = 0; point < POINTS[kind]; point++) {
      x = Math.round(points[2 * point] * PARTS);
      y = Math.round(points[2 * point + 1] * PARTS);
      number(x - fromX, point > 0);
      number(y - fromY, true);
    }
    if (kind == PathIterator.SEG_MOVETO) {
      startX = x;
      startY = y;
    } else if (kind == PathIterator.SEG_CLOSE) {
      x = startX;
      y = startY;
    }
  }

  private void number(long hundredths, boolean apart) {
    if (apart && hundredths >= 0) {
      text[used++] = ' ';
    }
    int places = hundredths % 100 == 0 ? 0 : hundredths % 10 == 0 ? 1 : 2;
    int start = hundredths < 0 ? used + 1 : used;
    used = DecimalText.write(DecimalText.shorter(hundredths, 2 - places), places, text, used);
    if (places > 0 && text[start] == '0') { // a point needs no zero before it
      used--;
      System.arraycopy(text, start + 1, text, start, used - start);
    }
  }
}
