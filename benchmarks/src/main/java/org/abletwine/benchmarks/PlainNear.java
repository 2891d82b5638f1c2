package org.abletwine.benchmarks;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.abletwine.match.NearMiss;

/**
 * Near misses as a textbook has them, to be compared with: the folded text's words and its pieces
 * of two and three letters, each weighed by the logarithm of its rarity among the names, and the
 * cosine of the angle between two such vectors (Salton and Buckley, "Term-weighting approaches in
 * automatic text retrieval", 1988). Nothing is ever clear.
 */
final class PlainNear {
  private final List<String> names;
  private final Map<String, List<Integer>> namesWith = new HashMap<>();
  private final double[] lengths;

  PlainNear(List<String> names) {
    this.names = names;
    for (int name = 0; name < names.size(); name++) {
      for (String piece : pieces(names.get(name))) {
        namesWith.computeIfAbsent(piece, p -> new ArrayList<>()).add(name);
      }
    }
    lengths = new double[names.size()];
    namesWith.forEach(
        (piece, with) -> with.forEach(name -> lengths[name] += weight(piece) * weight(piece)));
  }

  private double weight(String piece) {
    List<Integer> with = namesWith.get(piece);
    return Math.log((names.size() + 1.0) / ((with == null ? 0 : with.size()) + 1.0));
  }

  private static Set<String> pieces(String name) {
    String folded =
        Normalizer.normalize(name, Normalizer.Form.NFD)
            .replaceAll("\\p{M}", "")
            .toLowerCase(Locale.ROOT)
            .replaceAll("[^\\p{L}\\p{N}]+", " ")
            .strip();
    Set<String> pieces = new HashSet<>();
    for (String word : folded.split(" ")) {
      pieces.add("=" + word);
      String framed = " " + word + " ";
      for (int size = 2; size <= 3; size++) {
        for (int at = 0; at + size <= framed.length(); at++) {
          pieces.add(framed.substring(at, at + size));
        }
      }
    }
    return pieces;
  }

  /** The nearest names, the nearest first. */
  List<NearMiss> nearest(String written, int most) {
    double[] products = new double[names.size()];
    for (String piece : pieces(written)) {
      double squared = weight(piece) * weight(piece);
      namesWith.getOrDefault(piece, List.of()).forEach(name -> products[name] += squared);
    }
    return IntStream.range(0, products.length)
        .boxed()
        .filter(name -> products[name] > 0)
        .sorted((a, b) -> Double.compare(cosine(products, b), cosine(products, a)))
        .limit(most)
        .map(name -> new NearMiss(names.get(name), 0, false, false))
        .toList();
  }

  private double cosine(double[] products, int name) {
    return products[name] / Math.sqrt(lengths[name]);
  }
}
