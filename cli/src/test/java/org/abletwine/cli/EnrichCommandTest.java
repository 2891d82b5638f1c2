package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class EnrichCommandTest {
  @TempDir private Path folder;
  private String tickets;
  private String growers;
  private String out;

  @BeforeEach
  void tables() throws IOException {
    tickets =
        Files.writeString(folder.resolve("tickets.csv"), "no,grower\n1,G1\n2,G9\n3,G2\n")
            .toString();
    growers =
        Files.writeString(
                folder.resolve("growers.csv"), "grower_no,name,phone\nG1,Thistle,1\nG2,Merrow,\n")
            .toString();
    out = folder.resolve("out.csv").toString();
  }

  private Cli.Gave enrich(String... more) {
    String[] args = new String[6 + more.length];
    System.arraycopy(
        new String[] {"enrich", tickets, "--from", growers, "--key", "grower=grower_no"},
        0,
        args,
        0,
        6);
    System.arraycopy(more, 0, args, 6, more.length);
    return Cli.run(args);
  }

  @Test
  void writesAFileAndPrintsTheFigures() {
    Cli.Gave gave =
        enrich(
            "--bring",
            "name as grower_name,phone",
            "--fill",
            "grower_name=Unlisted",
            "--fill-empty",
            "phone=none",
            "--mark",
            "outcome",
            "--out",
            out);
    assertThat(gave.err()).isEmpty();
    assertThat(Path.of(out))
        .hasContent(
            """
            no,grower,grower_name,phone,outcome
            1,G1,Thistle,1,matched
            2,G9,Unlisted,,unmatched
            3,G2,Merrow,none,matched
            """);
    assertThat(gave.out()).contains("3 rows in and out", "66.7", "Wrote " + out, "LF", "UTF-8");
  }

  @Test
  void rowsGoToStandardOutputAndFiguresAside() {
    Cli.Gave gave = enrich("--bring", "name");
    assertThat(gave.out()).isEqualTo("no,grower,name\n1,G1,Thistle\n2,G9,\n3,G2,Merrow\n");
    assertThat(gave.err()).contains("3 rows in and out");
  }

  @Test
  void transactionsMayComeFromStandardInput() {
    Cli.Gave gave =
        Cli.runWith(
            "no;grower\n7;G2\n",
            "enrich",
            "-",
            "--from",
            growers,
            "--key",
            "grower=grower_no",
            "--bring",
            "all");
    assertThat(gave.out()).isEqualTo("no;grower;name;phone\n7;G2;Merrow;\n");
  }

  @Test
  void wrongUseSaysWhatWouldBeRight() {
    assertRefused(2, "did you mean \"name\"?", "--bring", "nam", "--out", out);
    assertRefused(
        2, "did you mean \"first\"?", "--bring", "name", "--several", "fist", "--out", out);
    assertRefused(2, "source tables are never changed", "--bring", "name", "--out", growers);
    assertRefused(2, "stands alone", "--bring", "name", "--normalise", "none,trim", "--out", out);
    assertRefused(
        2, "do not go together", "--bring", "name", "--fill", "name=x", "--unmatched", "drop");
    assertRefused(1, "is not a folder", "--bring", "name", "--out", growers + "/o.csv");
    assertRefused(1, "row 2 is unmatched", "--bring", "name", "--unmatched", "fail", "--out", out);
    assertThat(Cli.run("enrich", tickets).err()).contains("--from", "--help");
    assertThat(Cli.run("enrch").err()).contains("enrich");
    assertThat(Cli.run().status()).isEqualTo(2);
  }

  private void assertRefused(int status, String part, String... more) {
    Cli.Gave gave = enrich(more);
    assertThat(gave.err()).contains(part).doesNotContain("    at ");
    assertThat(gave.status()).isEqualTo(status);
    assertThat(Path.of(out)).doesNotExist();
  }

  @Test
  void everyCommandHasHelpWithAnExample() {
    for (String command :
        new String[] {"demo", "enrich", "run", "check", "profile", "duplicates", "overlap"}) {
      Cli.Gave gave = Cli.run(command, "--help");
      assertThat(gave.status()).isZero();
      assertThat(gave.out())
          .contains("Usage: able-twine " + command, "Example", "able-twine " + command);
    }
    assertThat(Cli.run("--version").out()).startsWith("able-twine ");
  }

  @Test
  void checkReportsEveryMistake() throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\ntransactions: { file: tickets.csv }\nreferences: { g: { file: growers.csv } }\n"
                + "steps:\n  - { lookup: g, key: grower = nope, brings: name }\n");
    Cli.Gave gave = Cli.run("check", plan.toString());
    assertThat(gave.status()).isEqualTo(2);
    assertThat(gave.out()).contains("line 5", "no column \"nope\"", "did you mean \"bring\"?");
    assertThat(gave.err()).contains("2 mistakes");
    assertThat(Cli.run("check", plan.toString(), "--json").out()).contains("\"mistakes\"");
  }
}
