package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The commands that look at tables, on the demo data, against counting by hand. */
class AuditCommandsTest {
  @TempDir private static Path demo;

  @BeforeAll
  static void layOut() throws IOException {
    OneDemo.into(demo);
  }

  private static String file(String name) {
    return demo.resolve(name).toString();
  }

  private static JsonNode json(String... words) throws IOException {
    List<String> all = new ArrayList<>(List.of(words));
    all.add("--json");
    Cli.Gave gave = Cli.run(all.toArray(String[]::new));
    assertThat(gave.status()).as(gave.err()).isZero();
    return new ObjectMapper().readTree(gave.out());
  }

  /** A column of a demo table; its cells hold no commas before that column. */
  private static List<String> column(String name, int column) throws IOException {
    return Files.readAllLines(demo.resolve(name)).stream()
        .skip(1)
        .map(line -> line.split(",", -1)[column])
        .toList();
  }

  @Test
  void duplicatesAreThoseOfCounting() throws IOException {
    Map<String, Integer> rows = new HashMap<>();
    column("growers.csv", 0).forEach(key -> rows.merge(key.strip(), 1, Integer::sum));
    JsonNode found = json("duplicates", file("growers.csv"), "--key", "grower_no");
    long several = rows.values().stream().filter(count -> count > 1).count();
    long standing = rows.values().stream().filter(count -> count > 1).mapToInt(c -> c).sum();
    assertThat(found.at("/keys").asInt()).isEqualTo(rows.size());
    assertThat(found.at("/duplicate_keys").asInt()).isEqualTo((int) several);
    assertThat(found.at("/duplicate_rows").asInt()).isEqualTo((int) standing);
  }

  @Test
  void withoutDuplicatesThereIsOneRowForEachKey() throws IOException {
    Path left = demo.resolve("unique.csv");
    Path out = demo.resolve("twice.csv");
    Cli.Gave gave =
        Cli.run(
            "duplicates",
            file("growers.csv"),
            "--key",
            "grower_no",
            "--keep",
            "newest-by=updated_on",
            "--without",
            left.toString(),
            "--out",
            out.toString());
    assertThat(gave.status()).isZero();
    assertThat(gave.err()).contains("Read again: 0 keys on several rows");
    List<String> all = Files.readAllLines(demo.resolve("growers.csv"));
    List<String> kept = Files.readAllLines(left);
    Set<String> keys = new HashSet<>();
    kept.stream().skip(1).forEach(line -> assertThat(keys.add(line.split(",")[0])).isTrue());
    assertThat(all)
        .as("rows leave as they came")
        .containsAll(kept)
        .containsAll(Files.readAllLines(out));
    assertThat(keys).hasSize(new HashSet<>(column("growers.csv", 0)).size());
  }

  @Test
  void profilesCountWhatIsThere() throws IOException {
    JsonNode table = json("profile", file("tickets.csv")).at("/tables/0");
    JsonNode code = null;
    for (JsonNode column : table.at("/columns")) {
      code = column.at("/name").asText().equals("grower_code") ? column : code;
    }
    List<String> codes = column("tickets.csv", 3);
    assertThat(code).isNotNull();
    assertThat(code.at("/nulls").asLong())
        .isEqualTo(codes.stream().filter(String::isEmpty).count());
    assertThat(code.at("/distinct").asLong())
        .isEqualTo(codes.stream().filter(c -> !c.isEmpty()).distinct().count());
  }

  @Test
  void overlapsCountBothWays() throws IOException {
    Set<String> theirs = new HashSet<>(column("growers.csv", 0));
    List<String> ours = column("tickets.csv", 3);
    JsonNode found =
        json("overlap", file("tickets.csv"), file("growers.csv"), "--key", "grower_code=grower_no");
    assertThat(found.toString()).contains("drop-leading-zeros");
    long asWritten = ours.stream().filter(theirs::contains).count();
    assertThat(found.at("/matched_rows").asLong()).isEqualTo(asWritten);
    Cli.Gave text =
        Cli.run(
            "overlap",
            file("tickets.csv"),
            file("growers.csv"),
            "--key",
            "grower_code=grower_no",
            "--measure",
            "gross_kg");
    assertThat(text.out()).contains("normalise: [").contains("gross_kg");
  }

  @Test
  void bandsOfTheDemoHaveTheirPlantedTroubles() throws IOException {
    Cli.Gave gave =
        Cli.run(
            "duplicates",
            file("moisture-deductions.csv"),
            "--bands",
            "from_pct,to_pct",
            "--key",
            "commodity");
    assertThat(gave.status()).isZero();
    assertThat(gave.out()).contains("overlap").contains("gap").contains("open");
  }
}
