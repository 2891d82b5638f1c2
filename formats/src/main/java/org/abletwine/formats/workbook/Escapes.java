package org.abletwine.formats.workbook;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.table.text.Utf8;

/**
 * Characters that XML cannot hold: an {@code .xlsx} file writes them as {@code _x0007_} (ECMA-376
 * part 1, 22.9.2.19), and therefore an underline that begins such a word as {@code _x005F_}.
 */
final class Escapes {
  private static final Pattern ESCAPE = Pattern.compile("_x([0-9A-Fa-f]{4})_");

  private Escapes() {}

  /** Puts characters in place of what stands for them, in the cell that is being filled. */
  static void decode(SheetRow row) {
    if (!any(row.text(), row.cellStart(), row.cellEnd())) {
      return;
    }
    String text = Utf8.text(row.text(), row.cellStart(), row.cellEnd());
    Matcher found = ESCAPE.matcher(text);
    StringBuilder plain = new StringBuilder();
    while (found.find()) {
      char c = (char) Integer.parseInt(found.group(1), 16);
      found.appendReplacement(
          plain,
          Matcher.quoteReplacement(Character.isSurrogate(c) ? found.group() : String.valueOf(c)));
    }
    found.appendTail(plain);
    row.noCell();
    row.append(plain);
  }

  private static boolean any(byte[] text, int start, int end) {
    for (int i = start; i < end - 6; i++) {
      if (text[i] == '_' && text[i + 1] == 'x' && text[i + 6] == '_') {
        return true;
      }
    }
    return false;
  }

  /** How a character that XML cannot hold, or an underline, is written. */
  static String of(int character) {
    return String.format(Locale.ROOT, "_x%04X_", character);
  }

  /** Whether an underline would be taken for the beginning of an escape. */
  static boolean begins(byte[] text, int at, int end) {
    if (at + 7 > end || text[at + 1] != 'x' || text[at + 6] != '_') {
      return false;
    }
    for (int i = at + 2; i < at + 6; i++) {
      if (Character.digit(text[i], 16) < 0) {
        return false;
      }
    }
    return true;
  }
}
