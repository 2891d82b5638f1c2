package org.abletwine.formats.workbook;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Numbers of cells as text: the shortest decimal that reads back as the same number, and dates and
 * times, which are numbers of days, as ISO 8601.
 */
final class CellNumbers {
  /** Digits that any decimal keeps when it is held as a binary number and read back. */
  private static final int SURE_DIGITS = 15;

  /** Digits that are enough to tell any two binary numbers apart; more are meant as they are. */
  private static final int ALL_DIGITS = 17;

  /** Beyond this exponent there is no number of a spreadsheet. */
  private static final int MOST_EXPONENT = 400;

  /** The last day, 9999-12-31. */
  private static final int LAST_DAY = 2_958_465;

  /** The day 1900-02-29, which there was not, but which is counted. */
  private static final int FALSE_DAY = 60;

  private static final long DAY_MILLIS = 86_400_000L;
  private static final LocalDate BEFORE_FALSE_DAY = LocalDate.of(1899, 12, 31);
  private static final LocalDate AFTER_FALSE_DAY = LocalDate.of(1899, 12, 30);
  private static final LocalDate OF_1904 = LocalDate.of(1904, 1, 1);

  private CellNumbers() {}

  /** Ends a cell whose text is a number as the file writes it; what is no number is a text. */
  static void endNumber(SheetRow row) {
    byte[] text = row.text();
    int start = row.cellStart();
    int end = row.cellEnd();
    if (plain(text, start, end)) {
      row.endCell(SheetRow.NUMBER);
      return;
    }
    String written = Utf8.text(text, start, end).strip();
    try {
      BigDecimal exact = new BigDecimal(written);
      if (Math.abs((long) exact.scale() - exact.precision()) > MOST_EXPONENT) {
        row.endCell(SheetRow.TEXT);
      } else {
        row.endCell(SheetRow.NUMBER, shortest(exact));
      }
    } catch (NumberFormatException e) {
      row.endCell(SheetRow.TEXT);
    }
  }

  /**
   * Ends a cell whose number is shown as true or false; one that is neither 1 nor 0 stays a number.
   */
  static void endTruth(SheetRow row) {
    byte first = row.text()[row.cellStart()];
    boolean one = row.cellEnd() - row.cellStart() == 1;
    if (one && (first == '0' || first == '1')) {
      row.endCell(SheetRow.TRUTH, first == '1' ? "true" : "false");
    } else {
      endNumber(row);
    }
  }

  /** Whether a number is written as we write it: few digits, no exponent, nothing needless. */
  private static boolean plain(byte[] text, int start, int end) {
    int at = start < end && text[start] == '-' ? start + 1 : start;
    int digits = end - at;
    if (digits < 1 || digits > SURE_DIGITS) {
      return false;
    }
    int point = -1;
    for (int i = at; i < end; i++) {
      if (text[i] == '.' && point < 0) {
        point = i;
      } else if (text[i] < '0' || text[i] > '9') {
        return false;
      }
    }
    boolean needless = text[at] == '0' && digits > 1 && point != at + 1; // 007
    boolean zero = digits == 1 && text[at] == '0' && at > start; // -0
    return !needless
        && !zero
        && point != at
        && (point < 0 || text[end - 1] != '0' && point < end - 1);
  }

  /**
   * The shortest decimal that reads back as the same binary number.
   *
   * @param written a number with as many digits as a program wrote
   */
  static String shortest(BigDecimal written) {
    if (written.signum() == 0) {
      return "0";
    }
    BigDecimal best = written.stripTrailingZeros();
    if (best.precision() > SURE_DIGITS && best.precision() <= ALL_DIGITS) {
      double meant = written.doubleValue();
      BigDecimal usual = new BigDecimal(Double.toString(meant)).stripTrailingZeros();
      best = usual.precision() < best.precision() ? usual : best;
      for (int digits = SURE_DIGITS; digits < best.precision(); digits++) {
        BigDecimal shorter = written.round(new MathContext(digits, RoundingMode.HALF_EVEN));
        if (shorter.doubleValue() == meant) {
          best = shorter.stripTrailingZeros();
        }
      }
    }
    return best.toPlainString();
  }

  /**
   * Ends a cell whose text is a number of days; one that is no day stays a number.
   *
   * @param form what its format says
   * @param from1904 whether days are counted from 1904-01-01, not 1899-12-31
   */
  static void endTime(SheetRow row, CellForm form, boolean from1904) {
    String text = Utf8.text(row.text(), row.cellStart(), row.cellEnd());
    String iso = null;
    try {
      iso = iso(Double.parseDouble(text.strip()), form, from1904);
    } catch (NumberFormatException e) {
      // told below
    }
    if (iso == null) {
      endNumber(row);
    } else {
      row.endCell(SheetRow.TIME, iso);
    }
  }

  /** The time as ISO 8601; null when the number is none. */
  static @Nullable String iso(double serial, CellForm form, boolean from1904) {
    if (!(serial >= 0) || serial >= LAST_DAY + 1) {
      return null;
    }
    long days = (long) Math.floor(serial);
    long millis = Math.round((serial - days) * DAY_MILLIS);
    if (millis == DAY_MILLIS) {
      days++;
      millis = 0;
    }
    if (form == CellForm.ELAPSED) {
      return elapsed(days * DAY_MILLIS + millis);
    }
    LocalTime time = LocalTime.ofNanoOfDay(millis * 1_000_000);
    if (form == CellForm.TIME && days == 0) {
      return time(time);
    }
    if (!from1904 && days == FALSE_DAY) {
      return null;
    }
    LocalDate first = from1904 ? OF_1904 : days < FALSE_DAY ? BEFORE_FALSE_DAY : AFTER_FALSE_DAY;
    LocalDate day = first.plusDays(days);
    if (day.getYear() > 9999) {
      return null;
    }
    boolean whole = millis == 0 && form == CellForm.DAY;
    return whole ? day.toString() : day + "T" + time(time);
  }

  /** A time with its seconds, and thousandths where there are any. */
  private static String time(LocalTime time) {
    String text = time.toString();
    return text.length() == 5 ? text + ":00" : text;
  }

  static String elapsed(long millis) {
    long seconds = millis / 1000;
    String text =
        String.format(
            Locale.ROOT, "%02d:%02d:%02d", seconds / 3600, seconds / 60 % 60, seconds % 60);
    return millis % 1000 == 0 ? text : text + String.format(Locale.ROOT, ".%03d", millis % 1000);
  }

  /** A date and time as ISO 8601, seconds always, thousandths where there are any. */
  static String time(LocalDateTime at) {
    return at.toLocalDate() + "T" + time(at.toLocalTime().truncatedTo(ChronoUnit.MILLIS));
  }
}
