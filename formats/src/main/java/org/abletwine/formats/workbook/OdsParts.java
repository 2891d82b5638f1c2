package org.abletwine.formats.workbook;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.abletwine.table.text.NumberForm;

/**
 * Puts sheets together as an {@code .ods} file (OpenDocument 1.2): the header row stays in view,
 * and each sheet has its filter on.
 */
final class OdsParts {
  private static final String XML = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n";
  private static final String TYPE = "application/vnd.oasis.opendocument.spreadsheet";
  private static final String SPACES =
      "xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
          + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
          + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
          + " xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\""
          + " xmlns:number=\"urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0\""
          + " xmlns:fo=\"urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0\""
          + " xmlns:config=\"urn:oasis:names:tc:opendocument:xmlns:config:1.0\"";
  private static final String DASH = "<number:text>-</number:text>";
  private static final String COLON = "<number:text>:</number:text>";
  private static final String DAY =
      "<number:year number:style=\"long\"/>"
          + DASH
          + "<number:month number:style=\"long\"/>"
          + DASH
          + "<number:day number:style=\"long\"/>";
  private static final String TIME =
      "<number:text> </number:text><number:hours number:style=\"long\"/>"
          + COLON
          + "<number:minutes number:style=\"long\"/>"
          + COLON
          + "<number:seconds number:style=\"long\"/>";

  private OdsParts() {}

  static void write(List<BookFile.SheetPart> sheets, List<NumberForm> forms, OutputStream into)
      throws IOException {
    try (Parts parts = new Parts(into)) {
      parts.plain("mimetype", TYPE);
      parts.text(
          "META-INF/manifest.xml",
          XML
              + "<manifest:manifest"
              + " xmlns:manifest=\"urn:oasis:names:tc:opendocument:xmlns:manifest:1.0\""
              + " manifest:version=\"1.2\">"
              + file("/", TYPE)
              + file("content.xml", "text/xml")
              + file("settings.xml", "text/xml")
              + "</manifest:manifest>\n");
      parts.text("settings.xml", settings(sheets));
      parts.begin(OdsBook.CONTENT);
      parts.add(XML + "<office:document-content " + SPACES + " office:version=\"1.2\">");
      parts.add(styles(forms) + "<office:body><office:spreadsheet>");
      for (BookFile.SheetPart sheet : sheets) {
        parts.add("<table:table table:name=\"" + Parts.quoted(sheet.name()) + "\">");
        for (int i = 0; i < sheet.columns(); i++) {
          int width = (sheet.width(i) + 9) / 10 * 10; // few widths, each a style
          parts.add("<table:table-column table:style-name=\"w" + width + "\"/>");
        }
        parts.add(sheet.spool());
        parts.add("</table:table>\n");
      }
      parts.add(
          filters(sheets) + "</office:spreadsheet></office:body></office:document-content>\n");
      parts.end();
    }
  }

  private static String file(String path, String type) {
    return "<manifest:file-entry manifest:full-path=\"%s\" manifest:media-type=\"%s\"/>"
        .formatted(path, type);
  }

  private static String styles(List<NumberForm> forms) {
    StringBuilder styles = new StringBuilder("<office:automatic-styles>");
    for (int width = 10; width <= 60; width += 10) {
      styles.append(
          ("<style:style style:name=\"w%d\" style:family=\"table-column\">"
                  + "<style:table-column-properties style:column-width=\"%dmm\"/></style:style>")
              .formatted(width, 2 * width));
    }
    styles.append("<number:date-style style:name=\"d\">" + DAY + "</number:date-style>");
    styles.append("<number:date-style style:name=\"t\">" + DAY + TIME + "</number:date-style>");
    styles.append("<number:text-style style:name=\"x\"><number:text-content/></number:text-style>");
    styles.append(
        "<number:boolean-style style:name=\"b\"><number:boolean/></number:boolean-style>");
    styles.append(cell("day", "d")).append(cell("time", "t")).append(cell("text", "x"));
    styles.append(cell("truth", "b"));
    for (int places = 0; places <= XlsxParts.MOST_PLACES; places++) {
      styles.append(
          ("<number:number-style style:name=\"p%d\"><number:number number:decimal-places=\"%d\""
                  + " number:min-integer-digits=\"1\"/></number:number-style>")
              .formatted(places, places));
      styles.append(cell("n" + places, "p" + places));
    }
    for (int i = 0; i < forms.size(); i++) {
      styles.append(form("q" + i, forms.get(i))).append(cell("f" + i, "q" + i));
    }
    return styles.append("</office:automatic-styles>").toString();
  }

  private static String form(String name, NumberForm form) {
    String kind = form.percent() ? "percentage-style" : "number-style";
    String number =
        "<number:number number:decimal-places=\"%d\" number:min-integer-digits=\"1\" number:grouping=\"%s\"/>"
            .formatted(form.places(), form.grouped());
    return "<number:%s style:name=\"%s\">%s%s%s</number:%s>"
        .formatted(kind, name, text(form.before()), number, text(form.behind()), kind);
  }

  private static String text(String text) {
    return text.isEmpty() ? "" : "<number:text>" + Parts.quoted(text) + "</number:text>";
  }

  private static String cell(String name, String format) {
    return "<style:style style:name=\"%s\" style:family=\"table-cell\" style:data-style-name=\"%s\"/>"
        .formatted(name, format);
  }

  private static String filters(List<BookFile.SheetPart> sheets) {
    StringBuilder filters = new StringBuilder("<table:database-ranges>");
    for (int i = 0; i < sheets.size(); i++) {
      BookFile.SheetPart sheet = sheets.get(i);
      filters.append(
          ("<table:database-range table:name=\"__Anonymous_Sheet_DB__%d\""
                  + " table:target-range-address=\"'%s'.A1:'%s'.%s\""
                  + " table:display-filter-buttons=\"true\"/>")
              .formatted(
                  i,
                  address(sheet),
                  address(sheet),
                  CellArea.name((int) sheet.rows(), sheet.columns() - 1)));
    }
    return filters.append("</table:database-ranges>").toString();
  }

  private static String address(BookFile.SheetPart sheet) {
    return Parts.quoted(sheet.name().replace("'", "''"));
  }

  private static String settings(List<BookFile.SheetPart> sheets) {
    StringBuilder views = new StringBuilder();
    for (BookFile.SheetPart sheet : sheets) {
      views.append(
          "<config:config-item-map-entry config:name=\"%s\">"
              .formatted(Parts.quoted(sheet.name())));
      views.append(item("VerticalSplitMode", 2)).append(item("VerticalSplitPosition", 1));
      views.append(item("ActiveSplitRange", 2)).append(item("PositionTop", 0));
      views.append(item("PositionBottom", 1)).append("</config:config-item-map-entry>");
    }
    return XML
        + "<office:document-settings "
        + SPACES
        + " office:version=\"1.2\"><office:settings>"
        + "<config:config-item-set config:name=\"ooo:view-settings\">"
        + "<config:config-item-map-indexed config:name=\"Views\"><config:config-item-map-entry>"
        + "<config:config-item-map-named config:name=\"Tables\">"
        + views
        + "</config:config-item-map-named></config:config-item-map-entry>"
        + "</config:config-item-map-indexed></config:config-item-set></office:settings>"
        + "</office:document-settings>\n";
  }

  private static String item(String name, int value) {
    String type = name.endsWith("Mode") || name.equals("ActiveSplitRange") ? "short" : "int";
    return "<config:config-item config:name=\"%s\" config:type=\"%s\">%d</config:config-item>"
        .formatted(name, type, value);
  }
}
