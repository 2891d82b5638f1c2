package org.abletwine.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.figures.LookupFigures;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.plan.drift.Drift;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The page as a text: what is in it, and what must not be. */
class HtmlReportTest {
  private static final int MOST_BYTES = 1_500_000;

  @TempDir private Path folder;
  private Sample sample;

  @BeforeEach
  void layOut() throws IOException {
    sample = Sample.in(folder);
  }

  private String page() throws IOException {
    return Files.readString(sample.page());
  }

  /** The page without its own style, script and pictures. */
  private static String content(String page) {
    return page.replaceAll("(?s)<style>.*?</style>", "")
        .replaceAll("(?s)<script>\"use strict\".*?</script>", "")
        .replaceAll("data:image/svg\\+xml;base64,[A-Za-z0-9+/=]+", "");
  }

  @Test
  void hostileCellsStayText() throws IOException {
    sample.run();
    String content = content(page());
    assertThat(content).doesNotContain("<script", "<img src=x", "<b>bold", "<i>of");
    assertThat(content).contains("&lt;script&gt;window.hit = 1&lt;/script&gt;");
    assertThat(content).doesNotContain("\u202E", "\u0007").contains("&lt;U+202E&gt;");
  }

  @Test
  void nothingInThePageIsElsewhere() throws IOException {
    sample.run();
    assertThat(content(page())).doesNotContain("http:", "https:", "url(", "@import", " src=\"/");
    assertThat(page()).contains("default-src &#39;none&#39;; img-src data:");
  }

  @Test
  void showsEveryFigureOfTheRun() throws IOException {
    PlannedRun.Result result = sample.run();
    String page = page();
    for (LookupFigures lookup : result.record().lookups()) {
      Matcher row =
          Pattern.compile(
                  "<tr>\\s*<td class=\"name\"[^>]*><bdi>"
                      + lookup.name()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.key()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.reference().name()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.matched()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.unmatched()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.ambiguous()
                      + "</bdi></td>\\s*<td[^>]*><bdi>"
                      + lookup.blankKey())
              .matcher(page);
      assertThat(row.find()).as(lookup.name()).isTrue();
    }
    assertThat(page)
        .contains("1 of 2 controls does not hold")
        .contains(result.account().plan().sha256())
        .contains(result.account().outputs().get(0).file().sha256())
        .contains("The plan in words")
        .contains("Every row is in out/exceptions.csv");
  }

  @Test
  void theSectionsStandInTheOrderOfTheSummary() throws IOException {
    sample.run();
    assertThat(Pattern.compile("<h2 id=\"([^\"]+)\"").matcher(page()).results())
        .extracting(found -> found.group(1))
        .containsExactly(
            "fails",
            "needs",
            "lookups",
            "totals-1",
            "written",
            "outcomes-of",
            "nulls",
            "made",
            "duplicates",
            "corrections",
            "exceptions",
            "controls",
            "words",
            "read",
            "plan");
  }

  @Test
  void tellsWhatChangedSinceAnEarlierRun() throws IOException {
    sample.run();
    Drift.Since since = Drift.since(folder.resolve("out/run.json"));
    Files.writeString(folder.resolve("sites.csv"), "site,name\nS0,North\n");
    PlanFile.load(folder.resolve("sample.plan.yaml")).since(since).run(Progress.NONE);
    assertThat(page()).contains("What changed since the run of").contains("new unmatched keys");
  }

  @Test
  void aHundredThousandExceptionsDoNotMakeItHeavy() throws IOException {
    StringBuilder rows = new StringBuilder("no,variety,site,kg\n");
    for (int i = 0; i < 100_000; i++) {
      rows.append("T,V").append(i).append(",S0,").append(i).append('\n');
    }
    Files.writeString(folder.resolve("tickets.csv"), rows);
    sample.run();
    assertThat(Files.size(sample.page())).isLessThan(MOST_BYTES);
    assertThat(page())
        .contains("100,000")
        .contains("every row is in out/exceptions.csv")
        .contains("And 99,000 more lines in draft.csv.");
  }

  @Test
  void aRunOfNothingHasAReportToo() throws IOException {
    Files.writeString(folder.resolve("tickets.csv"), "no,variety,site,kg\n");
    sample.run();
    assertThat(page()).contains("0 rows in and out").contains("Nothing needs a person");
  }

  @Test
  void picturesAreInThePage() throws IOException {
    sample.run();
    assertThat(page())
        .contains("data:image/svg+xml;base64,")
        .contains("prefers-color-scheme: dark");
  }
}
