package org.abletwine.formats.workbook;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The texts that the cells of an {@code .xlsx} file share, each held once, as bytes. How a text is
 * pronounced, which stands beside it in some files, is no part of it. Not changed once made; safe
 * to share.
 */
final class SharedTexts {
  /** Text {@code i} is {@code bytes[ends[i] .. ends[i + 1])}. */
  private int[] ends = new int[1 << 8];

  private byte[] bytes = new byte[1 << 12];
  private int count;

  /**
   * @param part where they are; null when there are none
   */
  SharedTexts(Archive archive, @Nullable String part) {
    if (part == null) {
      return;
    }
    SheetRow text = new SheetRow();
    try (Xml xml = new Xml(archive, part)) {
      while (xml.next()) {
        if (xml.starts("si")) {
          text.begin(0);
          text.cell(0);
          read(xml, text, "si");
          Escapes.decode(text);
          text.endCell(SheetRow.TEXT);
          add(text.text(), text.end(0));
        }
      }
    }
  }

  private void add(byte[] text, int length) {
    if (count + 2 > ends.length) {
      ends = Arrays.copyOf(ends, 2 * ends.length);
    }
    int from = ends[count];
    if (from + length > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(from + length, bytes.length + (bytes.length >> 1)));
    }
    System.arraycopy(text, 0, bytes, from, length);
    ends[++count] = from + length;
  }

  /** Adds the text of a rich or plain text, whose element has just begun, up to its end. */
  static void read(Xml xml, SheetRow into, String element) {
    boolean text = false;
    while (true) {
      xml.require(xml.next());
      if (xml.text()) {
        if (text) {
          xml.appendTo(into);
        }
      } else if (xml.starts("rPh")) {
        xml.skip();
      } else if (xml.ends(element)) {
        return;
      } else {
        text = xml.starts("t");
      }
    }
  }

  int count() {
    return count;
  }

  /** Appends a text to a cell. */
  void append(int text, SheetRow into) {
    into.append(bytes, ends[text], ends[text + 1]);
  }
}
