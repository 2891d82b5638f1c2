package org.abletwine.report.chart;

import java.awt.Color;
import java.util.Map;

/** The colours of a picture on a light and on a dark page; the style sheet has the same. */
enum Tones {
  LIGHT(
      new Color(0xFFFFFF),
      new Color(0x24302B),
      new Color(0xD5DDD8),
      Map.of(
          "unmatched", new Color(0xB3432B),
          "ambiguous", new Color(0xC98A1B),
          "blank key", new Color(0x6E7F9E),
          "not asked", new Color(0xA9B4AE),
          "total", new Color(0x2F6B57))),
  DARK(
      new Color(0x1B221F),
      new Color(0xE3EAE6),
      new Color(0x3A4640),
      Map.of(
          "unmatched", new Color(0xE0775C),
          "ambiguous", new Color(0xE3B04B),
          "blank key", new Color(0x93A5C9),
          "not asked", new Color(0x66726C),
          "total", new Color(0x63B698)));

  final Color page;
  final Color ink;
  final Color line;
  private final Map<String, Color> of;

  Tones(Color page, Color ink, Color line, Map<String, Color> of) {
    this.page = page;
    this.ink = ink;
    this.line = line;
    this.of = of;
  }

  Color of(String what) {
    return of.getOrDefault(what, ink);
  }

  /**
   * A picture for a dark page: that for a light one, each of its tones replaced. No two light tones
   * are alike, and none is a dark one, so that this is what drawing it again would give.
   *
   * @param light the picture in light tones, as SVG
   */
  static String darkened(String light) {
    StringBuilder text = new StringBuilder(light);
    replace(text, LIGHT.page, DARK.page);
    replace(text, LIGHT.ink, DARK.ink);
    replace(text, LIGHT.line, DARK.line);
    LIGHT.of.forEach((what, tone) -> replace(text, tone, DARK.of(what)));
    return text.toString();
  }

  private static void replace(StringBuilder text, Color tone, Color other) {
    String before = ":" + painted(tone) + ";";
    String after = ":" + painted(other) + ";";
    for (int at = text.indexOf(before); at >= 0; at = text.indexOf(before, at)) {
      text.replace(at, at + before.length(), after);
    }
  }

  /** As a picture states it. */
  private static String painted(Color tone) {
    return tone.equals(Color.WHITE)
        ? "white"
        : "rgb(" + tone.getRed() + "," + tone.getGreen() + "," + tone.getBlue() + ")";
  }
}
