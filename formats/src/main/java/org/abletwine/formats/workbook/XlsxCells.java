package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.List;

/** The rows of a sheet of an {@code .xlsx} file. */
final class XlsxCells implements SheetCells {
  /** Merged cells that are noted; they matter near the head only. */
  private static final int MOST_MERGED = 1000;

  private final Xml xml;
  private final CellForm[] forms;
  private final SharedTexts texts;
  private final boolean from1904;
  private final Archive archive;
  private final List<CellArea> merged = new ArrayList<>();
  private int row = -1;
  private int column;
  private boolean inRows;
  private boolean ended;

  XlsxCells(Xml xml, CellForm[] forms, SharedTexts texts, boolean from1904, Archive archive) {
    this.xml = xml;
    this.forms = forms;
    this.texts = texts;
    this.from1904 = from1904;
    this.archive = archive;
  }

  @Override
  public boolean next(SheetRow into) {
    while (!ended) {
      if (!xml.next()) {
        ended = true;
      } else if (inRows && xml.starts("row")) {
        row(into);
        return true;
      } else if (xml.starts("sheetData") || xml.ends("sheetData")) {
        inRows = xml.start();
      } else if (xml.starts("mergeCell") && merged.size() < MOST_MERGED) {
        String ref = xml.attribute("ref");
        CellArea area = ref == null ? null : CellArea.parse(ref);
        if (area != null) {
          merged.add(area);
        }
      }
    }
    return false;
  }

  private void row(SheetRow into) {
    int number = xml.number("r", row + 2) - 1;
    if (number <= row || number >= CellArea.MOST_ROWS) {
      throw archive.damaged("row " + (number + 1) + " comes after row " + (row + 1), null);
    }
    row = number;
    column = -1;
    into.begin(row);
    String hidden = xml.attribute("hidden");
    if ("1".equals(hidden) || "true".equals(hidden)) {
      into.hide();
    }
    while (true) {
      xml.require(xml.next());
      if (xml.starts("c")) {
        cell(into);
      } else if (xml.ends("row")) {
        return;
      }
    }
  }

  private void cell(SheetRow into) {
    String type = "n";
    int form = 0;
    int at = column + 1;
    int attributes = xml.attributes();
    for (int i = 0; i < attributes; i++) {
      switch (xml.attributeName(i)) {
        case "r" -> at = column(xml.attributeValue(i));
        case "s" -> form = xml.number(xml.attributeValue(i));
        case "t" -> type = xml.attributeValue(i);
        default -> {
          // nothing of the value
        }
      }
    }
    if (at <= column || at >= CellArea.MOST_COLUMNS) {
      throw archive.damaged(
          "cell " + CellArea.name(row, at) + " comes after column " + CellArea.letters(column),
          null);
    }
    column = at;
    into.cell(at);
    boolean any = value(into);
    if (!any) {
      into.noCell();
      return;
    }
    if (forms.length > 0 && form >= forms.length) {
      throw archive.damaged(
          "cell " + CellArea.name(row, at) + " has a format that there is not", null);
    }
    end(into, type, form < forms.length ? forms[form] : CellForm.NUMBER);
  }

  private static int column(String name) {
    int column = 0;
    for (int i = 0; i < name.length() && i < 4; i++) {
      char c = name.charAt(i);
      if (c >= '0' && c <= '9') {
        break;
      }
      column = column * 26 + (c & 0x5F) - 'A' + 1;
    }
    return column - 1;
  }

  /** Takes the value in; returns whether there is one. */
  private boolean value(SheetRow into) {
    boolean any = false;
    while (true) {
      xml.require(xml.next());
      if (xml.ends("c")) {
        return any;
      }
      if (xml.starts("v")) {
        any = true;
        plain(into);
      } else if (xml.starts("is")) {
        any = true;
        SharedTexts.read(xml, into, "is");
      } else if (xml.start()) {
        xml.skip(); // the formula, and what later editions add
      }
    }
  }

  private void plain(SheetRow into) {
    while (true) {
      xml.require(xml.next());
      if (xml.text()) {
        xml.appendTo(into);
      } else if (xml.ends("v")) {
        return;
      }
    }
  }

  private void end(SheetRow into, String type, CellForm form) {
    switch (type) {
      case "s" -> shared(into);
      case "inlineStr", "str" -> {
        Escapes.decode(into);
        into.endCell(SheetRow.TEXT);
      }
      case "b" -> truth(into);
      case "e" -> into.endCell(SheetRow.ERROR);
      case "d" -> day(into, form);
      default -> {
        if (into.cellEnd() == into.cellStart()) {
          into.noCell();
        } else if (form == CellForm.NUMBER) {
          CellNumbers.endNumber(into);
        } else if (form == CellForm.TRUTH) {
          CellNumbers.endTruth(into);
        } else {
          CellNumbers.endTime(into, form, from1904);
        }
      }
    }
  }

  private void shared(SheetRow into) {
    int start = into.cellStart();
    int end = into.cellEnd();
    if (start == end) {
      into.noCell();
      return;
    }
    int text = 0;
    for (int i = start; i < end && text >= 0; i++) {
      int digit = into.text()[i] - '0';
      text = digit < 0 || digit > 9 || text > texts.count() ? -1 : text * 10 + digit;
    }
    if (text < 0 || text >= texts.count()) {
      throw archive.damaged(
          "cell " + CellArea.name(row, column) + " names a shared text that there is not", null);
    }
    into.noCell();
    texts.append(text, into);
    into.endCell(SheetRow.TEXT);
  }

  private static void truth(SheetRow into) {
    boolean one = into.cellEnd() > into.cellStart();
    byte first = one ? into.text()[into.cellStart()] : 0;
    into.endCell(SheetRow.TRUTH, first == '1' || first == 't' ? "true" : "false");
  }

  /** A day that is written as ISO 8601 in the file itself. */
  private static void day(SheetRow into, CellForm form) {
    into.endCell(SheetRow.TIME);
    String text = into.string(into.count() - 1);
    String cut = form == CellForm.DAY ? text.replaceFirst("T00:00:00(\\.0+)?Z?$", "") : text;
    if (!cut.equals(text)) {
      into.shorten(cut.length());
    }
  }

  @Override
  public List<CellArea> merged(int inRow) {
    return merged.stream()
        .filter(area -> area.firstRow() <= inRow && inRow <= area.lastRow())
        .filter(area -> area.lastColumn() > area.firstColumn())
        .toList();
  }

  @Override
  public void close() {
    xml.close();
  }
}
