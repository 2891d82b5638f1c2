package org.abletwine.report;

import gg.jte.html.OwaspHtmlTemplateOutput;
import gg.jte.output.Utf8ByteOutput;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.ReportMaker;
import org.abletwine.plan.ReportMaterial;
import org.abletwine.plan.tell.Words;
import org.abletwine.report.chart.DrawnPictures;
import org.abletwine.report.chart.Pictures;
import org.abletwine.report.page.JtepageGenerated;
import org.jspecify.annotations.Nullable;

/**
 * Makes the report as a page of HTML. The page asks for nothing from anywhere: style, script and
 * pictures are in it, and its own policy forbids a browser all else, so that a script that came
 * with the data would not run even if it were not shown as the text that it is. Without scripts all
 * of it can be read; with them tables sort and filter, and proposals can be ticked and saved.
 */
public final class HtmlReport implements ReportMaker {
  private @Nullable DrawnPictures pictures;

  /** For {@link java.util.ServiceLoader}. */
  public HtmlReport() {}

  @Override
  public void prepare() {
    Pictures.warm();
  }

  @Override
  public void begin(RunRecord figures) {
    pictures = new DrawnPictures(figures);
  }

  @Override
  public byte[] page(ReportMaterial material) {
    DrawnPictures begun = pictures;
    Utf8ByteOutput out = new Utf8ByteOutput();
    // The page is known here, so nothing need be searched for by its name.
    JtepageGenerated.render(
        new OwaspHtmlTemplateOutput(out),
        null,
        pageOf(material, begun == null ? new DrawnPictures(material.account().figures()) : begun));
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(out.getContentLength());
    try {
      out.writeTo(bytes);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  private static Page pageOf(ReportMaterial material, DrawnPictures pictures) {
    RunRecord run = material.account().figures();
    List<Section> sections = new ArrayList<>();
    sections.addAll(LookupSections.of(material));
    sections.addAll(AttentionSections.of(material));
    sections.addAll(SourceSections.of(material));
    sections.addAll(
        0, MainSections.of(material, pictures)); // made last: its pictures are drawn by now
    long failed = run.controls().stream().filter(one -> !one.holds()).count();
    String script = resource("report.js");
    boolean same = run.rowsIn() == run.rowsOut();
    return new Page(
        Words.shown(run.title()),
        Words.shown(run.transactions())
            + ": "
            + (same
                ? Words.rows(run.rowsIn()) + " in and out"
                : Words.rows(run.rowsIn()) + " in, " + Words.count(run.rowsOut()) + " out")
            + ", in "
            + Words.seconds(run.elapsed().toMillis())
            + ", begun "
            + run.started().toString().substring(0, 16).replace('T', ' ')
            + " UTC",
        run.controls().isEmpty()
            ? ""
            : failed == 0
                ? run.controls().size() == 1
                    ? "The control holds"
                    : "All " + run.controls().size() + " controls hold"
                : failed
                    + " of "
                    + run.controls().size()
                    + (failed == 1 ? " controls does not hold" : " controls do not hold"),
        failed == 0 ? "good" : "bad",
        sections,
        resource("report.css"),
        script,
        "default-src 'none'; img-src data:; style-src 'unsafe-inline'; script-src 'sha256-"
            + sha256(script)
            + "'; base-uri 'none'; form-action 'none'",
        "able-twine " + material.account().version());
  }

  private static String sha256(String script) {
    try {
      return Base64.getEncoder()
          .encodeToString(
              MessageDigest.getInstance("SHA-256").digest(script.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  private static String resource(String name) {
    try (InputStream in = HtmlReport.class.getResourceAsStream(name)) {
      if (in == null) {
        throw new IllegalStateException("the report's " + name + " is not in this build");
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
