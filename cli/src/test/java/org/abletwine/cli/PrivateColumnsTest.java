package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Values of private columns are searched for in everything that every command writes: each planted
 * one begins with a mark that nothing else holds. The rows that come out must hold them.
 */
class PrivateColumnsTest {
  /** Text begins with this in some case; numbers and days with the others. */
  private static final List<String> MARKS = List.of("zq7", "7719", "1931-");

  /** Where values may stand: what was read, and rows that come out. */
  private static final Set<String> MAY =
      Set.of(
          "tickets.csv",
          "growers.csv",
          "former.csv",
          "bands.csv",
          "backwards.csv",
          "fixes.csv",
          "prefixes.csv",
          "by-hand.csv",
          "enriched.csv",
          "apart.csv",
          "left-out.csv",
          "tickets.json",
          "out.db");

  private static final Pattern DIGEST = Pattern.compile("private-[0-9a-f]{12}");

  @TempDir private Path folder;

  @BeforeEach
  void layOut() throws IOException {
    StringBuilder tickets =
        new StringBuilder("ticket,phone,depth,born,net_kg,status,remark,district\n");
    for (int i = 1; i <= 60; i++) {
      String phone = i % 9 == 0 ? "" : i % 7 == 0 ? "zq7-miss" + i % 3 : "ZQ7-0" + i % 12;
      phone = i == 5 ? " zq7-01 " : i == 6 ? "=zq7-sum" : i == 8 ? "zq7-wrong" : phone;
      String depth = i == 11 ? "7719x" : i % 5 == 0 ? "7719999" : "77190" + 10 * (i % 10);
      String born = i == 12 ? "1931-99-99" : "1931-0" + (1 + i % 9) + "-11";
      tickets.append(
          String.format(
              "T%03d,%s,%s,%s,%d,%s,zq7 said so %d,D%d\n",
              i, phone, depth, born, 1000 + i, i % 10 == 3 ? "closed" : "open", i % 4, i % 3));
    }
    write("tickets.csv", tickets.toString());
    StringBuilder growers = new StringBuilder("mobile,name,office,updated\n");
    for (int i = 0; i < 12; i++) {
      growers.append(
          String.format("ZQ7-0%d,Grower %d,zq7-office%d,1931-02-%02d\n", i, i, i, i + 1));
    }
    growers.append("ZQ7-03,Grower three,zq7-office3b,1931-03-03\n"); // conflicts
    growers.append("zq7-04,Grower 4,zq7-office4,1931-03-04\n"); // a collision once case is ignored
    growers.append("ZQ7-05,Grower 5,zq7-office5,1931-02-06\n"); // agrees
    write("growers.csv", growers.toString());
    write("former.csv", "mobile,name\nzq7-miss1,Former one\n");
    write("bands.csv", "low,high,class\n7719000,7719040,shallow\n7719050,7719090,deep\n");
    write("backwards.csv", "low,high,class\n7719040,7719000,shallow\n");
    write("fixes.csv", "written,meant\nzq7-wrong,ZQ7-02\nzq7-never,ZQ7-03\n");
    write(
        "prefixes.csv",
        "begins,kind,note\nzq7 said so 1,first,zq7-note\nzq7 said so 2,second,zq7-note\n");
  }

  private void write(String name, String text) throws IOException {
    Files.writeString(folder.resolve(name), text);
  }

  private String file(String name) {
    return folder.resolve(name).toString();
  }

  private static String plan(String... changes) {
    String plan =
        """
        able-twine: 1
        title: Private harvest
        private: [phone, mobile, office, depth, born, remark, low, note]
        transactions: { file: tickets.csv }
        errors: null
        measure: net_kg
        references:
          growers: { file: growers.csv, key: mobile }
          former: { file: former.csv, key: mobile }
          bands: { file: bands.csv }
          prefixes: { file: prefixes.csv }
          fixes: { file: fixes.csv }
          by_phone: { rollup: { by: [phone], totals: [count(*) as calls] } }
        steps:
          - correct: phone
            using: fixes
            written: written
            meant: meant
          - lookup: growers
            key: phone = mobile
            normalise: [trim, ignore-case]
            bring: [name, office, mobile as called]
            mark: outcome
            otherwise:
              - { reference: former, key: phone = mobile, bring: [name] }
          - lookup: bands
            key: [{ ours: depth, theirs: [low, high], match: between }]
            bring: [class, low]
            unmatched: { apart: out/apart.csv }
          - lookup: prefixes
            key: [{ ours: remark, theirs: begins, match: starts-with }]
            bring: [kind, begins, note]
          - lookup: by_phone
            key: phone
            bring: [calls]
          - coalesce: contact
            from: [office, called]
            fill: none on file
          - compute:
              short: "substring(contact from 1 for 5)"
              age: "extract(year from cast(born as date))"
              deeper: depth + 1
          - keep: "status <> 'closed'"
            left-out: out/left-out.csv
        controls: { nulls: { depth: 5% }, that: "count(distinct phone) > 1" }
        outputs:
          enriched: out/enriched.csv
          formulas: guard
          formats: { born: { date: dd.MM.yyyy } }
          exceptions: { file: out/exceptions.csv, by: key, carry: [phone, district] }
          corrections: out/corrections.csv
          report: out/report.html
          record: out/run.json
          rollups:
            - { by: [contact, district], totals: [net_kg, count(phone) as phones], order: [contact], file: out/by-contact.csv }
        """;
    for (int i = 0; i < changes.length; i += 2) {
      assertThat(plan).contains(changes[i]);
      plan = plan.replace(changes[i], changes[i + 1]);
    }
    return plan;
  }

  private void sqlite(String statement) throws IOException {
    try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file("out.db"));
        Statement made = connection.createStatement()) {
      made.execute(statement);
    } catch (SQLException e) {
      throw new IOException(e);
    }
  }

  private Cli.Gave ran(int status, String... args) throws IOException {
    Cli.Gave gave = Cli.run(args);
    String all = gave.out() + gave.err();
    assertThat(gave.status()).as(all).isEqualTo(status);
    clean(String.join(" ", args), all);
    return gave;
  }

  private static void clean(String what, String text) {
    String lower = text.toLowerCase(Locale.ROOT);
    for (String mark : MARKS) {
      int at = lower.indexOf(mark);
      assertThat(
              at < 0 ? "" : text.substring(Math.max(0, at - 80), Math.min(text.length(), at + 40)))
          .as("what " + what + " shows of a private value")
          .isEmpty();
    }
  }

  /** Everything in the folder but what may hold values. */
  private void cleanFiles() throws IOException {
    try (Stream<Path> files = Files.walk(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        if (!MAY.contains(file.getFileName().toString())) {
          clean(file.toString(), Files.readString(file));
        }
      }
    }
  }

  private String read(String name) throws IOException {
    return Files.readString(folder.resolve(name));
  }

  @Test
  void noCommandOnAPlanShowsAPrivateValue() throws IOException {
    write("harvest.plan.yaml", plan());
    String plan = file("harvest.plan.yaml");
    ran(0, "check", plan);
    assertThat(ran(0, "check", plan, "--words").out())
        .contains("phone, mobile, office, depth, born, remark, low and note are kept private");
    Cli.Gave run = ran(0, "run", plan);
    assertThat(run.out()).contains("Kept private: phone, depth, born, remark");
    cleanFiles();
    assertThat(read("out/enriched.csv")).contains("ZQ7-01", "zq7-office1", "7719", "11.02.1931");
    assertThat(read("out/apart.csv")).contains("7719999");
    assertThat(read("out/left-out.csv")).contains("ZQ7-03");
    assertThat(read("out/by-contact.csv")).containsPattern(DIGEST);
    assertThat(read("out/report.html")).contains("Kept private: phone").containsPattern(DIGEST);
    sameDigestEverywhere();

    ran(0, "run", plan, "--figures", "all");
    ran(0, "run", plan, "--json");
    assertThat(ran(0, "run", plan, "--preview", "20").out()).containsPattern(DIGEST);
    ran(0, "run", plan, "--preview", "20", "--json");
    Files.copy(folder.resolve("out/run.json"), folder.resolve("before.json"));
    for (int row = 1; row <= 20; row++) {
      ran(0, "trace", plan, "--row", Integer.toString(row));
      ran(0, "trace", plan, "--row", Integer.toString(row), "--json");
    }
    ran(0, "run", plan, "--since", file("before.json"));
    cleanFiles();
  }

  /** The unmatched phones are the same digests in the exceptions, the record and the report. */
  private void sameDigestEverywhere() throws IOException {
    JsonNode record = new ObjectMapper().readTree(read("out/run.json"));
    JsonNode growers = record.path("lookups").get(0);
    assertThat(growers.path("private_key").asBoolean()).isTrue();
    String key = growers.path("unmatched_keys").get(0).path("key").asText();
    assertThat(key).matches(DIGEST);
    assertThat(read("out/exceptions.csv")).contains(key);
    assertThat(read("out/report.html")).contains(key);
    Matcher all = DIGEST.matcher(growers.path("unmatched_keys").toString());
    assertThat(all.results().map(one -> one.group()).distinct().count())
        .isEqualTo(growers.path("distinct_unmatched_keys").asLong());
    assertThat(read("out/corrections.csv").lines()).hasSize(1);
    assertThat(record.path("private_columns").toString())
        .contains("contact", "short", "age", "deeper", "called", "begins");
  }

  @Test
  void twoRunsAreComparedWithoutTheirDigests() throws IOException {
    write("harvest.plan.yaml", plan());
    ran(0, "run", file("harvest.plan.yaml"));
    String record = read("out/run.json");
    // As another run has it: other digests for the same values.
    write("other.json", DIGEST.matcher(record).replaceAll("private-0123456789ab"));
    String drift = ran(0, "drift", file("other.json"), file("out/run.json")).out();
    assertThat(drift).doesNotContain("unmatched keys").doesNotContain("groups");
  }

  @Test
  void whatStopsARunShowsNoPrivateValue() throws IOException {
    List<String[]> faults = new ArrayList<>();
    faults.add(new String[] {"errors: null\n", ""});
    faults.add(new String[] {"    mark: outcome\n", "    mark: outcome\n    unmatched: fail\n"});
    faults.add(
        new String[] {
          "file: growers.csv, key: mobile", "file: growers.csv, key: mobile, duplicates: identical"
        });
    faults.add(
        new String[] {
          "file: growers.csv, key: mobile", "file: growers.csv, key: mobile, duplicates: fail"
        });
    faults.add(
        new String[] {
          "file: growers.csv, key: mobile",
          "file: growers.csv, key: mobile, types: { office: integer }, duplicates: { newest-by: office }"
        });
    faults.add(new String[] {"file: bands.csv", "file: backwards.csv"});
    faults.add(new String[] {"file: bands.csv", "file: bands.csv, types: { low: date }"});
    faults.add(new String[] {"mobile as called", "sum(mobile) as called"});
    faults.add(
        new String[] {
          "errors: null\n", "", "extract(year from cast(born as date))", "1", "depth + 1", "1"
        });
    faults.add(
        new String[] {
          "out/enriched.csv",
          "{ database: { url: \"jdbc:sqlite:"
              + file("out.db")
              + "\" }, table: enriched, mode: append }"
        });
    sqlite(
        "create table enriched (ticket, phone unique, depth, born, net_kg, status, remark,"
            + " district, name, office, called, outcome, class, low, kind, begins, note, calls, contact,"
            + " short, age, deeper)");
    for (String[] fault : faults) {
      write("faulty.plan.yaml", plan(fault));
      Cli.Gave gave = Cli.run("--debug", "run", file("faulty.plan.yaml"));
      assertThat(gave.status()).as(fault[1] + gave.err()).isEqualTo(1);
      clean(fault[1], gave.out() + gave.err());
    }
    write("fixes.csv", "written,meant\nzq7-wrong,ZQ7-02\nzq7-wrong,ZQ7-03\n");
    write("faulty.plan.yaml", plan());
    ran(2, "--debug", "run", file("faulty.plan.yaml"));
    write("fixes.csv", "written,meant\nzq7-a,zq7-b\nzq7-b,zq7-a\n");
    ran(2, "--debug", "check", file("faulty.plan.yaml"));
    cleanFiles();
  }

  @Test
  void whatFormatsSayOfCellsShowsNoPrivateValue() throws IOException {
    write(
        "harvest.plan.yaml",
        plan(
            "transactions: { file: tickets.csv }",
            "transactions: { file: tickets.csv, types: { depth: integer } }",
            "out/enriched.csv",
            "out/enriched.parquet",
            "formulas: guard",
            "formulas: keep"));
    Cli.Gave run = ran(0, "run", file("harvest.plan.yaml"));
    assertThat(run.out()).containsPattern("depth as text for \"private-[0-9a-f]{12}\" in row");
    Files.delete(folder.resolve("out/enriched.parquet"));

    write("tickets.json", "[{\"phone\": zq7-01}]");
    assertThat(ran(1, "--debug", "profile", file("tickets.json"), "--private", "phone").err())
        .contains("line 1", "this is no JSON");
    cleanFiles();
  }

  @Test
  void aTotalOfAPrivateColumnIsRefused() throws IOException {
    write("harvest.plan.yaml", plan("measure: net_kg", "measure: depth"));
    assertThat(ran(2, "check", file("harvest.plan.yaml")).out())
        .contains("measure: \"depth\" is private, and a total of it may be one row's value");
    write(
        "harvest.plan.yaml", plan("totals: [net_kg, count", "totals: [max(contact) as top, count"));
    assertThat(ran(2, "check", file("harvest.plan.yaml")).out())
        .contains("rollups, max(contact): \"contact\" is private");
    write("harvest.plan.yaml", plan("controls: { nulls:", "controls: { totals: [depth], nulls:"));
    assertThat(ran(2, "check", file("harvest.plan.yaml")).out()).contains("\"depth\" is private");
    write("harvest.plan.yaml", plan("[phone, mobile", "[phome, mobile"));
    assertThat(ran(2, "check", file("harvest.plan.yaml")).out())
        .contains("line 3", "private: no table has a column \"phome\"", "\"phone\"");
  }

  @Test
  void noCommandOnTablesShowsAPrivateValue() throws IOException {
    String tickets = file("tickets.csv");
    String growers = file("growers.csv");
    String all = "phone,depth,born,remark";
    ran(0, "profile", tickets, "--private", all);
    assertThat(ran(0, "profile", tickets, "--private", all, "--json").out())
        .containsPattern(DIGEST);
    ran(0, "duplicates", tickets, "--key", "phone,depth", "--private", all);
    ran(0, "duplicates", tickets, "--key", "phone", "--private", all, "--json");
    ran(
        1,
        "duplicates",
        growers,
        "--key",
        "mobile",
        "--private",
        "mobile,office,updated",
        "--keep",
        "identical",
        "--without",
        file("without.csv"));
    String theirs = "phone,mobile,office,updated,depth,born,remark";
    String[] overlap = {
      "overlap", tickets, growers, "--key", "phone = mobile", "--private", theirs
    };
    assertThat(ran(0, overlap).out()).contains("not shown").doesNotContain("none");
    ran(0, "overlap", tickets, growers, "--key", "phone = mobile", "--private", "mobile", "--json");
    ran(
        2,
        "overlap",
        tickets,
        growers,
        "--key",
        "phone = mobile",
        "--private",
        theirs,
        "--measure",
        "depth");
    ran(0, "find", growers, "name=Grower 3", "--private", "mobile,office,updated");
    ran(
        0,
        "find",
        growers,
        "name=Grower 3",
        "--key",
        "name,mobile",
        "--private",
        "mobile,office,updated");
    ran(0, "find", growers, "mobile=ZQ7-01", "--private", "mobile,office,updated", "--json");
    ran(0, "find", growers, "mobile=ZQ7-0x", "--private", "mobile,office,updated");
    assertThat(ran(2, "find", growers, "name=Grower 3", "--private", "mobil").err())
        .contains("--private: there is no column \"mobil\"", "\"mobile\"");
    ran(
        0,
        "enrich",
        tickets,
        "--from",
        growers,
        "--key",
        "phone=mobile",
        "--bring",
        "name,office",
        "--out",
        file("enriched.csv"),
        "--private",
        "phone,mobile,office",
        "--figures",
        "all");
    assertThat(read("enriched.csv")).contains("zq7-office1");
    cleanFiles();
  }

  @Test
  void aDraftShowsNoPrivateValue() throws IOException {
    StringBuilder tickets = new StringBuilder("ticket,phone,depth,net_kg\n");
    for (int i = 1; i <= 60; i++) {
      String phone = i % 9 == 0 ? "" : i % 7 == 0 ? "zq7-miss" + i % 3 : "ZQ7-0" + i % 12;
      tickets.append(String.format("zq7-T%03d,%s,77190%d0,%d\n", i, phone, i % 10, 1000 + i));
    }
    write("tickets.csv", tickets.toString());
    StringBuilder growers = new StringBuilder("mobile,name,office,updated\n");
    for (int i = 0; i < 12; i++) {
      growers.append(
          String.format("ZQ7-0%d,Grower %d,zq7-office%d,1931-02-%02d\n", i, i, i, i + 1));
    }
    growers.append("ZQ7-03,Grower three,zq7-office3b,1931-03-03\n");
    write("growers.csv", growers.toString());
    List<String> draft =
        new ArrayList<>(
            List.of("draft", file("tickets.csv"), file("growers.csv"), file("bands.csv")));
    draft.addAll(List.of("--private", "ticket,phone,mobile,office,updated,depth,low,high"));
    List<String> saved = new ArrayList<>(draft);
    saved.addAll(List.of("--out", file("drafted.plan.yaml")));
    ran(0, saved.toArray(String[]::new));
    assertThat(read("drafted.plan.yaml")).contains("private: [", "mobile", "lookup: growers");
    ran(0, "run", file("drafted.plan.yaml"));
    StringBuilder made = new StringBuilder("ticket,phone,net_kg,name,office\n");
    List<String> enriched = read("out/enriched.csv").lines().toList();
    List<String> head = List.of(enriched.get(0).split(","));
    for (String line : enriched.subList(1, enriched.size())) {
      String[] cells = line.split(",", -1);
      String office = cells[head.indexOf("office")];
      made.append(
              String.join(",", cells[0], cells[1], cells[3], cells[head.indexOf("grower_name")]))
          .append(',')
          .append(
              cells[0].equals("zq7-T001")
                  ? "zq7-typed"
                  : cells[0].equals("zq7-T003") ? "zq7-office3" : office)
          .append('\n');
    }
    write("by-hand.csv", made.toString());
    draft.addAll(List.of("--like", file("by-hand.csv"), "--out", file("like.plan.yaml")));
    draft.addAll(List.of("--differences", file("differences.csv")));
    assertThat(ran(0, draft.toArray(String[]::new)).out())
        .contains("typed over", "the first of several")
        .containsPattern(DIGEST);
    assertThat(read("differences.csv")).containsPattern(DIGEST);
    cleanFiles();
  }
}
