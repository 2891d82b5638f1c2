package org.abletwine.examples;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.demo.WendleVale;
import org.abletwine.lookup.KeyPart;
import org.abletwine.plan.PlanFile;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ExamplesTest {
  @TempDir private Path demo;

  @BeforeEach
  void layOut() throws IOException {
    WendleVale.layOut(demo);
  }

  private String printed(java.util.function.Consumer<String[]> main) {
    return printed(() -> main.accept(new String[] {demo.toString()}));
  }

  /** What something prints. */
  static String printed(Runnable what) {
    PrintStream out = System.out;
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    System.setOut(new PrintStream(bytes, true, StandardCharsets.UTF_8));
    try {
      what.run();
    } finally {
      System.setOut(out);
    }
    return bytes.toString(StandardCharsets.UTF_8);
  }

  @Test
  void enrichOneFile() {
    assertThat(printed(EnrichOneFile::main))
        .contains("growers.csv: 2739 of 3000 matched, 187 unmatched, 31 ambiguous, 43 blank key");
    assertThat(demo.resolve("out/with-districts.csv")).isNotEmptyFile();
  }

  @Test
  void workbooksAndDatabases() {
    assertThat(printed(WorkbooksAndDatabases::main))
        .contains("3000 rows to tickets.xlsx sheet tickets")
        .contains("3000 rows to tickets.parquet")
        .contains("3000 rows to table tickets")
        .contains("growers: 2770 matched")
        .contains("retests: 81 matched");
    assertThat(demo.resolve("out/tickets.xlsx")).isNotEmptyFile();
    assertThat(demo.resolve("out/tickets.db")).isNotEmptyFile();
  }

  @Test
  void aPlanNamesAStepOfOnesOwn() throws IOException {
    Files.writeString(demo.resolve("weighed.csv"), "no,code\n1,KEL/000324R\n2,TAN/X99999\n");
    Path plan =
        Files.writeString(
            demo.resolve("own.plan.yaml"),
            String.join(
                "\n",
                "able-twine: 1",
                "transactions: { file: weighed.csv }",
                "references: { growers: { file: growers.csv, key: grower_no } }",
                "steps:",
                "  - lookup: growers",
                "    key: code = grower_no",
                "    normalise: [bridge:without-name, trim]",
                "    bring: name",
                "outputs: { enriched: out/weighed.csv }"));
    assertThat(PlanFile.load(plan).run(Progress.NONE).record().lookups().get(0).matched())
        .isEqualTo(1);
    Files.writeString(plan, Files.readString(plan).replace("without-name", "without-nam"));
    assertThatThrownBy(() -> PlanFile.load(plan))
        .hasMessageContaining("line 7")
        .hasMessageContaining("did you mean \"bridge:without-name\"?");
  }

  @Test
  void aPlanNamesARuleOfOnesOwn() throws IOException {
    Files.writeString(
        demo.resolve("typed.csv"), "no,code\n1,000324R\n2,000329R\n3,00324R\n4,XX0324R\n");
    Path plan =
        Files.writeString(
            demo.resolve("typed.plan.yaml"),
            String.join(
                "\n",
                "able-twine: 1",
                "transactions: { file: typed.csv }",
                "references: { meant: { file: meant.csv } }",
                "steps:",
                "  - lookup: meant",
                "    key: { ours: code, theirs: grower_no, match: 'code:one-digit-off' }",
                "    bring: name",
                "    mark: outcome",
                "outputs: { enriched: out/typed.csv }"));
    Files.writeString(demo.resolve("meant.csv"), "grower_no,name\n000324R,Thistle\n000229R,Fen\n");
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(Files.readString(demo.resolve("out/typed.csv")).lines())
        .containsExactly(
            "no,code,name,outcome",
            "1,000324R,Thistle,matched",
            "2,000329R,,ambiguous", // one off from each
            "3,00324R,,unmatched",
            "4,XX0324R,,unmatched");
    assertThat(PlanFile.load(plan).words(null).toString())
        .contains("whose grower_no matches our code by the rule code:one-digit-off");
    KeyPart part = KeyPart.parse("code code:one-digit-off grower_no");
    assertThat(part).hasToString("code code:one-digit-off grower_no");
    assertThat(part.match().own()).isEqualTo(new OneDigitOff());

    Files.writeString(plan, Files.readString(plan).replace("digit-off", "digit-of"));
    assertThatThrownBy(() -> PlanFile.load(plan))
        .hasMessageContaining("line 6")
        .hasMessageContaining("did you mean \"code:one-digit-off\"?");
    Files.writeString(
        plan, Files.readString(plan).replace("digit-of'", "digit-off', at-least: 0.5"));
    assertThatThrownBy(() -> PlanFile.load(plan)).hasMessageContaining("goes with match: similar");
  }

  @Test
  void recordsOfAProgram() {
    assertThat(printed(RecordsOfAProgram::main))
        .contains("Priced[ticketNo=X1, pricePerTonne=248.7]")
        .contains("Priced[ticketNo=X3, pricePerTonne=null]")
        .contains(" tickets of D01");
  }

  @Test
  void oneRecordAtATime() {
    assertThat(printed(OneRecordAtATime::main))
        .contains("'000324R'  matched    Thistle Meadow Farm")
        .contains("' 000238N ' matched    Larkfield Hollow Grange")
        .contains("'X99999'   unmatched  null")
        .contains("''         blank-key  null")
        .contains("[Merrow Bank Farm, Calder Bank Farm]");
  }

  @Test
  void priceInForce() {
    assertThat(printed(PriceInForce::main))
        .contains("prices.csv: 2958 matched, 42 unmatched, 0 ambiguous")
        .contains("42 below the lowest")
        .contains("moisture-deductions.csv: 2888 matched, 74 unmatched, 38 ambiguous");
  }

  @Test
  void tablesOfYourOwn() {
    assertThat(printed(TablesOfYourOwn::main).lines())
        .containsExactly(
            "ticket_no | grower_code | name",
            "1 | KEL/000324R | Thistle Meadow Farm",
            "2 | TAN/000238N | Larkfield Hollow Grange",
            "3 | TAN/X99999 | null",
            "4 | null | null",
            "that is all",
            "as written: 0",
            "bridge:without-name: 2",
            "trim: 0");
  }

  @Test
  void classifyRemarks() {
    assertThat(printed(ClassifyRemarks::main))
        .contains("after rain, moisture retest  matched    moisture   moisture + weather")
        .contains("all fine                     unmatched  null       null");
  }
}
