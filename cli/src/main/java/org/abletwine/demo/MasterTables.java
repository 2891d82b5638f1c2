package org.abletwine.demo;

import java.io.IOException;
import java.nio.file.Path;
import java.util.SplittableRandom;

/** Writes the references of the scenario. */
final class MasterTables {
  private MasterTables() {}

  static void write(Path folder, int growers, long seed, Planted planted) throws IOException {
    growers(folder.resolve("growers.csv"), growers, seed, planted);
    formerGrowers(folder.resolve("former_growers.csv"), growers);
    districts(folder.resolve("districts.csv"));
    regions(folder.resolve("regions.csv"));
    sites(folder.resolve("sites.csv"));
    grades(folder.resolve("grades.csv"));
    prices(folder.resolve("prices.csv"));
    moisture(folder.resolve("moisture-deductions.csv"));
    containers(folder.resolve("containers.csv"));
    varieties(folder.resolve("varieties.csv"));
    corrections(folder.resolve("variety-corrections.csv"));
    remarks(folder.resolve("remark-patterns.csv"));
  }

  /** Number of growers who left; their numbers follow on the growers'. */
  static int former(int growers) {
    return Math.max(5, growers / 20);
  }

  private static void growers(Path file, int growers, long seed, Planted planted)
      throws IOException {
    SplittableRandom random = new SplittableRandom(seed ^ 0x51ED270B);
    int width = WendleVale.growerWidth(growers);
    try (Line line =
        new Line(file, "grower_no,name,district_code,mobile,landline,office_phone,updated_on")) {
      for (int number = 1; number <= growers; number++) {
        String name = Vocabulary.farm(number);
        String district = district(random.nextInt(Vocabulary.DISTRICTS.length));
        int phones = random.nextInt(100);
        boolean none = phones < 4;
        if (none) {
          planted.add("growers with no phone at all");
        }
        String mobile = !none && phones < 75 ? phone(random, "07") : "";
        String landline = !none && phones >= 60 && phones < 90 ? phone(random, "01") : "";
        String office = !none && (phones >= 85 || phones < 20) ? phone(random, "02") : "";
        if (!none && mobile.isEmpty() && landline.isEmpty() && office.isEmpty()) {
          mobile = phone(random, "07");
        }
        String updated = "2025-" + two(1 + random.nextInt(12)) + "-" + two(1 + random.nextInt(28));
        grower(line, number, width, name, district, mobile, landline, office, updated);
        if (number % 60 == 17) {
          planted.add("growers registered twice, rows alike");
          grower(line, number, width, name, district, mobile, landline, office, updated);
        } else if (number % 84 == 42) {
          planted.add("growers registered twice, rows conflicting");
          String other = district(random.nextInt(Vocabulary.DISTRICTS.length - 1));
          other = other.equals(district) ? district(Vocabulary.DISTRICTS.length - 1) : other;
          grower(
              line,
              number,
              width,
              name,
              other,
              phone(random, "07"),
              "",
              "",
              "2026-03-" + two(1 + number % 28));
        }
      }
    }
  }

  private static void grower(
      Line line,
      int number,
      int width,
      String name,
      String district,
      String mobile,
      String landline,
      String office,
      String updated)
      throws IOException {
    line.grower(number, width).cell(name).cell(district).cell(mobile).cell(landline);
    line.cell(office).cell(updated).end();
  }

  private static String phone(SplittableRandom random, String prefix) {
    return prefix + " 5550 " + (100_000 + random.nextInt(900_000));
  }

  private static String two(int number) {
    return number < 10 ? "0" + number : Integer.toString(number);
  }

  static String district(int index) {
    return "D" + two(index + 1);
  }

  private static void formerGrowers(Path file, int growers) throws IOException {
    int width = WendleVale.growerWidth(growers);
    try (Line line = new Line(file, "grower_no,name,left_on")) {
      for (int i = 1; i <= former(growers); i++) {
        line.grower(growers + i, width).cell(Vocabulary.farm(growers + 3L * i));
        line.cell("2026-0" + (1 + i % 6) + "-28").end();
      }
    }
  }

  private static void districts(Path file) throws IOException {
    try (Line line = new Line(file, "district_code,district_name,region_code")) {
      for (int i = 0; i < Vocabulary.DISTRICTS.length; i++) {
        line.cell(district(i)).cell(Vocabulary.DISTRICTS[i]);
        line.cell("R" + (1 + i % Vocabulary.REGIONS.length)).end();
      }
    }
  }

  private static void regions(Path file) throws IOException {
    try (Line line = new Line(file, "region_code,region_name")) {
      for (int i = 0; i < Vocabulary.REGIONS.length; i++) {
        line.cell("R" + (i + 1)).cell(Vocabulary.REGIONS[i]).end();
      }
    }
  }

  private static void sites(Path file) throws IOException {
    try (Line line = new Line(file, "site_code,site_name,site_status")) {
      for (int i = 0; i < Vocabulary.SITES.length; i++) {
        line.cell(Vocabulary.SITES[i]).cell(Vocabulary.SITE_NAMES[i]);
        line.cell(i == 6 ? "closed" : "open").end();
      }
    }
  }

  private static void grades(Path file) throws IOException {
    try (Line line = new Line(file, "commodity,grade,grade_name")) {
      for (int c = 0; c < Vocabulary.COMMODITIES.length; c++) {
        for (int g = 0; g < Vocabulary.GRADES.length; g++) {
          line.cell(Vocabulary.COMMODITIES[c]).cell(Vocabulary.GRADES[g]);
          line.text(Vocabulary.GRADE_NAMES[c][g]).end();
        }
      }
    }
  }

  private static void prices(Path file) throws IOException {
    String[] from = {"2026-07-01", "2026-07-20", "2026-08-10", "2026-09-01"};
    int[] base = {245, 228, 212, 540};
    try (Line line = new Line(file, "commodity,grade,effective_from,price_per_tonne")) {
      for (int c = 0; c < base.length; c++) {
        for (int g = 0; g < Vocabulary.GRADES.length; g++) {
          for (int d = 0; d < from.length; d++) {
            int tenths = base[c] * 10 - g * 165 + d * 37 - (d == 2 ? 90 : 0);
            line.cell(Vocabulary.COMMODITIES[c]).cell(Vocabulary.GRADES[g]).cell(from[d]);
            line.tenths(tenths).end();
          }
        }
      }
    }
  }

  /** Bands with a gap in oats (16.0 to 16.5) and an overlap in canola (9.0 to 9.5). */
  private static void moisture(Path file) throws IOException {
    String[] bands = {
      "wheat,,12.5,0",
      "wheat,12.5,14.0,1.5",
      "wheat,14.0,16.0,3.2",
      "wheat,16.0,,6.0",
      "barley,,12.5,0",
      "barley,12.5,14.5,1.2",
      "barley,14.5,,4.0",
      "oats,,13.0,0",
      "oats,13.0,16.0,1.8",
      "oats,16.5,,5.0",
      "canola,,8.0,0",
      "canola,8.0,9.5,2.0",
      "canola,9.0,,5.5"
    };
    try (Line line = new Line(file, "commodity,from_pct,to_pct,deduction_pct")) {
      for (String band : bands) {
        line.cell(band).end();
      }
    }
  }

  private static void containers(Path file) throws IOException {
    try (Line line = new Line(file, "pack,pack_kg")) {
      for (int i = 0; i < Vocabulary.PACKS.length; i++) {
        line.cell(Vocabulary.PACKS[i]).number(Vocabulary.PACK_KG[i], 1).end();
      }
    }
  }

  private static void varieties(Path file) throws IOException {
    try (Line line = new Line(file, "variety,variety_code,bred_for")) {
      for (int c = 0; c < Vocabulary.VARIETIES.length; c++) {
        for (int v = 0; v < Vocabulary.VARIETIES[c].length; v++) {
          line.cell(Vocabulary.VARIETIES[c][v]);
          line.cell("V" + (c + 1) + (v + 1)).cell(Vocabulary.COMMODITIES[c]).end();
        }
      }
    }
  }

  private static void corrections(Path file) throws IOException {
    try (Line line = new Line(file, "written,meant,accept")) {
      for (int i = 0; i < Vocabulary.MISSPELT.length; i++) {
        String[] pair = Vocabulary.MISSPELT[i];
        line.cell(pair[0]).cell(pair[1]).cell(i == 7 ? "no" : "yes").end();
      }
      line.cell("Tamsyn").cell("Tamsin").cell("yes").end();
    }
  }

  private static void remarks(Path file) throws IOException {
    String[] patterns = {
      "*insects*,pest", "*weevil*,pest", "*moisture*,moisture", "*damp*,moisture",
      "*sample*,sampling", "*reweigh*,weighing", "*spillage*,loss", "*rain*,weather"
    };
    try (Line line = new Line(file, "pattern,remark_class")) {
      for (String pattern : patterns) {
        line.cell(pattern).end();
      }
    }
  }
}
