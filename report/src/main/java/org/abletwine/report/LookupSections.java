package org.abletwine.report;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Outcome;
import org.abletwine.plan.ReportMaterial;
import org.abletwine.plan.tell.LookupNotes;
import org.abletwine.plan.tell.Words;

/** Every figure of the steps, with the sums that a reader can check. */
final class LookupSections {
  private static final int MOST_SEVERAL = 50;

  private final RunRecord run;
  private final List<Section> sections = new ArrayList<>();

  private LookupSections(RunRecord run) {
    this.run = run;
  }

  static List<Section> of(ReportMaterial material) {
    LookupSections all = new LookupSections(material.account().figures());
    all.outcomes();
    all.nulls();
    all.made();
    all.several();
    return all.sections;
  }

  private void outcomes() {
    if (run.lookups().isEmpty()) {
      return;
    }
    List<Block> blocks = new ArrayList<>();
    Block.TableOf table =
        new Block.TableOf(
                "outcomes",
                "matched + unmatched + ambiguous + blank key + not asked = rows, lookup by lookup")
            .texts("lookup", "key", "reference")
            .numbers("matched", "unmatched", "ambiguous", "blank key", "not asked", "rows");
    for (LookupFigures one : run.lookups()) {
      table.row(
          Cell.name(one.name()),
          Cell.text(one.key()),
          Cell.text(one.reference().name()),
          Cell.number(one.matched()).as("good"),
          Cell.number(one.unmatched()).as("bad"),
          Cell.number(one.ambiguous()).as("warn"),
          Cell.number(one.blankKey()).as("warn"),
          Cell.number(one.notAsked()),
          Cell.number(one.rows()));
    }
    blocks.add(table.table());
    measured(blocks);
    matchedBy(blocks);
    List<String> notes = new ArrayList<>();
    run.lookups().forEach(one -> notes.addAll(LookupNotes.of(one)));
    if (!notes.isEmpty()) {
      blocks.add(new Block.Heading("Worth a look"));
      blocks.add(new Block.Items(notes.stream().map(Words::shown).toList()));
    }
    sections.add(new Section("outcomes-of", "Every figure of the lookups", blocks));
  }

  private void measured(List<Block> blocks) {
    if (run.lookups().stream().allMatch(one -> one.measures().isEmpty())) {
      return;
    }
    Block.TableOf table =
        new Block.TableOf("measured", "The total of " + run.measure() + ", outcome by outcome")
            .texts("lookup")
            .numbers("matched", "unmatched", "ambiguous", "blank key", "not asked", "all");
    for (LookupFigures one : run.lookups()) {
      if (one.measures().size() == Outcome.values().length) {
        List<Cell> cells = new ArrayList<>();
        cells.add(Cell.name(one.name()));
        BigDecimal all = BigDecimal.ZERO;
        for (BigDecimal total : one.measures()) {
          cells.add(Cell.number(total));
          all = all.add(total);
        }
        cells.add(Cell.number(all));
        table.row(cells);
      }
    }
    blocks.add(table.table());
  }

  private void matchedBy(List<Block> blocks) {
    Block.TableOf table =
        new Block.TableOf(
                "matched-by",
                "Matched as written, and more thanks to each step, or each reference tried"
                    + " otherwise, in turn")
            .texts("lookup", "thanks to")
            .numbers("matched");
    for (LookupFigures one : run.lookups()) {
      if (one.matchedBy().stream().skip(1).anyMatch(share -> share.rows() > 0)) {
        List<String> parts = new ArrayList<>();
        one.matchedBy().forEach(share -> parts.add(Words.count(share.rows()) + " " + share.name()));
        table.row(
            Cell.name(one.name()),
            Cell.text(String.join(" + ", parts)),
            Cell.number(one.matched()));
      }
    }
    if (!table.isEmpty()) {
      blocks.add(table.table());
    }
  }

  private void nulls() {
    Block.TableOf table =
        new Block.TableOf(
                "nulls-of",
                "unmatched + ambiguous + blank key + not asked + empty in the reference - filled ="
                    + " left null, attribute by attribute")
            .texts("attribute", "from")
            .numbers(
                "unmatched",
                "ambiguous",
                "blank key",
                "not asked",
                "empty",
                "filled",
                "left null",
                "%");
    for (LookupFigures lookup : run.lookups()) {
      for (LookupFigures.Attribute one : lookup.attributes()) {
        table.row(
            Cell.name(one.column()),
            Cell.text(lookup.reference().name()),
            Cell.number(one.unmatched()),
            Cell.number(one.ambiguous()),
            Cell.number(one.blankKey()),
            Cell.number(one.notAsked()),
            Cell.number(one.empty()),
            Cell.number(one.filled()).as("good"),
            Cell.number(one.nulls()).as("warn"),
            Cell.share(one.nulls(), lookup.rows()));
      }
    }
    if (!table.isEmpty()) {
      sections.add(
          new Section("nulls", "Why fetched columns are null", List.of(table.sorts().table())));
    }
  }

  private void made() {
    Block.TableOf table =
        new Block.TableOf("made-of", "Columns that were made, and why what is null is null")
            .texts("column", "how")
            .numbers("null", "errors")
            .texts("because");
    for (StepFigures.Corrected one : run.corrections()) {
      table.row(
          Cell.name(one.column()),
          Cell.text(
              "corrected in "
                  + Words.rows(one.changed())
                  + " by "
                  + one.table()
                  + ": "
                  + Words.count(one.lines() - one.unused())
                  + " of "
                  + Words.count(one.lines())
                  + " lines used"),
          Cell.NONE,
          Cell.NONE,
          Cell.NONE);
    }
    for (StepFigures.Coalesced one : run.of(StepFigures.Coalesced.class)) {
      List<String> taken = new ArrayList<>();
      one.taken().forEach(share -> taken.add(Words.count(share.rows()) + " " + share.name()));
      if (one.filled() > 0) {
        taken.add(Words.count(one.filled()) + " filled");
      }
      table.row(
          Cell.name(one.column()),
          Cell.text("the first there is: " + String.join(" + ", taken)),
          Cell.number(one.nulls()).as("warn"),
          Cell.NONE,
          Cell.NONE);
    }
    for (StepFigures.Computed one : run.of(StepFigures.Computed.class)) {
      List<String> reasons = new ArrayList<>();
      one.reasons().forEach(share -> reasons.add(Words.count(share.rows()) + " " + share.name()));
      if (!one.errorExample().isEmpty()) {
        reasons.add("such as " + one.errorExample());
      }
      table.row(
          Cell.name(one.column()),
          Cell.text(one.expression()),
          Cell.number(one.nulls()).as("warn"),
          Cell.number(one.errors()).as("bad"),
          Cell.text(String.join(", ", reasons)));
    }
    for (StepFigures.Formatted one : run.of(StepFigures.Formatted.class)) {
      table.row(
          Cell.name(one.name()),
          Cell.text("written as " + one.form()),
          Cell.NONE,
          Cell.number(one.errors()).as("bad"),
          Cell.text(one.errorExample()));
    }
    for (StepFigures.Kept one : run.of(StepFigures.Kept.class)) {
      table.row(
          Cell.name("rows kept"),
          Cell.text(one.condition()),
          Cell.NONE,
          Cell.NONE,
          Cell.text(
              Words.rows(one.leftOut())
                  + " of "
                  + Words.count(one.rows())
                  + " left out"
                  + (one.unknown() == 0
                      ? ""
                      : ", " + Words.count(one.unknown()) + " of them because of a null")));
    }
    if (!table.isEmpty()) {
      sections.add(new Section("made", "Columns that were made", List.of(table.table())));
    }
  }

  private void several() {
    Block.TableOf table =
        new Block.TableOf("several-rows", "Keys that stand on several rows of a reference")
            .texts("lookup", "reference", "key", "rows", "they");
    List<Block> blocks = new ArrayList<>();
    for (LookupFigures one : run.lookups()) {
      List<LookupFigures.SeveralRows> several = one.reference().several();
      for (LookupFigures.SeveralRows key :
          several.subList(0, Math.min(MOST_SEVERAL, several.size()))) {
        table.row(
            Cell.name(one.name()),
            Cell.text(one.reference().name()),
            Cell.text(key.key()),
            Cell.text(key.rows()),
            Cell.text(
                    key.conflicting()
                        ? "disagree"
                        : one.reference().duplicatesDropped() > 0
                            ? "are one by the reference's rule"
                            : "agree on what is fetched")
                .as(key.conflicting() ? "bad" : "good"));
      }
      long more = one.reference().severalKeys() - Math.min(MOST_SEVERAL, several.size());
      if (more > 0 && !one.fits().byRule()) {
        blocks.add(
            new Block.Paragraph(
                one.name()
                    + ": and "
                    + Words.keys(more)
                    + " more; able-twine duplicates lists all.",
                ""));
      }
    }
    if (!table.isEmpty()) {
      blocks.add(0, table.sorts().table());
      sections.add(new Section("duplicates", "Duplicates", blocks));
    }
  }
}
