package org.abletwine.report;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.ReportMaterial;
import org.abletwine.plan.RunAccount;
import org.abletwine.plan.tell.Needs;
import org.abletwine.plan.tell.Words;
import org.abletwine.report.chart.DrawnPictures;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** What a person must know first, in the order of the summary. */
final class MainSections {
  private static final int MOST_GROUPS = 200;

  private final ReportMaterial material;
  private final DrawnPictures pictures;
  private final RunRecord run;
  private final List<Section> sections = new ArrayList<>();

  private MainSections(ReportMaterial material, DrawnPictures pictures) {
    this.material = material;
    this.pictures = pictures;
    this.run = material.account().figures();
  }

  static List<Section> of(ReportMaterial material, DrawnPictures pictures) {
    MainSections main = new MainSections(material, pictures);
    main.failed();
    main.needs();
    main.lookups();
    main.rollups();
    main.written();
    return main.sections;
  }

  private void failed() {
    List<RunRecord.Control> failed = run.controls().stream().filter(one -> !one.holds()).toList();
    if (!failed.isEmpty()) {
      sections.add(
          new Section(
              "fails",
              "Controls that do not hold",
              List.of(
                  controls(
                      "failed-controls", "What came out, and what the plan expects", failed))));
    }
  }

  static Block controls(String id, String caption, List<RunRecord.Control> controls) {
    Block.TableOf table =
        new Block.TableOf(id, caption).texts("", "control", "came to", "expected");
    for (RunRecord.Control one : controls) {
      table.row(
          Cell.text(one.holds() ? "holds" : "fails").as(one.holds() ? "good" : "bad"),
          Cell.name(one.what()),
          Cell.text(Words.grouped(one.figure())),
          Cell.text(Words.grouped(one.limit())));
    }
    return table.table();
  }

  private void needs() {
    Needs needs = Needs.of(run, material.closer());
    boolean measured = !run.measure().isEmpty();
    List<Block> blocks = new ArrayList<>();
    if (!needs.needs().isEmpty()) {
      Block.TableOf table =
          new Block.TableOf(
              "needs-table",
              "Rows that need a person"
                  + (measured ? ", the largest " + run.measure() + " first" : ""));
      if (measured) {
        table.numbers(run.measure());
      }
      table.numbers("rows").texts("lookup", "what", "look closer");
      for (Needs.Need need : needs.needs()) {
        List<Cell> cells = new ArrayList<>();
        if (measured) {
          cells.add(Cell.number(need.stake()).as("warn"));
        }
        cells.add(Cell.number(need.rows()));
        cells.add(Cell.name(need.lookup()));
        cells.add(Cell.text(need.what().replaceFirst("^[0-9,]+ rows? ", "")));
        cells.add(Cell.text(need.look().text()));
        table.row(cells);
      }
      blocks.add(table.table());
      if (!material.closer().one().isEmpty()) {
        blocks.add(
            new Block.Paragraph(
                "One row, step by step: able-twine " + material.closer().one() + ".", ""));
      }
    }
    if (!needs.notes().isEmpty()) {
      blocks.add(new Block.Items(needs.notes().stream().map(Words::shown).toList()));
    }
    if (blocks.isEmpty()) {
      blocks.add(new Block.Paragraph("Nothing needs a person.", "good"));
    }
    sections.add(new Section("needs", "Needs a person", blocks));
  }

  private void lookups() {
    if (run.lookups().isEmpty()) {
      return;
    }
    List<Block.Bar> bars = new ArrayList<>();
    for (LookupFigures one : run.lookups()) {
      List<Block.Part> parts = new ArrayList<>();
      List<String> told = new ArrayList<>();
      part(one.matched(), one.rows(), "matched", List.of(), parts, told);
      List<String> expected = one.outcomes().expected();
      part(one.unmatched(), one.rows(), "unmatched", expected, parts, told);
      part(one.ambiguous(), one.rows(), "ambiguous", expected, parts, told);
      part(one.blankKey(), one.rows(), "blank key", expected, parts, told);
      part(one.notAsked(), one.rows(), "not asked", List.of(), parts, told);
      bars.add(new Block.Bar(Words.shown(one.name()), String.join(", ", told), parts));
    }
    List<Block> blocks = new ArrayList<>();
    blocks.add(new Block.Bars("What became of the rows, lookup by lookup", bars));
    Block.Picture picture = pictures.withoutMatch();
    if (picture != null) {
      blocks.add(picture);
    }
    sections.add(new Section("lookups", "Lookups", blocks));
  }

  private static void part(
      long rows,
      long all,
      String name,
      List<String> expected,
      List<Block.Part> parts,
      List<String> told) {
    if (rows > 0) {
      boolean awaited = expected.contains(name.replace(' ', '-'));
      parts.add(
          new Block.Part(
              awaited ? "expected" : name.replace(' ', '-'),
              BigDecimal.valueOf(100.0 * rows / all)
                  .setScale(3, java.math.RoundingMode.HALF_UP)
                  .toPlainString()));
      told.add(
          Words.count(rows)
              + " "
              + name
              + " ("
              + Words.percent(rows, all)
              + (awaited ? ", as expected)" : ")"));
    }
  }

  private void rollups() {
    List<StepFigures.RolledUp> rollups = run.of(StepFigures.RolledUp.class);
    for (int i = 0; i < rollups.size(); i++) {
      StepFigures.RolledUp rollup = rollups.get(i);
      List<Block> blocks = new ArrayList<>();
      Block.Picture picture = pictures.groups(i);
      if (picture != null) {
        blocks.add(picture);
      }
      blocks.add(groups(rollup, i));
      int left = rollup.groups().size() - Math.min(MOST_GROUPS, rollup.groups().size());
      if (left > 0) {
        blocks.add(
            new Block.Paragraph(
                "And "
                    + Words.count(left)
                    + " more groups"
                    + (rollup.file().isEmpty() ? "" : ": " + rollup.name()),
                ""));
      }
      if (rollup.groups().size() < rollup.allGroups()) {
        blocks.add(
            new Block.Paragraph(
                Words.count(rollup.groups().size())
                    + " of "
                    + Words.count(rollup.allGroups())
                    + " groups, as the plan says.",
                ""));
      }
      sections.add(
          new Section(
              "totals-" + (i + 1),
              rollup.by().isEmpty()
                  ? "Totals of all rows"
                  : "Totals by " + String.join(", ", rollup.by()),
              blocks));
    }
  }

  private static Block groups(StepFigures.RolledUp rollup, int number) {
    Block.TableOf table =
        new Block.TableOf(
            "groups-" + (number + 1),
            rollup.by().isEmpty()
                ? "One line for all rows"
                : "A line for each "
                    + String.join(" and ", rollup.by())
                    + (rollup.order().isEmpty()
                        ? ""
                        : ", ordered by " + String.join(", ", rollup.order())));
    table.texts(rollup.by().toArray(String[]::new));
    table.numbers(rollup.totals().toArray(String[]::new));
    int by = rollup.by().size();
    for (List<@Nullable String> group :
        rollup.groups().subList(0, Math.min(MOST_GROUPS, rollup.groups().size()))) {
      List<Cell> cells = new ArrayList<>();
      for (int i = 0; i < group.size(); i++) {
        cells.add(total(group.get(i), i < by));
      }
      table.row(cells);
    }
    if (!rollup.grandTotal().isEmpty() && by > 0) {
      List<Cell> foot = new ArrayList<>();
      for (int i = 0; i < by; i++) {
        foot.add(Cell.name(i == 0 ? "all" : ""));
      }
      rollup.grandTotal().forEach(total -> foot.add(total(total, false)));
      table.foot(foot);
    }
    return table.sorts().table();
  }

  private static Cell total(@Nullable String value, boolean by) {
    if (value == null) {
      return Cell.text(by ? "(none)" : "null").as("warn");
    }
    BigDecimal number = by ? null : DecimalText.read(value);
    return number == null ? Cell.text(value) : Cell.number(number);
  }

  private void written() {
    Block.TableOf table =
        new Block.TableOf("outputs", "Files and tables, with their checksums")
            .texts("what", "where")
            .numbers("rows", "bytes")
            .texts("SHA-256");
    for (RunAccount.Written one : material.account().outputs()) {
      table.row(
          Cell.name(one.what()),
          Cell.text(one.place()),
          Cell.number(one.rows()),
          one.file() == null ? Cell.NONE : Cell.number(one.file().bytes()),
          one.file() == null || one.file().sha256() == null
              ? Cell.NONE
              : new Cell(one.file().sha256(), "sum text", ""));
    }
    if (!table.isEmpty()) {
      sections.add(new Section("written", "What was written", List.of(table.table())));
    }
  }
}
