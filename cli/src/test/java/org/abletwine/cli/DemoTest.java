package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.demo.Planted;
import org.abletwine.demo.WendleVale;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The demo from end to end: what was planted is what the figures show. */
class DemoTest {
  @TempDir private Path folder;
  private Path demo;

  @BeforeEach
  void layOut() {
    demo = folder.resolve("vale");
  }

  @Test
  void runsAndSaysWhatToDoNext() {
    Cli.Gave gave = Cli.run("demo", demo.toString());
    assertThat(gave.err()).isEmpty();
    assertThat(gave.status()).isZero();
    assertThat(gave.out())
        .contains("3,000 rows in and out", "All 10 controls hold", "Needs a person", "--preview 5")
        .doesNotContain("\u001b");
    assertThat(demo.resolve("out/enriched.csv")).isNotEmptyFile();
  }

  @Test
  void theSameSeedGivesTheSameBytes() throws IOException {
    Path other = Files.createDirectory(folder.resolve("other"));
    Files.createDirectory(demo);
    WendleVale.write(demo, 500, 50, 7);
    WendleVale.write(other, 500, 50, 7);
    assertThat(demo.resolve("tickets.csv")).hasSameBinaryContentAs(other.resolve("tickets.csv"));
    assertThat(demo.resolve("growers.csv")).hasSameBinaryContentAs(other.resolve("growers.csv"));
  }

  @Test
  void figuresAgreeWithWhatWasPlanted() throws IOException {
    Planted planted = WendleVale.layOut(demo);
    Cli.Gave gave = Cli.run("run", demo.resolve("harvest.plan.yaml").toString(), "--json");
    JsonNode record = new ObjectMapper().readTree(gave.out());
    JsonNode growers = record.at("/lookups/0");
    assertThat(growers.at("/blank_key").asLong())
        .isEqualTo(planted.count("tickets with no grower"));
    assertThat(growers.at("/keys_on_several_rows").asLong())
        .isEqualTo(
            planted.count("growers registered twice, rows conflicting")
                + planted.count("growers registered twice, rows alike"));
    JsonNode packs = record.at("/lookups/9");
    assertThat(packs.at("/unmatched").asLong())
        .isEqualTo(planted.count("packs that are not in the container table"));
    JsonNode prices = record.at("/lookups/5");
    assertThat(prices.at("/unmatched").asLong())
        .isEqualTo(planted.count("tickets delivered before the first price is in force"));
    assertThat(prices.at("/misses/0/kind").asText()).isEqualTo("below the lowest");
    assertThat(record.at("/lookups/6/misses/0/kind").asText()).isEqualTo("in a gap");
    assertThat(record.at("/lookups/6/ambiguous").asLong()).isPositive();
    assertThat(Files.readString(demo.resolve("out/run.json"))).contains("\"rows_in\" : 3000");
    record
        .at("/lookups")
        .forEach(
            lookup ->
                assertThat(
                        lookup.at("/matched").asLong()
                            + lookup.at("/unmatched").asLong()
                            + lookup.at("/ambiguous").asLong()
                            + lookup.at("/blank_key").asLong())
                    .isEqualTo(lookup.at("/rows").asLong()));
  }

  @Test
  void aFolderOfOthersIsLeftAlone() throws IOException {
    Files.createDirectory(demo);
    Files.writeString(demo.resolve("thesis.txt"), "years of work");
    Cli.Gave gave = Cli.run("demo", demo.toString());
    assertThat(gave.status()).isEqualTo(1);
    assertThat(gave.err()).contains("holds other files");
    assertThat(demo.resolve("thesis.txt")).hasContent("years of work");
  }

  /** A folder with tickets of somebody else is no demo, whatever its files are called. */
  @Test
  void ticketsOfOthersAreNotOverwritten() throws IOException {
    Files.createDirectory(demo);
    for (String name : new String[] {"tickets.csv", "README.md", "harvest.plan.yaml"}) {
      Files.writeString(demo.resolve(name), "mine");
    }
    for (String[] more : new String[][] {{}, {"--tickets", "5"}}) {
      String[] words =
          more.length == 0
              ? new String[] {"demo", "" + demo}
              : new String[] {"demo", "" + demo, more[0], more[1]};
      assertThat(Cli.run(words).status()).isEqualTo(1);
    }
    assertThat(demo.resolve("tickets.csv")).hasContent("mine");
    assertThat(demo.resolve("README.md")).hasContent("mine");
  }

  @Test
  void aDemoIsLaidOutAnewWhereThereIsOne() throws IOException {
    assertThat(Cli.run("demo", "" + demo, "--tickets", "5").status()).isZero();
    assertThat(Cli.run("demo", "" + demo, "--tickets", "9").status()).isZero();
    assertThat(Files.readAllLines(demo.resolve("tickets.csv"))).hasSize(10);
  }

  @Test
  void previewShowsRowsAndWritesNothing() throws IOException {
    WendleVale.layOut(demo);
    Cli.Gave gave = Cli.run("run", demo.resolve("harvest.plan.yaml").toString(), "--preview", "4");
    assertThat(gave.status()).isZero();
    assertThat(gave.out()).contains("grower_name", "Preview of the first 4 rows", "00004");
    assertThat(demo.resolve("out")).isEmptyDirectory();
    assertThat(
            Cli.run("run", demo.resolve("harvest.plan.yaml").toString(), "--preview", "0").status())
        .isEqualTo(2);
  }
}
