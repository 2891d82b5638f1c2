package org.abletwine.plan.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.plan.PlanFile;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.TableOptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From a table made by hand to the plan that makes it, and the cells that are not as it makes. */
class LikeDraftTest {
  private static final int ROWS = 60;

  @TempDir private Path folder;
  private final String[][] made = new String[ROWS][];

  @BeforeEach
  void tables() throws IOException {
    List<String> tickets = new ArrayList<>(List.of("no,grower,kg,tare,day"));
    for (int i = 0; i < ROWS; i++) {
      int grower = i % 12;
      String name = grower > 9 ? "nobody" : "Farm " + grower;
      String day = "2026-07-" + (10 + i % 20);
      int net = 1000 + i * 37 - (100 + i % 7);
      String rate = i % 20 >= 5 ? "2.50" : "2.00";
      tickets.add(String.format("%03d,G%d,%d,%d,%s", i, grower, 1000 + i * 37, 100 + i % 7, day));
      made[i] =
          new String[] {
            String.format("%03d", i),
            name,
            "" + net,
            rate,
            String.format(java.util.Locale.ROOT, "%.2f", net * Double.parseDouble(rate) / 1000)
          };
    }
    write("tickets.csv", tickets);
    List<String> growers = new ArrayList<>(List.of("grower_no,name"));
    for (int i = 0; i < 10; i++) {
      growers.add("G" + i + ",Farm " + i);
    }
    growers.add("G3,Farm 3 (old)");
    growers.add("X1,Elsewhere");
    write("growers.csv", growers);
    write("rates.csv", List.of("since,rate", "2026-07-01,2.00", "2026-07-15,2.50"));
  }

  private void write(String name, List<String> lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private LikeDraft draft() throws IOException {
    List<String> lines = new ArrayList<>(List.of("ticket,farm,net,rate,due"));
    Arrays.stream(made).map(row -> String.join(",", row)).forEach(lines::add);
    write("hand.csv", lines);
    return LikeDraft.of(
        folder.resolve("tickets.csv"),
        List.of(folder.resolve("growers.csv"), folder.resolve("rates.csv")),
        folder.resolve("hand.csv"),
        folder.resolve("p.plan.yaml"),
        TableOptions.NONE,
        Progress.NONE);
  }

  @Test
  void aTableWithoutSlipsIsMadeCellByCell() throws IOException {
    for (String[] row : made) {
      row[1] = row[1].equals("Farm 3") ? "nobody" : row[1]; // two rows of G3 disagree
    }
    LikeDraft draft = draft();
    assertThat(draft.untraced()).isEmpty();
    assertThat(draft.slips()).isEmpty();
    assertThat(draft.cells()).isEqualTo(ROWS * 5L);
    assertThat(draft.text()).contains("net: kg - tare", "round(net * rate / 1000, 2)");
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"), draft.text().replace("  report: out/report.html\n", ""));
    assertThat(PlanFile.check(plan)).isEmpty();
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(Files.readAllLines(folder.resolve("out/enriched.csv")).get(0))
        .isEqualTo("ticket,farm,net,rate,due");
  }

  @Test
  void eachKindOfSlipIsNamed() throws IOException {
    made[0][0] = "0"; // 000
    made[1][1] = "FARM 1";
    made[2][1] = "Farm  2";
    made[4][1] = "Farm 5";
    made[5][1] = "Elsewhere";
    made[6][1] = "";
    made[7][3] = "2.00";
    made[30][3] = "9.99";
    made[31][2] = "5";
    made[32][4] = "1.23";
    LikeDraft draft = draft();
    assertThat(draft.slips())
        .filteredOn(slip -> !slip.follows() && !"Farm 3".equals(slip.byHand()))
        .extracting(slip -> slip.row() + " " + slip.column() + ": " + slip.reason())
        .containsExactlyInAnyOrder(
            "1 ticket: a dropped zero",
            "2 farm: written in another case",
            "3 farm: written with other spaces",
            "5 farm: the value of another key, such as on row 6 of growers.csv",
            "6 farm: the value of another key, such as on row 12 of growers.csv",
            "7 farm: left blank",
            "8 rate: a stale value, of 2026-07-01 (row 1 of rates.csv)",
            "31 rate: typed over, or of another source",
            "32 net: typed over: the arithmetic gives another",
            "33 due: typed over: the arithmetic gives another");
    assertThat(draft.slips())
        .filteredOn(slip -> slip.row() == 4)
        .extracting(Slip::reason)
        .containsExactly("the first of several rows of the key (row 4 of growers.csv)");
  }

  @Test
  void rowsAreToldByAColumnOfBothOrByTheirOrder() throws IOException {
    write(
        "few.csv",
        List.of("no,farm", "007,Farm 7", "002,Farm 2", "004,Farm 4", "013,Farm 1", "005,Farm 9"));
    LikeDraft draft =
        LikeDraft.of(
            folder.resolve("tickets.csv"),
            List.of(folder.resolve("growers.csv")),
            folder.resolve("few.csv"),
            folder.resolve("p.plan.yaml"),
            TableOptions.NONE,
            Progress.NONE);
    assertThat(draft.slips()).extracting(Slip::key).containsExactly("005");
    assertThat(draft.missing()).isEqualTo(ROWS - 5);
    write("other.csv", List.of("farm", "Farm 7", "Farm 2"));
    assertThatThrownBy(
            () ->
                LikeDraft.of(
                    folder.resolve("tickets.csv"),
                    List.of(folder.resolve("growers.csv")),
                    folder.resolve("other.csv"),
                    folder.resolve("p.plan.yaml"),
                    TableOptions.NONE,
                    Progress.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("no column of both tells which row is which");
  }

  @Test
  void aTableOfOtherTablesIsRefused() throws IOException {
    for (String[] row : made) {
      Arrays.fill(row, "?");
    }
    assertThatThrownBy(this::draft)
        .isInstanceOf(DataException.class)
        .hasMessageContaining("were these the tables it was made from?");
  }

  @Test
  void everyFormOfArithmeticIsFound() {
    double[][] inputs = new double[3][40];
    java.util.Random random = new java.util.Random(3);
    for (double[] input : inputs) {
      Arrays.setAll(input, i -> 1 + random.nextInt(9000) / 100.0);
    }
    for (Formula.Form form : Formula.Form.values()) {
      for (Formula.Scale scale : Formula.Scale.values()) {
        double[] wanted = new double[40];
        for (int i = 0; i < wanted.length; i++) {
          double exact = form.of(inputs[0][i], inputs[1][i], inputs[2][i]) * scale.factor;
          wanted[i] = Math.round(exact * 10_000) / 10_000.0;
        }
        wanted[5] = 1e6; // a slip does not hide it
        FormulaSearch search = new FormulaSearch();
        for (int i = 0; i < inputs.length; i++) {
          search.add("c" + i, inputs[i], 2);
        }
        Formula found = search.find(wanted, 4);
        assertThat(found).as(form + " " + scale).isNotNull();
        for (int i = 0; i < wanted.length; i++) {
          if (i != 5) {
            List<java.math.BigDecimal> values = new ArrayList<>();
            for (String name : found.inputs()) {
              values.add(java.math.BigDecimal.valueOf(inputs[name.charAt(1) - '0'][i]));
            }
            assertThat(found.of(values).doubleValue())
                .isCloseTo(wanted[i], org.assertj.core.data.Offset.offset(0.00011));
          }
        }
      }
    }
  }
}
