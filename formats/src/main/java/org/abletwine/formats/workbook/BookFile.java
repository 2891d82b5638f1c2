package org.abletwine.formats.workbook;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.abletwine.formats.packed.FileStream;
import org.abletwine.formats.packed.Spool;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.output.OutputFile;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/**
 * A workbook being written. Its sheets are written side by side into files of their own, packed,
 * and put together once the last is complete. Safe for use by several threads.
 */
final class BookFile {
  /** Characters that a sheet's name has at most. */
  private static final int LONGEST_NAME = 31;

  private final Path target;
  private final List<SheetPart> sheets = new ArrayList<>();
  private final List<NumberForm> forms = new ArrayList<>();
  private @Nullable OutputFile file;
  private boolean finished;
  private boolean committed;
  private long size;

  BookFile(Path target) {
    this.target = target;
  }

  /** A sheet being written. */
  static final class SheetPart {
    private final String name;
    private int[] widths = {};
    private @Nullable Spool spool;
    private List<String> columns = List.of();
    private long rows;
    private boolean complete;
    private boolean committed;

    SheetPart(String name) {
      this.name = name;
    }

    String name() {
      return name;
    }

    /** How many characters wide a column is shown. */
    int width(int column) {
      int longest = column < widths.length ? widths[column] : 0;
      return Math.min(60, Math.max(8, Math.max(longest, columns.get(column).length() + 3) + 2));
    }

    int columns() {
      return columns.size();
    }

    /** Returns how many rows it has, the names not counted. */
    long rows() {
      return rows;
    }

    Spool spool() {
      return Objects.requireNonNull(spool);
    }
  }

  boolean ods() {
    return target.toString().toLowerCase(Locale.ROOT).endsWith(".ods");
  }

  Path target() {
    return target;
  }

  synchronized @Nullable Path beside() {
    return file == null ? null : file.beside();
  }

  synchronized boolean first(SheetPart sheet) {
    return !sheets.isEmpty() && sheets.get(0) == sheet;
  }

  /**
   * Checks the name of a sheet.
   *
   * @throws SettingException when no sheet can be called so
   */
  static void requireName(String name) {
    if (name.isBlank()
        || name.length() > LONGEST_NAME
        || name.matches(".*[\\[\\]:*?/\\\\\\p{Cntrl}].*")
        || name.startsWith("'")
        || name.endsWith("'")) {
      throw new SettingException(
          "sheet: \""
              + name
              + "\" cannot be the name of a sheet; give one of at most "
              + LONGEST_NAME
              + " characters without [ ] : * ? / \\");
    }
  }

  /** Notes a sheet to be written; sheets stand in the order of these calls. */
  synchronized SheetPart sheet(@Nullable String stated) {
    String name =
        stated == null ? "table" + (sheets.isEmpty() ? "" : " " + (sheets.size() + 1)) : stated;
    for (SheetPart other : sheets) {
      if (other.name.equalsIgnoreCase(name)) {
        throw new SettingException(
            target
                + ": two outputs are called sheet \""
                + name
                + "\"; give each sheet its own name with { file: FILE, sheet: NAME }");
      }
    }
    SheetPart sheet = new SheetPart(name);
    sheets.add(sheet);
    return sheet;
  }

  synchronized void begin(SheetPart sheet, List<String> columns) {
    if (finished) {
      throw new IllegalStateException(target + " is complete already");
    }
    if (file == null) {
      file = new OutputFile(target);
    }
    sheet.columns = columns;
    sheet.spool = new Spool(target.getFileName() + " sheet " + sheet.name);
  }

  /** Which of the forms of numbers in this book one is; it is added when it is new. */
  synchronized int form(NumberForm form) {
    for (int i = 0; i < forms.size(); i++) {
      if (forms.get(i).toString().equals(form.toString())) {
        return i;
      }
    }
    forms.add(form);
    return forms.size() - 1;
  }

  void write(SheetPart sheet, byte[] bytes, int length) {
    sheet.spool().write(bytes, length);
  }

  private static void write(SheetPart sheet, String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    sheet.spool().write(bytes, bytes.length);
  }

  /** Writes what stands before the rows of a sheet, once the widths of its columns are known. */
  void head(SheetPart sheet, int[] widths) {
    sheet.widths = widths.clone();
    if (!ods()) {
      write(sheet, XlsxParts.head(sheet));
    }
  }

  /** Ends a sheet; the last one that ends makes the file whole. */
  synchronized void complete(SheetPart sheet, long rows) {
    if (sheet.complete || sheet.spool == null) {
      return;
    }
    sheet.rows = rows;
    if (!ods()) {
      write(sheet, XlsxParts.tail(sheet));
    }
    sheet.spool().end();
    sheet.complete = true;
    if (sheets.stream().allMatch(one -> one.complete)) {
      finish();
    }
  }

  private void finish() {
    OutputFile into = Objects.requireNonNull(file);
    List<SheetPart> written = List.copyOf(sheets);
    try (FileStream out = new FileStream(into)) {
      if (ods()) {
        OdsParts.write(written, forms, out);
      } else {
        XlsxParts.write(written, forms, out);
      }
      out.flush();
      size = out.count();
    } catch (IOException e) {
      throw new DataException("cannot write " + target + ": " + e.getMessage(), e);
    }
    into.complete();
    finished = true;
    written.forEach(one -> one.spool().close());
  }

  /** Shows the file once all its sheets are complete: with the last of them, at the latest. */
  synchronized void commit(SheetPart sheet) {
    sheet.committed = true;
    if (finished && !committed && file != null) {
      file.commit();
      committed = true;
    }
  }

  synchronized long size() {
    return size;
  }

  /** Gives the file up when a sheet was begun and not committed; forgets one never begun. */
  synchronized void close(SheetPart sheet) {
    if (sheet.spool == null) {
      sheets.remove(sheet);
    }
    if (sheet.spool == null || sheet.committed) {
      return;
    }
    for (SheetPart one : sheets) {
      if (one.spool != null) {
        one.spool.close();
      }
    }
    if (file != null) {
      file.close();
    }
  }

  @Override
  public String toString() {
    return target.toString();
  }
}
