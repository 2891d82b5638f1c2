package org.abletwine.demo;

import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.SplittableRandom;

/** Writes the weighbridge tickets, troubles and all. */
final class TicketTable {
  private static final String HEADER =
      "ticket_no,delivered_on,site_code,grower_code,commodity,variety,grade_mark,gross_kg,tare_kg,"
          + "moisture_pct,pack,remark";
  private static final int DAYS = 80;
  private static final int DAYS_BEFORE_PRICES = 1;
  private static final char NO_BREAK_SPACE = '\u00A0';

  private TicketTable() {}

  static void write(Path file, long tickets, int growers, long seed, Planted planted)
      throws IOException {
    SplittableRandom random = new SplittableRandom(seed);
    String[] dates = dates();
    int width = WendleVale.growerWidth(growers);
    int ticketWidth = Math.max(5, Long.toString(tickets).length());
    try (Line line = new Line(file, HEADER)) {
      for (long ticket = 1; ticket <= tickets; ticket++) {
        int commodity = Math.min(3, random.nextInt(10) / 3 + (random.nextInt(8) == 0 ? 1 : 0));
        line.number(ticket, ticketWidth);
        int day = random.nextInt(DAYS);
        if (day < DAYS_BEFORE_PRICES) {
          planted.add("tickets delivered before the first price is in force");
        }
        line.cell(dates[day]);
        site(line, random, planted);
        grower(line, random, growers, width, planted);
        commodity(line, commodity, random, planted);
        variety(line, commodity, random, planted);
        line.cell(Vocabulary.GRADES[Math.min(3, random.nextInt(9) / 2)]);
        long gross = 14_000 + random.nextInt(32_000);
        line.number(gross, 1).number(6_000 + random.nextInt(5_000), 1);
        line.tenths((commodity == 3 ? 60 : 105) + random.nextInt(commodity == 3 ? 45 : 65));
        pack(line, random, planted);
        line.text(Vocabulary.REMARKS[random.nextInt(Vocabulary.REMARKS.length)]).end();
      }
    }
  }

  private static String[] dates() {
    String[] dates = new String[DAYS];
    for (int day = 0; day < DAYS; day++) {
      dates[day] = LocalDate.of(2026, 6, 30).plusDays(day).toString();
    }
    return dates;
  }

  private static void site(Line line, SplittableRandom random, Planted planted) {
    String site = Vocabulary.SITES[random.nextInt(Vocabulary.SITES.length)];
    int trouble = random.nextInt(100);
    if (trouble < 5) {
      planted.add("site codes with a suffix, such as KEL/W");
      line.cell(site + "/W");
    } else if (trouble < 7) {
      planted.add("site codes in lower case");
      line.cell(site.toLowerCase(java.util.Locale.ROOT));
    } else {
      line.cell(site);
    }
  }

  private static void grower(
      Line line, SplittableRandom random, int growers, int width, Planted planted) {
    long number = 1 + random.nextInt(growers);
    int trouble = random.nextInt(1000);
    if (trouble < 900) {
      line.grower(number, width);
    } else if (trouble < 920) {
      planted.add("grower codes with a space before or after");
      String code = WendleVale.growerNumber(number, width);
      line.cell((number & 1) == 0 ? " " + code : code + "  ");
    } else if (trouble < 930) {
      planted.add("grower codes with a no-break space");
      line.cell(WendleVale.growerNumber(number, width) + NO_BREAK_SPACE);
    } else if (trouble < 945) {
      planted.add("grower codes without their leading zeros");
      line.grower(number, 1);
    } else if (trouble < 955) {
      planted.add("grower codes in lower case");
      line.cell(WendleVale.growerNumber(number, width).toLowerCase(java.util.Locale.ROOT));
    } else if (trouble < 970) {
      planted.add("tickets with no grower");
      line.cell("");
    } else if (trouble < 985) {
      planted.add("grower codes of former growers");
      line.grower(growers + 1L + random.nextInt(MasterTables.former(growers)), width);
    } else if (trouble < 995) {
      planted.add("grower codes with a wrong check letter");
      String code = WendleVale.growerNumber(number, width);
      line.cell(code.substring(0, code.length() - 1) + "Z");
    } else {
      planted.add("grower codes that nobody knows");
      line.cell("X" + (10_000 + random.nextInt(90_000)));
    }
  }

  private static void commodity(
      Line line, int commodity, SplittableRandom random, Planted planted) {
    String name = Vocabulary.COMMODITIES[commodity];
    if (random.nextInt(50) == 0) {
      planted.add("commodities with a capital letter");
      name = Character.toUpperCase(name.charAt(0)) + name.substring(1);
    }
    line.cell(name);
  }

  private static void variety(Line line, int commodity, SplittableRandom random, Planted planted) {
    if (random.nextInt(25) == 0) {
      planted.add("misspelt varieties");
      line.cell(Vocabulary.MISSPELT[random.nextInt(Vocabulary.MISSPELT.length)][0]);
    } else {
      line.cell(Vocabulary.VARIETIES[commodity][random.nextInt(3)]);
    }
  }

  private static void pack(Line line, SplittableRandom random, Planted planted) {
    int trouble = random.nextInt(200);
    if (trouble == 0) {
      planted.add("packs that are not in the container table");
      line.cell("wool bale");
    } else {
      line.cell(Vocabulary.PACKS[Math.min(4, random.nextInt(12) * random.nextInt(2) / 2)]);
    }
  }
}
