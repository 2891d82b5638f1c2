package org.abletwine.key;

import org.abletwine.key.encode.Spaces;

/** Makes every run of spaces within a cell one plain space. */
final class CollapseSpaces extends CellStep {
  private static final long serialVersionUID = 1L;

  CollapseSpaces() {
    super("collapse-spaces");
  }

  @Override
  boolean concerns(byte[] text, int start, int end) {
    boolean before = false;
    for (int i = start; i < end; i++) {
      byte c = text[i];
      boolean space = c == ' ';
      if (space ? before : c < ' ' && Spaces.length(text, i, end) > 0) {
        return true;
      }
      before = space;
    }
    return false;
  }

  @Override
  CharSequence changed(String cell) {
    StringBuilder out = new StringBuilder(cell.length());
    boolean before = false;
    for (int i = 0; i < cell.length(); i++) {
      boolean space = Spaces.isSpace(cell.charAt(i));
      if (!space) {
        out.append(cell.charAt(i));
      } else if (!before) {
        out.append(' ');
      }
      before = space;
    }
    return out;
  }
}
