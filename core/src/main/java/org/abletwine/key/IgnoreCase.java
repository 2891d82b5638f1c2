package org.abletwine.key;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Objects;
import org.abletwine.table.batch.CellVector;

/**
 * Folds case. Beyond ASCII: compatibility composition (Unicode NFKC, so full-width and decomposed
 * letters become the usual ones), upper case, then lower case letter by letter, which takes {@code
 * ß} and {@code SS} to {@code ss} and the final sigma to the usual one. Turkish: dotless {@code ı}
 * and {@code I} both fold to {@code i}; dotted {@code İ} folds to {@code i} with a combining dot,
 * so it equals {@code i} only together with ignore-accents. The locale of the machine plays no
 * part.
 */
final class IgnoreCase extends NamedStep {
  private static final long serialVersionUID = 1L;

  IgnoreCase() {
    super("ignore-case");
  }

  @Override
  public void apply(CellVector cells, int rows) {
    boolean owned = false;
    for (int row = 0; row < rows; row++) {
      int start = cells.starts[row];
      int end = cells.ends[row];
      byte[] text = cells.text;
      for (int i = start; i < end; i++) {
        byte c = text[i];
        if (c >= 'A' && c <= 'Z' || c < 0) {
          if (!owned) {
            cells.takeOwnership();
            owned = true;
          }
          fold(cells, row, i - start);
          break;
        }
      }
    }
  }

  private static void fold(CellVector cells, int row, int from) {
    byte[] text = cells.text;
    int end = cells.ends[row];
    for (int i = cells.starts[row] + from; i < end; i++) {
      byte c = text[i];
      if (c < 0) {
        cells.replace(row, foldAll(Objects.requireNonNull(cells.get(row))));
        return;
      }
      if (c >= 'A' && c <= 'Z') {
        text[i] = (byte) (c | 0x20);
      }
    }
  }

  private static CharSequence foldAll(String cell) {
    String upper = Normalizer.normalize(cell, Normalizer.Form.NFKC).toUpperCase(Locale.ROOT);
    StringBuilder folded = new StringBuilder(upper.length());
    upper
        .codePoints()
        .forEach(
            c -> {
              if (c == 0x130) {
                folded.append("i\u0307"); // its one lower-case form of two characters
              } else {
                folded.appendCodePoint(Character.toLowerCase(c));
              }
            });
    return Normalizer.normalize(folded, Normalizer.Form.NFKC);
  }
}
