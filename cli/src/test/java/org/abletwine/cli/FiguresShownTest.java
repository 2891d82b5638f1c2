package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a reader is shown of figures of every kind, on the demo data. */
class FiguresShownTest {
  @TempDir private Path demo;

  @BeforeEach
  void layOut() throws IOException {
    OneDemo.into(demo);
  }

  private Cli.Gave run(String rest) throws IOException {
    Path plan =
        Files.writeString(
            demo.resolve("p.plan.yaml"),
            "able-twine: 1\n"
                + "transactions: { file: tickets.csv, types: { delivered_on: date } }\n"
                + rest);
    return Cli.run("run", "--figures", "all", plan.toString());
  }

  @Test
  void leastAndGreatestOfDatesTextAndCodesAreShownAsTheyStand() throws IOException {
    Cli.Gave gave =
        run(
            """
            steps: [{ compute: { crop: lower(trim(commodity)) } }]
            outputs:
              enriched: out/e.csv
              rollups:
                - by: [crop]
                  totals: [min(delivered_on), max(ticket_no), max(variety), sum(gross_kg), avg(moisture_pct)]
                  grand-total: true
                  file: out/r.csv
            """);
    assertThat(gave.status()).as(gave.err()).isZero();
    assertThat(gave.out())
        .contains("Totals by crop", "2026-06-30", "02999", "89,088,497", "Yelow Banner")
        .doesNotContain("Lookups");
    assertThat(Files.readAllLines(demo.resolve("out/r.csv")))
        .hasSize(6)
        .last()
        .asString()
        .startsWith("all,2026-06-30,03000,Yelow Banner,89088497,12.9387");
  }

  @Test
  void cellsThatCannotBeTotalledAreNamedOrCounted() throws IOException {
    String rollup =
        """
        steps: [{ keep: gross_kg > 0 }]
        outputs:
          enriched: out/e.csv
          rollups: [{ by: [commodity], totals: [variety], file: out/r.csv }]
        """;
    Cli.Gave fails = run(rollup);
    assertThat(fails.status()).isEqualTo(1);
    assertThat(fails.err())
        .contains("row 1, rollups, sum(variety): \"Old Tolley\" is not a number", "errors: null");
    assertThat(demo.resolve("out/e.csv")).doesNotExist();
    Cli.Gave counts = run("errors: null\n" + rollup);
    assertThat(counts.status()).isZero();
    assertThat(counts.out())
        .contains("totals by commodity: 3,000 values were passed over, such as row 1, rollups");
  }

  @Test
  void aBandAndWhatIsInForceAreOneLookupAndMissesNameTheirColumn() throws IOException {
    Files.writeString(
        demo.resolve("freight.csv"),
        """
        commodity,from_kg,to_kg,effective_from,freight
        oats,0,20000,2026-06-01,11.50
        oats,20000,,2026-06-01,9.80
        oats,20000,,2026-08-01,9.20
        barley,0,,2026-07-15,7
        """);
    String plan =
        """
        references: { freight: { file: freight.csv } }
        steps:
          - lookup: freight
            key:
              - commodity
              - { ours: gross_kg, theirs: [from_kg, to_kg], match: between }
              - { ours: delivered_on, theirs: effective_from, match: at-or-below }
            bring: [freight]
        outputs: { enriched: out/e.csv, exceptions: out/x.csv }
        """;
    Cli.Gave gave = run(plan);
    assertThat(gave.status()).as(gave.err()).isZero();
    assertThat(gave.out())
        .contains(
            "below the lowest, such as row 19, 26853 | 2026-07-02: delivered_on 13 days below");
    for (String line : Files.readAllLines(demo.resolve("out/e.csv"))) {
      String[] cells = line.split(",", -1);
      if (cells[4].equals("oats")) {
        boolean light = Integer.parseInt(cells[7]) < 20_000;
        boolean later = cells[1].compareTo("2026-08-01") >= 0;
        assertThat(cells[cells.length - 1])
            .as(line)
            .isEqualTo(light ? "11.50" : later ? "9.20" : "9.80");
      }
    }
    assertThat(Files.readString(demo.resolve("out/x.csv")))
        .contains("\"delivered_on 13 days below the lowest, 2026-07-15\"");
    Cli.Gave trace =
        Cli.run("trace", demo.resolve("p.plan.yaml").toString(), "--where", "commodity = 'oats'");
    assertThat(trace.out())
        .contains("key gross_kg between from_kg and to_kg", "the only row that fits");
  }

  @Test
  void rowsThatAggregatesPutTogetherAreNotSaidToAgree() throws IOException {
    String plan =
        """
        references: { g: { file: growers.csv, key: grower_no } }
        steps: [{ lookup: g, key: grower_code = grower_no, bring: [%s] }]
        outputs: { enriched: out/e.csv }
        """;
    assertThat(run(plan.formatted("max(updated_on) as newest")).out())
        .contains("12 keys of growers.csv stand on several rows, put together by the aggregates");
    assertThat(run(plan.formatted("name")).out())
        .contains("12 keys of growers.csv stand on several rows that agree, counted as one");
  }

  @Test
  void overlapTotalsAreExact() {
    Cli.Gave gave =
        Cli.run(
            "overlap",
            demo.resolve("tickets.csv").toString(),
            demo.resolve("growers.csv").toString(),
            "--key",
            "grower_code=grower_no",
            "--measure",
            "gross_kg");
    assertThat(gave.out()).contains("163,564  ").doesNotContain("163,564.00");
  }

  @Test
  void contradictingCorrectionsAreAllToldByCheck() throws IOException {
    Files.writeString(
        demo.resolve("variety-corrections.csv"),
        "written,meant,accept\nHarow,Harrow,yes\nHarow,Hollow,yes\nMero,,yes\n");
    Cli.Gave check = Cli.run("check", demo.resolve("harvest.plan.yaml").toString());
    assertThat(check.status()).isEqualTo(2);
    assertThat(check.out())
        .contains("rows 1 and 2 contradict each other")
        .contains("row 3: a correction needs both the written and the meant value");
    assertThat(
            Cli.run("run", "--figures", "all", demo.resolve("harvest.plan.yaml").toString()).err())
        .contains("rows 1 and 2 contradict each other");
  }

  @Test
  void theNewestByAColumnWithoutOrderIsRefused() throws IOException {
    String plan =
        """
        references: { g: { file: growers.csv, key: grower_no, duplicates: { newest-by: %s } } }
        steps: [{ lookup: g, key: grower_code = grower_no, bring: [name] }]
        outputs: { enriched: out/e.csv }
        """;
    Cli.Gave refused = run(plan.formatted("district_code"));
    assertThat(refused.status()).isEqualTo(1);
    assertThat(refused.err())
        .contains("growers.csv, row 17, column \"district_code\": \"D22\"")
        .contains("newest-by has no order to go by");
    assertThat(run(plan.formatted("updated_on")).status()).isZero();
  }
}
