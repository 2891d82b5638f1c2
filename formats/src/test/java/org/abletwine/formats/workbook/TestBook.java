package org.abletwine.formats.workbook;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** A workbook of parts written by hand. */
final class TestBook {
  private static final String RELATIONS =
      "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

  private final Map<String, byte[]> parts = new LinkedHashMap<>();

  /** An .xlsx of one sheet, whose rows are given as markup. */
  static TestBook xlsx(String rows) {
    return new TestBook()
        .part("[Content_Types].xml", "<Types/>")
        .part(
            "_rels/.rels",
            "<Relationships><Relationship Id='r' Type='"
                + RELATIONS
                + "/officeDocument' Target='xl/workbook.xml'/></Relationships>")
        .part("xl/workbook.xml", book("", "<sheet name='One' r:id='rId1'/>"))
        .part(
            "xl/_rels/workbook.xml.rels",
            "<Relationships>"
                + link("rId1", "worksheet", "worksheets/sheet1.xml")
                + "</Relationships>")
        .part("xl/worksheets/sheet1.xml", sheet(rows));
  }

  static String book(String before, String sheets) {
    return "<workbook xmlns:r='"
        + RELATIONS
        + "'>"
        + before
        + "<sheets>"
        + sheets
        + "</sheets></workbook>";
  }

  static String link(String id, String kind, String target) {
    return "<Relationship Id='"
        + id
        + "' Type='"
        + RELATIONS
        + "/"
        + kind
        + "' Target='"
        + target
        + "'/>";
  }

  static String sheet(String rows) {
    return "<worksheet><sheetData>" + rows + "</sheetData></worksheet>";
  }

  /** An .ods whose tables are given as markup. */
  static TestBook ods(String tables) {
    return new TestBook()
        .part("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        .part(
            "content.xml",
            "<o:document-content xmlns:o='o' xmlns:table='t' xmlns:text='x' xmlns:calcext='c'"
                + " xmlns:office='f' xmlns:draw='d'><o:body><o:spreadsheet>"
                + tables
                + "</o:spreadsheet></o:body></o:document-content>");
  }

  TestBook part(String name, String text) {
    return part(name, text.getBytes(StandardCharsets.UTF_8));
  }

  TestBook part(String name, byte[] bytes) {
    parts.put(name, bytes);
    if (name.equals("xl/styles.xml")) {
      linked(link("rId2", "styles", "styles.xml"));
    } else if (name.equals("xl/sharedStrings.xml")) {
      linked(link("rId3", "sharedStrings", "/xl/sharedStrings.xml"));
    }
    return this;
  }

  private void linked(String link) {
    String links =
        new String(
            parts.getOrDefault("xl/_rels/workbook.xml.rels", new byte[0]), StandardCharsets.UTF_8);
    parts.put(
        "xl/_rels/workbook.xml.rels",
        links
            .replace("</Relationships>", link + "</Relationships>")
            .getBytes(StandardCharsets.UTF_8));
  }

  TestBook without(String name) {
    parts.remove(name);
    return this;
  }

  Path at(Path file) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, byte[]> part : parts.entrySet()) {
        zip.putNextEntry(new ZipEntry(part.getKey()));
        zip.write(part.getValue());
        zip.closeEntry();
      }
    }
    return file;
  }
}
