package org.abletwine.report;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.FileFacts;
import org.abletwine.plan.PlanSentence;
import org.abletwine.plan.ReportMaterial;
import org.abletwine.plan.RunAccount;
import org.abletwine.plan.drift.Change;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Words;

/** What was expected, what changed, what was done in words, what was read, and the plan. */
final class SourceSections {
  private final ReportMaterial material;
  private final RunAccount account;
  private final List<Section> sections = new ArrayList<>();

  private SourceSections(ReportMaterial material) {
    this.material = material;
    this.account = material.account();
  }

  static List<Section> of(ReportMaterial material) {
    SourceSections all = new SourceSections(material);
    all.controls();
    all.since();
    all.words();
    all.read();
    all.plan();
    return all.sections;
  }

  private void controls() {
    RunRecord run = account.figures();
    List<Block> blocks = new ArrayList<>();
    if (!run.controls().isEmpty()) {
      blocks.add(MainSections.controls("controls-all", "What the plan expects", run.controls()));
    }
    Block.TableOf totals =
        new Block.TableOf("control-totals", "Totals before the steps and after them")
            .texts("column", "when")
            .numbers("total", "null", "no numbers");
    for (StepFigures.Control one : run.of(StepFigures.Control.class)) {
      totals.row(
          Cell.name(one.column()),
          Cell.text(one.when()),
          Cell.number(one.total()),
          Cell.number(one.nulls()),
          Cell.number(one.notNumbers()));
    }
    if (!totals.isEmpty()) {
      blocks.add(totals.table());
    }
    if (!blocks.isEmpty()) {
      sections.add(new Section("controls", "Controls", blocks));
    }
  }

  private void since() {
    Drift since = material.since();
    if (since == null) {
      return;
    }
    List<Block> blocks = new ArrayList<>();
    Block.TableOf inputs =
        new Block.TableOf("since-inputs", "What went in, then and now")
            .texts("table", "where", "")
            .numbers("rows then", "rows now");
    for (Drift.Table one : since.inputs()) {
      inputs.row(
          Cell.name(one.name()),
          Cell.text(one.place()),
          Cell.text(one.state().equals("unknown") ? "no checksum to compare" : one.state()),
          one.rowsBefore() < 0 ? Cell.NONE : Cell.number(one.rowsBefore()),
          one.rowsAfter() < 0 ? Cell.NONE : Cell.number(one.rowsAfter()));
    }
    blocks.add(inputs.table());
    List<String> given = new ArrayList<>();
    for (Change one : since.parameters()) {
      given.add(one.what() + ": " + one.before() + " then, " + one.after() + " now");
    }
    given.add(
        since.plan().isEmpty()
            ? "The plan is the same"
            : Words.count(since.plan().size()) + " lines of the plan are new or gone");
    blocks.add(new Block.Items(given.stream().map(Words::shown).toList()));
    if (!since.plan().isEmpty()) {
      blocks.add(new Block.Written("changed lines", Words.shown(String.join("\n", since.plan()))));
    }
    Block.TableOf changes =
        new Block.TableOf("since-changes", "What came out differently, what matters most first")
            .texts("about", "what")
            .numbers("then", "now")
            .texts("change");
    for (Change one : since.changes()) {
      changes.row(
          Cell.name(one.area()),
          Cell.text(one.what()),
          number(one.before()),
          number(one.after()),
          Cell.text(
              Words.grouped(one.change())
                  + (one.examples().isEmpty()
                      ? ""
                      : (one.change().isEmpty() ? "" : ": ") + String.join(", ", one.examples()))));
    }
    blocks.add(
        changes.isEmpty()
            ? new Block.Paragraph("Nothing came out differently.", "good")
            : changes.sorts().table());
    String when = since.before().replace('T', ' ');
    sections.add(
        new Section(
            "since",
            "What changed since the run of " + when.substring(0, Math.min(16, when.length())),
            blocks));
  }

  private static Cell number(String figure) {
    String sort = figure.replaceFirst(" %$", "");
    return sort.matches("-?[0-9]+(\\.[0-9]+)?")
        ? new Cell(Words.grouped(figure), "number", sort)
        : Cell.text(Words.grouped(figure));
  }

  private void words() {
    Block.TableOf table =
        new Block.TableOf("plan-words", "What was done, step by step")
            .texts("about", "what is done", "what came of it");
    for (PlanSentence one : material.words()) {
      table.row(Cell.name(one.about()), Cell.text(one.text()), Cell.text(one.figures()));
    }
    sections.add(new Section("words", "The plan in words", List.of(table.table())));
  }

  private void read() {
    Block.TableOf table =
        new Block.TableOf("inputs", "The tables, as they were when they were read")
            .texts("table", "file")
            .numbers("rows", "bytes")
            .texts("SHA-256");
    for (RunAccount.Input one : account.inputs()) {
      if (one.files().isEmpty()) {
        table.row(Cell.name(one.name()), Cell.text(one.place()), rows(one), Cell.NONE, Cell.NONE);
      }
      for (int i = 0; i < one.files().size(); i++) {
        FileFacts file = one.files().get(i);
        table.row(
            Cell.name(one.name()),
            Cell.text(file.file()),
            i == 0 ? rows(one) : Cell.NONE,
            file.bytes() < 0 ? Cell.NONE : Cell.number(file.bytes()),
            file.sha256() == null
                ? Cell.text("not known")
                : new Cell(file.sha256(), "sum text", ""));
      }
    }
    List<Block> blocks = new ArrayList<>(List.of(table.table()));
    String kept = Words.keptPrivate(account.figures());
    if (!kept.isEmpty()) {
      blocks.add(new Block.Paragraph(kept + ".", ""));
    }
    sections.add(new Section("read", "What was read", blocks));
  }

  private static Cell rows(RunAccount.Input input) {
    return input.rows() < 0 ? Cell.NONE : Cell.number(input.rows());
  }

  private void plan() {
    List<Block> blocks = new ArrayList<>();
    List<String> facts = new ArrayList<>();
    for (Map.Entry<String, String> one : account.figures().parameters().entrySet()) {
      facts.add("parameter " + one.getKey() + ": " + one.getValue());
    }
    facts.add("SHA-256 of the plan: " + account.plan().sha256());
    blocks.add(new Block.Items(facts.stream().map(Words::shown).toList()));
    blocks.add(
        new Block.Written(
            account.plan().file(), Words.shown(account.plan().text().replace("\r\n", "\n"))));
    sections.add(new Section("plan", "The plan itself", blocks));
  }
}
