package org.abletwine.formats.workbook;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.abletwine.table.text.NumberForm;

/**
 * Puts sheets together as an {@code .xlsx} file (ECMA-376 part 1): the header row stays in view,
 * and each sheet has its filter on.
 */
final class XlsxParts {
  /** Decimal places that numbers are shown with at most. */
  static final int MOST_PLACES = 15;

  /** The cell format of numbers without decimal places; those with more follow it. */
  static final int FIRST_PLACES = 6;

  /** The cell format of the first form of numbers that outputs state; others follow it. */
  static final int FIRST_FORM = FIRST_PLACES + MOST_PLACES + 1;

  private static final String XML =
      "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n";
  private static final String MAIN =
      "xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"";
  private static final String RELATIONS =
      "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  private static final String PACKAGE =
      "xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"";
  private static final String TYPE = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
  private static final int FIRST_OWN_FORMAT = 164;

  private XlsxParts() {}

  static void write(List<BookFile.SheetPart> sheets, List<NumberForm> forms, OutputStream into)
      throws IOException {
    try (Parts parts = new Parts(into)) {
      StringBuilder types = new StringBuilder();
      StringBuilder listed = new StringBuilder();
      StringBuilder links = new StringBuilder();
      StringBuilder filters = new StringBuilder();
      for (int i = 0; i < sheets.size(); i++) {
        int number = i + 1;
        BookFile.SheetPart sheet = sheets.get(i);
        types.append(type("/xl/worksheets/sheet" + number + ".xml", TYPE + "worksheet+xml"));
        listed.append(
            "<sheet name=\"%s\" sheetId=\"%d\" r:id=\"rId%d\"/>"
                .formatted(Parts.quoted(sheet.name()), number, number));
        links.append(link(number, RELATIONS + "/worksheet", "worksheets/sheet" + number + ".xml"));
        filters.append(
            "<definedName name=\"_xlnm._FilterDatabase\" localSheetId=\"%d\" hidden=\"1\">'%s'!%s</definedName>"
                .formatted(i, Parts.quoted(sheet.name().replace("'", "''")), fixed(sheet)));
        parts.packed("xl/worksheets/sheet" + number + ".xml", sheet.spool());
      }
      int styles = sheets.size() + 1;
      parts.text(
          "[Content_Types].xml",
          XML
              + "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\">"
              + "<Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
              + "<Default Extension=\"xml\" ContentType=\"application/xml\"/>"
              + type("/xl/workbook.xml", TYPE + "sheet.main+xml")
              + type("/xl/styles.xml", TYPE + "styles+xml")
              + types
              + "</Types>");
      parts.text(
          "_rels/.rels",
          XML
              + "<Relationships "
              + PACKAGE
              + ">"
              + link(1, RELATIONS + "/officeDocument", "xl/workbook.xml")
              + "</Relationships>");
      parts.text(
          "xl/workbook.xml",
          XML
              + "<workbook "
              + MAIN
              + " xmlns:r=\""
              + RELATIONS
              + "\"><sheets>"
              + listed
              + "</sheets><definedNames>"
              + filters
              + "</definedNames></workbook>");
      parts.text(
          "xl/_rels/workbook.xml.rels",
          XML
              + "<Relationships "
              + PACKAGE
              + ">"
              + links
              + link(styles, RELATIONS + "/styles", "styles.xml")
              + "</Relationships>");
      parts.text("xl/styles.xml", styles(forms));
    }
  }

  private static String type(String part, String type) {
    return "<Override PartName=\"" + part + "\" ContentType=\"" + type + "\"/>";
  }

  private static String link(int id, String type, String target) {
    return "<Relationship Id=\"rId%d\" Type=\"%s\" Target=\"%s\"/>".formatted(id, type, target);
  }

  /** What stands before the rows of a sheet. */
  static String head(BookFile.SheetPart sheet) {
    StringBuilder columns = new StringBuilder();
    for (int i = 0; i < sheet.columns(); i++) {
      columns.append(
          "<col min=\"%d\" max=\"%d\" width=\"%d\" customWidth=\"1\"/>"
              .formatted(i + 1, i + 1, sheet.width(i)));
    }
    return XML
        + "<worksheet "
        + MAIN
        + "><sheetViews><sheetView workbookViewId=\"0\"><pane ySplit=\"1\" topLeftCell=\"A2\""
        + " activePane=\"bottomLeft\" state=\"frozen\"/></sheetView></sheetViews><cols>"
        + columns
        + "</cols><sheetData>\n";
  }

  /** What stands behind the rows of a sheet. */
  static String tail(BookFile.SheetPart sheet) {
    return "</sheetData><autoFilter ref=\"" + area(sheet) + "\"/></worksheet>\n";
  }

  private static String area(BookFile.SheetPart sheet) {
    return new CellArea(0, 0, sheet.columns() - 1, (int) sheet.rows()).toString();
  }

  private static String fixed(BookFile.SheetPart sheet) {
    return area(sheet).replaceAll("([A-Z]+)(\\d+)", "\\$$1\\$$2");
  }

  private static String styles(List<NumberForm> forms) {
    StringBuilder formats = new StringBuilder();
    StringBuilder cells = new StringBuilder();
    formats.append(format(0, "yyyy-mm-dd")).append(format(1, "yyyy-mm-dd hh:mm:ss"));
    formats.append(format(2, "&quot;TRUE&quot;;&quot;TRUE&quot;;&quot;FALSE&quot;"));
    for (int format :
        new int[] {0, 0, 49, FIRST_OWN_FORMAT, FIRST_OWN_FORMAT + 1, FIRST_OWN_FORMAT + 2}) {
      boolean header = cells.length() > 0 && cells.indexOf("fontId=\"1\"") < 0;
      cells.append(cell(format, header ? 1 : 0));
    }
    for (int places = 0; places <= MOST_PLACES; places++) {
      formats.append(format(3 + places, places == 0 ? "0" : "0." + "0".repeat(places)));
      cells.append(cell(FIRST_OWN_FORMAT + 3 + places, 0));
    }
    int own = 4 + MOST_PLACES;
    for (NumberForm form : forms) {
      formats.append(format(own, Parts.quoted(form.cellFormat())));
      cells.append(cell(FIRST_OWN_FORMAT + own++, 0));
    }
    String none = "<border><left/><right/><top/><bottom/><diagonal/></border>";
    return XML
        + "<styleSheet "
        + MAIN
        + "><numFmts count=\""
        + own
        + "\">"
        + formats
        + "</numFmts><fonts count=\"2\"><font><sz val=\"11\"/><name val=\"Calibri\"/></font>"
        + "<font><b/><sz val=\"11\"/><name val=\"Calibri\"/></font></fonts>"
        + "<fills count=\"2\"><fill><patternFill patternType=\"none\"/></fill>"
        + "<fill><patternFill patternType=\"gray125\"/></fill></fills><borders count=\"1\">"
        + none
        + "</borders><cellStyleXfs count=\"1\"><xf numFmtId=\"0\" fontId=\"0\" fillId=\"0\""
        + " borderId=\"0\"/></cellStyleXfs><cellXfs count=\""
        + (FIRST_FORM + forms.size())
        + "\">"
        + cells
        + "</cellXfs></styleSheet>\n";
  }

  private static String format(int number, String code) {
    return "<numFmt numFmtId=\"%d\" formatCode=\"%s\"/>".formatted(FIRST_OWN_FORMAT + number, code);
  }

  private static String cell(int format, int font) {
    return ("<xf numFmtId=\"%d\" fontId=\"%d\" fillId=\"0\" borderId=\"0\" xfId=\"0\""
            + " applyNumberFormat=\"1\" applyFont=\"1\"/>")
        .formatted(format, font);
  }
}
