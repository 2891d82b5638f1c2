package org.abletwine.formats.workbook;

/** What the number format of a cell says that its number is. */
enum CellForm {
  /** A number. */
  NUMBER,
  /** A day. */
  DAY,
  /** A day and a time. */
  DAY_AND_TIME,
  /** A time of day. */
  TIME,
  /** True or false, as some programs write it: 1 and 0 that are shown as these words. */
  TRUTH,
  /** Hours, minutes and seconds that passed, more than a day's perhaps. */
  ELAPSED;

  /**
   * What a format of numbers says, such as {@code dd.mm.yyyy} or {@code #,##0.00}.
   *
   * @param format its first section counts
   */
  static CellForm of(String format) {
    if (format.equalsIgnoreCase("\"TRUE\";\"TRUE\";\"FALSE\"")) {
      return TRUTH;
    }
    boolean day = false;
    boolean month = false;
    boolean time = false;
    boolean elapsed = false;
    for (int at = 0; at < format.length() && format.charAt(at) != ';'; at++) {
      char c = format.charAt(at);
      switch (c) {
        case '"' -> at = past(format, at + 1, '"');
        case '\\', '_', '*' -> at++;
        case '[' -> {
          int end = past(format, at + 1, ']');
          elapsed |= format.substring(at + 1, end).matches("(?i)h+|m+|s+");
          at = end;
        }
        case 'y', 'Y', 'd', 'D' -> day = true;
        case 'e' -> day = true; // the year of an era; an exponent is a capital letter
        case 'm', 'M' -> month = true;
        case 'h', 'H', 's', 'S' -> time = true;
        case 'G', 'g' -> at += format.regionMatches(true, at, "General", 0, 7) ? 6 : 0;
        case 'E' -> at++;
        case 'A', 'a' -> at += format.regionMatches(true, at, "AM/PM", 0, 5) ? 4 : 0;
        default -> {
          // digits, separators, spaces
        }
      }
    }
    if (elapsed) {
      return ELAPSED;
    }
    boolean date = day || month && !time;
    return date ? time ? DAY_AND_TIME : DAY : time ? TIME : NUMBER;
  }

  private static int past(String format, int from, char end) {
    int at = format.indexOf(end, from);
    return at < 0 ? format.length() : at;
  }

  /**
   * What the formats that need not be written down say (ECMA-376 part 1, 18.8.30).
   *
   * @param id the number of the format
   */
  static CellForm built(int id) {
    if (id == 46) {
      return ELAPSED;
    }
    if (id == 22) {
      return DAY_AND_TIME;
    }
    boolean time = id >= 18 && id <= 21 || id == 45 || id == 47 || id == 32 || id == 33;
    boolean day = id >= 14 && id <= 17 || id >= 27 && id <= 36 || id >= 50 && id <= 58;
    return time ? TIME : day ? DAY : NUMBER;
  }
}
