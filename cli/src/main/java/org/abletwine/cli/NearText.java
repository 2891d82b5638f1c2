package org.abletwine.cli;

import java.util.List;
import org.abletwine.match.NearMiss;

/** A near miss in words. Stateless. */
final class NearText {
  private NearText() {}

  /** The key, how alike it is, and whether it stands out or is hardly near. */
  static String of(NearMiss miss) {
    return miss.key() + " " + miss.judged();
  }

  /** Those that a person needs: beside one that stands out, none that is hardly near. */
  static List<NearMiss> worthTelling(List<NearMiss> near) {
    boolean clear = !near.isEmpty() && near.get(0).clear();
    return near.stream().filter(miss -> !clear || !miss.weak()).toList();
  }
}
