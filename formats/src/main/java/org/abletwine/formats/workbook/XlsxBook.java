package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * An {@code .xlsx} file (ECMA-376, both its editions). What belongs to all sheets is read once: the
 * texts that they share, and what formats of numbers say.
 */
final class XlsxBook implements Workbook {
  private static final String USUAL = "xl/workbook.xml";
  private static final String DOCUMENT = "/officeDocument";

  private final Archive archive;
  private final List<Sheet> sheets = new ArrayList<>();
  private final List<String> parts = new ArrayList<>();
  private boolean from1904;
  private @Nullable String stylePart;
  private @Nullable String textPart;
  private CellForm @Nullable [] forms;
  private @Nullable SharedTexts texts;

  XlsxBook(Archive archive) {
    this.archive = archive;
    String book = USUAL;
    if (archive.has("_rels/.rels")) {
      for (Link link : links("_rels/.rels", "").values()) {
        book = link.kind.endsWith(DOCUMENT) ? link.part : book;
      }
    }
    if (!archive.has(book)) {
      throw new DataException(
          archive.name() + " is an archive, but no workbook: it has no part " + book);
    }
    if (book.endsWith(".bin")) {
      throw new DataException(
          archive.name() + " is a workbook of the binary kind (.xlsb); save it as .xlsx");
    }
    int slash = book.lastIndexOf('/');
    String folder = book.substring(0, slash + 1);
    Map<String, Link> links =
        links(folder + "_rels/" + book.substring(slash + 1) + ".rels", folder);
    for (Link link : links.values()) {
      if (link.kind.endsWith("/styles")) {
        stylePart = link.part;
      } else if (link.kind.endsWith("/sharedStrings")) {
        textPart = link.part;
      }
    }
    sheets(book, links);
  }

  /** What another part is to the one that links to it. */
  private record Link(String kind, String part) {}

  private Map<String, Link> links(String part, String folder) {
    Map<String, Link> links = new HashMap<>();
    try (Xml xml = new Xml(archive, part)) {
      while (xml.next()) {
        String id = xml.starts("Relationship") ? xml.attribute("Id") : null;
        String target = id == null ? null : xml.attribute("Target");
        if (id != null && target != null && !"External".equals(xml.attribute("TargetMode"))) {
          links.put(id, new Link("" + xml.attribute("Type"), within(folder, target)));
        }
      }
    }
    return links;
  }

  /** The name of a part, seen from a folder of the archive. */
  private static String within(String folder, String target) {
    List<String> steps = new ArrayList<>();
    for (String step : (target.startsWith("/") ? target : folder + target).split("/")) {
      if (step.equals("..")) {
        if (!steps.isEmpty()) {
          steps.remove(steps.size() - 1);
        }
      } else if (!step.isEmpty() && !step.equals(".")) {
        steps.add(step);
      }
    }
    return String.join("/", steps);
  }

  private void sheets(String book, Map<String, Link> links) {
    try (Xml xml = new Xml(archive, book)) {
      while (xml.next()) {
        if (xml.starts("workbookPr")) {
          String date = xml.attribute("date1904");
          from1904 = "1".equals(date) || "true".equals(date);
        } else if (xml.starts("sheet")) {
          Link link = links.get("" + xml.attribute("id"));
          String state = xml.attribute("state");
          if (link != null && link.kind.endsWith("/worksheet")) {
            sheets.add(
                new Sheet("" + xml.attribute("name"), state != null && !state.equals("visible")));
            parts.add(link.part);
          }
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
    try (Xml xml = new Xml(archive, parts.get(sheet))) {
      while (xml.next() && !xml.starts("sheetData")) {
        String area = xml.starts("dimension") ? xml.attribute("ref") : null;
        CellArea all = area == null ? null : CellArea.parse(area);
        if (all != null) {
          return sized(all.lastRow() + 1, all.lastColumn() + 1);
        }
      }
    }
    try (SheetCells cells = cells(sheet)) {
      return sized(cells);
    }
  }

  /** How large a sheet is that is gone through for it. */
  static String sized(SheetCells cells) {
    SheetRow row = new SheetRow();
    int rows = 0;
    int columns = 0;
    while (cells.next(row)) {
      if (row.count() > 0) {
        rows = row.row() + row.times();
        columns = Math.max(columns, row.column(row.count() - 1) + 1);
      }
    }
    return sized(rows, columns);
  }

  private static String sized(int rows, int columns) {
    return String.format(
        Locale.ROOT,
        "%,d %s, %,d %s",
        rows,
        rows == 1 ? "row" : "rows",
        columns,
        columns == 1 ? "column" : "columns");
  }

  /** What the cell formats say, by their number. */
  synchronized CellForm[] forms() {
    CellForm[] known = forms;
    if (known == null) {
      known = stylePart == null ? new CellForm[0] : read(stylePart);
      forms = known;
    }
    return known;
  }

  private CellForm[] read(String part) {
    Map<Integer, CellForm> own = new HashMap<>();
    List<CellForm> all = new ArrayList<>();
    boolean cells = false;
    try (Xml xml = new Xml(archive, part)) {
      while (xml.next()) {
        if (xml.starts("cellXfs") || xml.ends("cellXfs")) {
          cells = xml.start();
        } else if (xml.starts("numFmt")) {
          String format = xml.attribute("formatCode");
          own.put(xml.number("numFmtId", 0), CellForm.of(format == null ? "" : format));
        } else if (cells && xml.starts("xf")) {
          int id = xml.number("numFmtId", 0);
          CellForm form = own.get(id);
          all.add(form == null ? CellForm.built(id) : form);
        }
      }
    }
    return all.toArray(CellForm[]::new);
  }

  private synchronized SharedTexts texts() {
    SharedTexts known = texts;
    if (known == null) {
      known = new SharedTexts(archive, textPart);
      texts = known;
    }
    return known;
  }

  @Override
  public SheetCells cells(int sheet) {
    return new XlsxCells(new Xml(archive, parts.get(sheet)), forms(), texts(), from1904, archive);
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
    return archive.has("[Content_Types].xml") || archive.has(USUAL);
  }
}
