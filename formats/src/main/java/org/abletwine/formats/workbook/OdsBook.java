package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.table.DataException;

/** An {@code .ods} file (OpenDocument 1.x, ISO/IEC 26300). All its sheets are in one part. */
final class OdsBook implements Workbook {
  static final String CONTENT = "content.xml";
  private static final String MANIFEST = "META-INF/manifest.xml";

  private final Archive archive;
  private final List<Sheet> sheets = new ArrayList<>();

  OdsBook(Archive archive) {
    this.archive = archive;
    if (archive.has(MANIFEST)) {
      try (Xml xml = new Xml(archive, MANIFEST)) {
        while (xml.next()) {
          if (xml.starts("encryption-data")) {
            throw new DataException(
                archive.name() + " is protected with a password; save it without one");
          }
        }
      }
    }
    Set<String> hiding = new HashSet<>();
    String style = "";
    try (Xml xml = new Xml(archive, CONTENT)) {
      while (xml.next()) {
        if (xml.starts("style")) {
          style = "" + xml.attribute("name");
        } else if (xml.starts("table-properties")) {
          if ("false".equals(xml.attribute("display"))) {
            hiding.add(style);
          }
        } else if (OdsCells.apart(xml)) {
          xml.skip();
        } else if (xml.starts("table")) {
          sheets.add(
              new Sheet(
                  "" + xml.attribute("name"), hiding.contains("" + xml.attribute("style-name"))));
          xml.skip();
        }
      }
    }
  }

  @Override
  public List<Sheet> sheets() {
    return sheets;
  }

  @Override
  public String size(int sheet) {
    try (SheetCells cells = cells(sheet)) {
      return XlsxBook.sized(cells);
    }
  }

  @Override
  public SheetCells cells(int sheet) {
    return new OdsCells(new Xml(archive, CONTENT), sheet, archive);
  }

  @Override
  public long taken() {
    return archive.taken();
  }

  @Override
  public void close() {
    archive.close();
  }

  /** Whether an archive is a workbook of this kind. */
  static boolean is(Archive archive) {
    return archive.has(CONTENT);
  }
}
