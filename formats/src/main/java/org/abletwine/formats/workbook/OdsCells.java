package org.abletwine.formats.workbook;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The rows of a sheet of an {@code .ods} file. */
final class OdsCells implements SheetCells {
  /** Rows in which merged cells are noted; they matter near the head only. */
  private static final int MERGED_ROWS = 1000;

  private final Xml xml;
  private final int sheet;
  private final Archive archive;
  private final List<CellArea> merged = new ArrayList<>();
  private int at = -1;
  private int row;
  private boolean ended;

  OdsCells(Xml xml, int sheet, Archive archive) {
    this.xml = xml;
    this.sheet = sheet;
    this.archive = archive;
  }

  /** What holds cells, or what looks like it, that are none of the sheet. */
  static boolean apart(Xml xml) {
    return xml.start()
        && switch (xml.name()) {
          case "tracked-changes", "shapes", "forms", "dde-links", "annotation", "frame" -> true;
          default -> false;
        };
  }

  @Override
  public boolean next(SheetRow into) {
    while (!ended) {
      if (!xml.next()) {
        ended = true;
      } else if (apart(xml)) {
        xml.skip();
      } else if (xml.starts("table")) {
        at++;
        if (at != sheet) {
          xml.skip();
        }
      } else if (xml.ends("table") && at == sheet) {
        at++; // what follows is other sheets, gone past so that the part is checked
      } else if (at == sheet && xml.starts("table-row")) {
        row(into);
        return true;
      }
    }
    return false;
  }

  private void row(SheetRow into) {
    into.begin(row);
    int times = xml.number("number-rows-repeated", 1);
    String visibility = xml.attribute("visibility");
    if (visibility != null && !visibility.equals("visible")) {
      into.hide();
    }
    int column = 0;
    while (true) {
      xml.require(xml.next());
      if (xml.ends("table-row")) {
        break;
      }
      if (xml.starts("table-cell") || xml.starts("covered-table-cell")) {
        int repeated = xml.number("number-columns-repeated", 1);
        merge(column);
        boolean any = cell(into, column);
        if (any && column + repeated > CellArea.MOST_COLUMNS) {
          throw archive.damaged("row " + (row + 1) + " has more cells than a sheet has", null);
        }
        for (int i = 1; i < repeated && any; i++) {
          into.again();
        }
        column = Math.min(column + repeated, CellArea.MOST_COLUMNS);
      } else if (xml.start()) {
        xml.skip();
      }
    }
    if (into.count() > 0 && (long) row + times > CellArea.MOST_ROWS) {
      throw archive.damaged("it has more rows than a sheet has", null);
    }
    into.times(times);
    row = (int) Math.min((long) row + times, CellArea.MOST_ROWS);
  }

  private void merge(int column) {
    int across = row < MERGED_ROWS ? xml.number("number-columns-spanned", 1) : 1;
    if (across > 1) {
      merged.add(new CellArea(column, row, column + across - 1, row));
    }
  }

  /** Reads the cell that begins here, to its end; returns whether it holds anything. */
  private boolean cell(SheetRow into, int column) {
    String type = null;
    String value = null;
    for (int i = 0; i < xml.attributes(); i++) {
      switch (xml.attributeName(i)) {
        case "value-type" -> // that of the format wins over what programs add beside it
            type =
                type == null || xml.attributeValue(i).equals("error")
                    ? xml.attributeValue(i)
                    : type;
        case "value", "date-value", "time-value", "boolean-value" -> value = xml.attributeValue(i);
        case "string-value" -> value = value == null ? xml.attributeValue(i) : value;
        default -> {
          // nothing of the value
        }
      }
    }
    into.cell(column);
    boolean paragraphs = text(into);
    if (type == null && !paragraphs) {
      into.noCell();
      return false;
    }
    end(into, type == null ? "string" : type, value);
    return true;
  }

  /** Takes the paragraphs of the cell in; returns whether there are any. */
  private boolean text(SheetRow into) {
    boolean any = false;
    int depth = 0; // of paragraphs and what is within them
    while (true) {
      xml.require(xml.next());
      if (xml.text()) {
        if (depth > 0) {
          xml.appendTo(into);
        }
      } else if (xml.end()) {
        if (depth == 0) {
          return any; // the cell's own end
        }
        depth--;
      } else if (apart(xml)) {
        xml.skip();
      } else if (depth == 0 && !xml.name().equals("p")) {
        xml.skip();
      } else {
        depth++;
        if (depth == 1) {
          if (any) {
            into.append("\n");
          }
          any = true;
        } else {
          inner(into);
        }
      }
    }
  }

  private void inner(SheetRow into) {
    switch (xml.name()) {
      case "s" -> into.append(" ".repeat(Math.min(xml.number("c", 1), Short.MAX_VALUE)));
      case "tab" -> into.append("\t");
      case "line-break" -> into.append("\n");
      default -> {
        // spans and links: their text follows
      }
    }
  }

  private void end(SheetRow into, String type, @Nullable String value) {
    switch (type) {
      case "float", "percentage", "currency" -> {
        into.noCell();
        into.append(value == null ? "" : value);
        CellNumbers.endNumber(into);
      }
      case "boolean" -> into.endCell(SheetRow.TRUTH, "true".equals(value) ? "true" : "false");
      case "date" -> into.endCell(SheetRow.TIME, day(value == null ? "" : value));
      case "time" -> into.endCell(SheetRow.TIME, time(value == null ? "" : value));
      case "error" -> into.endCell(SheetRow.ERROR);
      default -> {
        if (value == null || value.isEmpty()) {
          into.endCell(SheetRow.TEXT);
        } else {
          into.endCell(SheetRow.TEXT, value);
        }
      }
    }
  }

  private static String day(String value) {
    try {
      return value.indexOf('T') < 0
          ? LocalDate.parse(value).toString()
          : CellNumbers.time(LocalDateTime.parse(value));
    } catch (DateTimeException e) {
      return value;
    }
  }

  private static String time(String value) {
    try {
      Duration time = Duration.parse(value);
      return time.isNegative()
          ? BigDecimal.valueOf(time.toMillis()).movePointLeft(3).toPlainString()
          : CellNumbers.elapsed(time.toMillis());
    } catch (DateTimeException e) {
      return value;
    }
  }

  @Override
  public List<CellArea> merged(int inRow) {
    return merged.stream().filter(area -> area.firstRow() == inRow).toList();
  }

  @Override
  public void close() {
    xml.close();
  }
}
