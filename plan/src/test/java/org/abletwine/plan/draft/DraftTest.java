package org.abletwine.plan.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.figures.LookupFigures;
import org.abletwine.plan.PlanFile;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a draft finds in tables that are made for it, and that it always is a plan. */
class DraftTest {
  @TempDir private Path folder;

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private Draft draft(String transactions, String... references) {
    List<Path> files = new ArrayList<>();
    for (String reference : references) {
      files.add(folder.resolve(reference));
    }
    return Draft.of(
        folder.resolve(transactions),
        files,
        folder.resolve("p.plan.yaml"),
        TableOptions.NONE,
        Progress.NONE);
  }

  /** Saves the draft, checks it, and runs it. */
  private void holds(Draft draft) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            draft.text().replace("  report: out/report.html\n", "")); // made by another module
    assertThat(PlanFile.check(plan)).as(draft.text()).isEmpty();
    assertThat(PlanFile.load(plan).run(Progress.NONE).record().lookups())
        .extracting(LookupFigures::matched)
        .isEqualTo(draft.figures().lookups().stream().map(LookupFigures::matched).toList());
  }

  private String[] tickets(int count) {
    Random random = new Random(1);
    String[] lines = new String[count + 1];
    lines[0] = "no,grower_code,crop,mark,day,pct,remark";
    for (int i = 1; i <= count; i++) {
      int grower = 1 + random.nextInt(40);
      lines[i] =
          "T"
              + i
              + ","
              + (i % 9 == 0 ? " g" + grower : "G" + grower)
              + ","
              + List.of("oats", "wheat", "rye").get(i % 3)
              + ",M"
              + (1 + i % 4)
              + ",2026-07-"
              + (10 + i % 20)
              + ","
              + (80 + random.nextInt(90)) / 10.0
              + ","
              + List.of("", "rain at noon", "all well", "rain and hail").get(i % 4);
    }
    return lines;
  }

  private void growers() throws IOException {
    List<String> lines = new ArrayList<>(List.of("grower_no,name,district_code,updated_on"));
    for (int i = 1; i <= 40; i++) {
      lines.add("G" + i + ",Farm " + i + ",D" + i % 5 + ",2025-01-0" + (1 + i % 9));
    }
    lines.add("G7,Farm 7,D9,2026-02-01");
    write("growers.csv", lines.toArray(String[]::new));
  }

  @Test
  void findsAKeyItsStepsItsDuplicatesAndAChain() throws IOException {
    write("tickets.csv", tickets(200));
    growers();
    write(
        "districts.csv",
        "district_code,name",
        "D0,North",
        "D1,South",
        "D2,East",
        "D3,West",
        "D4,Mid",
        "D9,Far");
    Draft draft = draft("tickets.csv", "districts.csv", "growers.csv");
    assertThat(draft.text())
        .containsSubsequence(
            "growers: { file: growers.csv, duplicates: { newest-by: updated_on } }",
            "1 key of growers.csv stands on several rows, 1 that differ",
            "- lookup: growers",
            "key: grower_code = grower_no",
            "normalise: [trim, ignore-case]",
            "bring: [name as grower_name, district_code]",
            "- lookup: districts",
            "key: district_code",
            "bring: [name as district_name]");
    assertThat(draft.unused()).isEmpty();
    holds(draft);
  }

  @Test
  void findsCompositeKeysDatesInForceBandsAndPatterns() throws IOException {
    write("tickets.csv", tickets(400));
    List<String> grades = new ArrayList<>(List.of("crop,mark,grade_name"));
    List<String> prices = new ArrayList<>(List.of("crop,effective_from,price"));
    List<String> bands = new ArrayList<>(List.of("crop,from_pct,to_pct,deduction"));
    for (String crop : List.of("oats", "wheat", "rye")) {
      for (int mark = 1; mark <= 4; mark++) {
        grades.add(crop + ",M" + mark + ",Grade " + mark + " " + crop);
      }
      prices.add(crop + ",2026-07-01,100");
      prices.add(crop + ",2026-07-15,110");
      bands.add(crop + ",,12.0,0");
      bands.add(crop + ",12.0,14.0,1.5");
      bands.add(crop + ",14.0,,3");
    }
    write("grades.csv", grades.toArray(String[]::new));
    write("prices.csv", prices.toArray(String[]::new));
    write("pct-bands.csv", bands.toArray(String[]::new));
    write("remarks.csv", "pattern,class", "rain*,weather", "*hail*,damage", "*mouse*,pest");
    Draft draft = draft("tickets.csv", "grades.csv", "prices.csv", "pct-bands.csv", "remarks.csv");
    assertThat(draft.text())
        .contains("key: [crop, mark]")
        .contains("key: [crop, { ours: day, theirs: effective_from, match: at-or-below }]")
        .contains("key: [crop, { ours: pct, theirs: [from_pct, to_pct], match: between }]")
        .contains("key: { ours: remark, theirs: pattern, match: wildcard }");
    holds(draft);
  }

  @Test
  void findsCorrectionsAndASecondReferenceForWhatTheFirstLeft() throws IOException {
    List<String> rows = new ArrayList<>(List.of("no,variety"));
    for (int i = 0; i < 300; i++) {
      rows.add(i + "," + List.of("Merow Gold", "Thistle", "Kestrel", "Old Tolley").get(i % 4));
    }
    rows.add("900,Merow Golb");
    rows.add("901,Thistel");
    rows.add("902,Thistel");
    rows.add("903,Bygone");
    rows.add("904,Bygone");
    write("tickets.csv", rows.toArray(String[]::new));
    write(
        "varieties.csv",
        "variety,crop",
        "Merow Gold,oats",
        "Thistle,rye",
        "Kestrel,rye",
        "Old Tolley,pea");
    write("former.csv", "variety,crop", "Bygone,oats", "Passed,rye");
    write("fixes.csv", "wrong,right,accept", "Merow Golb,Merow Gold,yes", "Thistel,Thistle,no");
    Draft draft = draft("tickets.csv", "varieties.csv", "former.csv", "fixes.csv");
    assertThat(draft.text())
        .containsSubsequence(
            "where: \"accept = 'yes'\"",
            "- correct: variety",
            "written: wrong",
            "meant: right",
            "- lookup: varieties",
            "otherwise:",
            "{ reference: former, key: variety, bring: [crop] }");
    holds(draft);
  }

  /**
   * Names with an ending on one side only, dates and numbers in forms of their own, words for null.
   */
  @Test
  void strangeFilesAreReadAsTheyAreWritten() throws IOException {
    write(
        "deliveries.csv",
        "Depot;Day;t;Rest",
        "Kelder Mill;03.07.2026;24,310;1",
        "KELDER MILL;14.07.2026;31,450;2",
        "Marsh Lane;20.07.2026;18,900;n/a",
        "Oxlade Halt;21.07.2026;7,800;4");
    write(
        "depots.csv",
        "depot_name,district,updated_on",
        "Kelder Mill Depot,North,2026-01-01",
        "Marsh Lane Depot,Low,2026-01-01",
        "Oxlade Halt Depot,Low,2026-01-01",
        "Oxlade Halt Depot,High,2026-02-01",
        "Far End Depot,High,2026-01-01");
    write("rates.csv", "from_day;rate", "01.07.2026;1", "15.07.2026;2");
    write("districts.csv", "district,head", "North,Ash", "Low,Oak", "High,Elm");
    Draft draft = draft("deliveries.csv", "depots.csv", "rates.csv", "districts.csv");
    assertThat(draft.text())
        .contains("nulls: [n/a], types: { Day: { date: dd.MM.yyyy } }")
        .contains("types: { from_day: { date: dd.MM.yyyy } }")
        .contains("normalise: [trim, drop-suffix: \" Depot\", ignore-case]")
        .contains("match: at-or-below")
        .contains("deliveries: t is written as { decimal:");
    assertThat(draft.figures().lookups())
        .extracting(LookupFigures::name, LookupFigures::matched)
        .contains(
            org.assertj.core.groups.Tuple.tuple("depots", 4L),
            org.assertj.core.groups.Tuple.tuple("rates", 4L),
            org.assertj.core.groups.Tuple.tuple("districts", 4L));
    holds(draft);
  }

  @Test
  void howTablesAreReadIsWrittenIntoThePlan() throws IOException {
    Files.write(
        folder.resolve("t.csv"),
        "no;größe\n1;klein\n2;groß\n3;n/a\n"
            .getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
    Files.write(
        folder.resolve("r.csv"),
        "größe;kg\nklein;1\ngroß;2\nriesig;3\n"
            .getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
    Draft draft =
        Draft.of(
            folder.resolve("t.csv"),
            List.of(folder.resolve("r.csv")),
            folder.resolve("p.plan.yaml"),
            new TableOptions(';', null, true, "iso-8859-1", List.of("n/a"), true),
            Progress.NONE);
    assertThat(draft.text())
        .contains(
            "{ file: t.csv, delimiter: \";\", header: true, encoding: iso-8859-1, nulls: [n/a],"
                + " ragged: pad }");
    assertThat(draft.figures().lookups().get(0).matched()).isEqualTo(2);
    holds(draft);
  }

  @Test
  void saysWhatJoinsNothingAndWhatOnlyAnAnalystCanKnow() throws IOException {
    write("tickets.csv", tickets(50));
    growers();
    write("moons.csv", "moon,size", "Io,3", "Ganymede,5");
    write("sites.csv", "grower_no,site_status", "G1,open", "G2,closed");
    Draft draft = draft("tickets.csv", "growers.csv", "moons.csv");
    assertThat(draft.unused()).containsExactly("moons");
    assertThat(draft.text())
        .contains("# moons: { file: moons.csv }   joins nothing that was found")
        .contains("- moons joins nothing that was found. By which column does it?");
    holds(draft);
    assertThatThrownBy(() -> draft("tickets.csv", "moons.csv"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("no reference joins");
  }

  @Test
  void oddNamesAndValuesMakeAPlanToo() throws IOException {
    write(
        "tickets.csv",
        "\"Postal code\",yes,\"a, b\",\" on \",\"x as y\",größe,\"say \"\"so\"\"\",${month},1st",
        "A-1,1,k1,z,p,q1,r,s,t",
        "A-2,2,k2,z,p,q2,r,s,t",
        "A-3,3,k3,z,p,q3,r,s,t",
        "# not a comment: [x],4,k4,z,p,q4,r,s,t");
    write(
        "the list: odd.csv",
        "\"Postal code\",\"to: place\",\"- x\",\"say \"\"so\"\"\"",
        "A-1,one,1,2",
        "A-2,\"two\u202E\",1,2",
        "A-3,three,1,3",
        "# not a comment: [x],four,1,4");
    write("größe.csv", "größe,${month}", "q1,a", "q2,b", "q3,c", "q4,d");
    Draft draft = draft("tickets.csv", "the list: odd.csv", "größe.csv");
    assertThat(draft.figures().lookups()).extracting(LookupFigures::matched).containsOnly(4L);
    assertThat(draft.figures().lookups()).hasSize(2);
    holds(draft);
  }

  /** Whatever the tables are, what comes out is a plan that can be run. */
  @Test
  void randomTablesMakePlans() throws IOException {
    int drafted = 0;
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      int columns = 1 + random.nextInt(5);
      write("t.csv", table(random, columns, 1 + random.nextInt(60)));
      write("r.csv", table(random, 1 + random.nextInt(4), random.nextInt(30)));
      write("s.csv", table(random, 1 + random.nextInt(4), random.nextInt(30)));
      try {
        holds(draft("t.csv", "r.csv", "s.csv"));
        drafted++;
      } catch (DataException e) {
        assertThat(e)
            .as(seed + " " + Files.readString(folder.resolve("r.csv")) + folder)
            .hasMessageContaining("no reference joins");
      }
    }
    assertThat(drafted).isGreaterThan(20);
  }

  private static String[] table(Random random, int columns, int rows) {
    String[] names = {"grower", "name", "from_day", "to_day", "kg", "code", "day", "pattern"};
    int first = random.nextInt(names.length);
    String[] lines = new String[rows + 1];
    for (int row = 0; row <= rows; row++) {
      StringBuilder line = new StringBuilder();
      for (int column = 0; column < columns; column++) {
        int at = (first + column) % names.length;
        line.append(column == 0 ? "" : ",");
        line.append(row == 0 ? names[at] : cell(random, at));
      }
      lines[row] = line.toString();
    }
    return lines;
  }

  private static String cell(Random random, int column) {
    int some = random.nextInt(12);
    return some == 0
        ? "\"\""
        : switch (column) {
          case 2, 3, 6 -> "2026-0" + (1 + random.nextInt(9)) + "-1" + random.nextInt(9);
          case 4 -> "" + random.nextInt(40);
          case 7 -> List.of("a*", "*b*", "c").get(random.nextInt(3));
          default -> (random.nextBoolean() ? "K" : "k") + random.nextInt(15);
        };
  }

  @Test
  void whatCannotBeDraftedFromIsRefused() throws IOException {
    write("empty.csv", "no,grower_code");
    write("tickets.csv", tickets(5));
    growers();
    assertThatThrownBy(() -> draft("empty.csv", "growers.csv"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("has no rows");
    Files.createDirectories(folder.resolve("old"));
    Files.copy(folder.resolve("growers.csv"), folder.resolve("old/growers.csv"));
    assertThatThrownBy(() -> draft("tickets.csv", "growers.csv", "old/growers.csv"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("two references would be called \"growers\"");
  }

  @Test
  void aSampleIsTakenAtEvenDistancesAndTheSameEachTime() throws IOException {
    String[] lines = new String[1_001];
    lines[0] = "n";
    for (int i = 1; i <= 1_000; i++) {
      lines[i] = "" + (i - 1);
    }
    write("n.csv", lines);
    SampleTable sample =
        SampleTable.of(org.abletwine.table.Tables.file(folder.resolve("n.csv")), 100);
    assertThat(sample.allRows()).isEqualTo(1_000);
    assertThat(sample.whole()).isFalse();
    assertThat(sample.count()).isBetween(50, 101);
    int distance = Integer.parseInt(sample.columns().get(0).value(1));
    for (int row = 0; row < sample.count(); row++) {
      assertThat(sample.columns().get(0).value(row)).isEqualTo("" + row * distance);
    }
  }
}
