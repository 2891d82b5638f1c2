package org.abletwine.report.chart;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.geom.Path2D;
import java.awt.geom.PathIterator;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Scanner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Outlines as path data, read again and held against the points they were made of. */
class PathDataTest {
  private static final Pattern PART = Pattern.compile("([mlqcz])([^mlqcz]*)");
  private static final Pattern NUMBER = Pattern.compile("-?(?:\\d+(?:\\.\\d+)?|\\.\\d+)");

  @Test
  void pointsFollowFromTheOneBefore() {
    Path2D path = new Path2D.Double();
    path.moveTo(1.5, -2);
    path.lineTo(1.5, -2.25);
    path.lineTo(1000, 0.004);
    path.quadTo(1000.1, 0, 999, 7.096);
    path.closePath();
    path.moveTo(0, 0);
    assertThat(PathData.of(path)).isEqualTo("m1.5-2l0-.25l998.5 2.25q.1 0-1 7.1zm-1.5 2");
    assertThat(PathData.of(new Path2D.Double())).isEmpty();
  }

  @Test
  void noErrorAddsUp() {
    for (int seed = 0; seed < 50; seed++) {
      Random random = new Random(seed);
      Path2D path = new Path2D.Double();
      path.moveTo(value(random), value(random));
      for (int segment = 0; segment < 200; segment++) {
        switch (random.nextInt(5)) {
          case 0 -> path.lineTo(value(random), value(random));
          case 1 -> path.quadTo(value(random), value(random), value(random), value(random));
          case 2 ->
              path.curveTo(
                  value(random),
                  value(random),
                  value(random),
                  value(random),
                  value(random),
                  value(random));
          case 3 -> path.closePath();
          default -> path.moveTo(value(random), value(random));
        }
      }
      List<Double> wanted = new ArrayList<>();
      StringBuilder kinds = new StringBuilder();
      double[] points = new double[6];
      for (PathIterator at = path.getPathIterator(null); !at.isDone(); at.next()) {
        int kind = at.currentSegment(points);
        kinds.append("mlqcz".charAt(kind));
        for (int i = 0; i < 2 * List.of(1, 1, 2, 3, 0).get(kind); i++) {
          wanted.add(points[i]);
        }
      }
      List<Double> read = new ArrayList<>();
      assertThat(read(PathData.of(path), read)).isEqualTo(kinds.toString());
      assertThat(read).hasSameSizeAs(wanted);
      for (int i = 0; i < read.size(); i++) {
        assertThat(read.get(i)).isCloseTo(wanted.get(i), within(0.00501));
      }
    }
  }

  private static double value(Random random) {
    return switch (random.nextInt(4)) {
      case 0 -> random.nextInt(2000) - 1000;
      case 1 -> random.nextInt(20) / 10.0;
      case 2 -> random.nextDouble();
      default -> random.nextDouble() * 200_000 - 100_000;
    };
  }

  /** The points as they are meant, and the commands. */
  private static String read(String data, List<Double> points) {
    StringBuilder kinds = new StringBuilder();
    double x = 0;
    double y = 0;
    double startX = 0;
    double startY = 0;
    Matcher part = PART.matcher(data);
    while (part.find()) {
      kinds.append(part.group(1));
      List<Double> numbers;
      try (Scanner scanner = new Scanner(part.group(2))) {
        numbers = scanner.findAll(NUMBER).map(found -> Double.valueOf(found.group())).toList();
      }
      for (int i = 0; i < numbers.size(); i += 2) {
        points.add(x + numbers.get(i));
        points.add(y + numbers.get(i + 1));
      }
      if (!numbers.isEmpty()) {
        x += numbers.get(numbers.size() - 2);
        y += numbers.get(numbers.size() - 1);
      }
      if (part.group(1).equals("m")) {
        startX = x;
        startY = y;
      } else if (part.group(1).equals("z")) {
        x = startX;
        y = startY;
      }
    }
    return kinds.toString();
  }
}
