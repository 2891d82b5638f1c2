package org.abletwine.report;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.step.Progress;

/** A small plan whose tables hold everything that a page has to withstand. */
final class Sample {
  /** What a page would do if it took text for anything else. */
  static final String SCRIPT = "<script>window.hit = 1</script>";

  static final String ATTRIBUTE = "\"><img src=x onerror=\"window.hit = 2\"> '`${window.hit = 3}";
  static final String TURNED = "Merow \u202Edlog\u202C <b>bold</b> &amp; \u0007bell";

  private final Path folder;

  private Sample(Path folder) {
    this.folder = folder;
  }

  /** Lays the tables out. */
  static Sample in(Path folder) throws IOException {
    Sample sample = new Sample(folder);
    StringBuilder tickets = new StringBuilder("no,variety,site,kg\n");
    String[] written = {
      "Merow Gold", "Merow Golb", "Thistle Dwn", "Kestrel", SCRIPT, ATTRIBUTE, TURNED, "=1+1", ""
    };
    for (int i = 0; i < 90; i++) {
      tickets.append("T").append(i).append(',').append(cell(written[i % written.length]));
      tickets.append(",S").append(i % 4).append(',').append(i * 7 % 50).append('\n');
    }
    sample.write("tickets.csv", tickets.toString());
    sample.write(
        "varieties.csv",
        "variety,crop\nMerow Gold,oats\nMerow Gold,rye\nThistle Down,"
            + cell(SCRIPT)
            + "\nKestrel,wheat\n");
    sample.write("sites.csv", "site,name\nS0,North\nS1," + cell(ATTRIBUTE) + "\nS2,East\n");
    sample.write("draft.csv", "column,written,meant,likeness,judged,rows,measure,accept\n");
    sample.write(
        "sample.plan.yaml",
        String.join(
            "\n",
            "able-twine: 1",
            "title: \"Intake <i>of</i> <script>window.hit = 4</script>\"",
            "measure: kg",
            "transactions: { file: tickets.csv, types: { kg: integer } }",
            "references:",
            "  varieties: { file: varieties.csv, key: variety }",
            "  sites: { file: sites.csv, key: site }",
            "  decided: { file: draft.csv, where: \"accept = 'yes'\" }",
            "steps:",
            "  - { correct: variety, using: decided, written: written, meant: meant }",
            "  - { lookup: varieties, key: variety, bring: crop }",
            "  - { lookup: sites, key: site, bring: name }",
            "  - compute: { tonnes: \"kg / 1000\" }",
            "controls: { matched: { varieties: 90% }, totals: [kg] }",
            "outputs:",
            "  enriched: out/enriched.csv",
            "  exceptions: out/exceptions.csv",
            "  corrections: draft.csv",
            "  report: out/report.html",
            "  record: out/run.json",
            "  rollups: [{ by: [variety, name], totals: [kg, count(*)], grand-total: true, file:"
                + " out/totals.csv }]",
            ""));
    return sample;
  }

  private static String cell(String text) {
    return '"' + text.replace("\"", "\"\"") + '"';
  }

  private void write(String name, String text) throws IOException {
    Files.writeString(folder.resolve(name), text);
  }

  PlannedRun.Result run() {
    return PlanFile.load(folder.resolve("sample.plan.yaml")).run(Progress.NONE);
  }

  Path page() {
    return folder.resolve("out/report.html");
  }

  Path draft() {
    return folder.resolve("draft.csv");
  }
}
