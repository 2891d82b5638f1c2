package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.derive.Coalesce;
import org.abletwine.plan.Plan.ComputeSpec;
import org.abletwine.plan.Plan.CorrectSpec;
import org.abletwine.plan.Plan.KeepSpec;
import org.abletwine.plan.Plan.PlainSpec;
import org.abletwine.plan.Plan.StepSpec;
import org.jspecify.annotations.Nullable;

/** Reads one step: its first setting says which kind it is. */
final class StepReader {
  private static final Set<String> CORRECT =
      PlanReader.ordered("correct", "using", "written", "meant", "part", "normalise");

  private static final Set<String> COALESCE =
      PlanReader.ordered("coalesce", "from", "fill", "source");

  private static final Set<String> COMPUTE = PlanReader.ordered("compute");
  private static final Set<String> KEEP = PlanReader.ordered("keep", "left-out");

  private final LookupReader lookups;
  private final Path folder;

  /**
   * @param folder what relative paths are relative to
   */
  StepReader(Path folder) {
    this.folder = folder;
    this.lookups = new LookupReader(folder);
  }

  /** The steps one item of the list stands for: several when it computes several columns. */
  List<StepSpec> read(PlanNode node) {
    if (node.has("compute")) {
      return compute(node);
    }
    StepSpec one =
        node.has("correct")
            ? correct(node)
            : node.has("coalesce")
                ? coalesce(node)
                : node.has("keep") ? keep(node) : lookups.read(node);
    return one == null ? List.of() : List.of(one);
  }

  private static List<StepSpec> compute(PlanNode node) {
    List<StepSpec> steps = new ArrayList<>();
    PlanNode columns = node.entries(COMPUTE).get("compute");
    if (columns != null) {
      columns
          .anyEntries()
          .forEach(
              (name, expression) -> {
                String text = expression.sql();
                if (text != null) {
                  steps.add(new ComputeSpec(name, text, expression.mark()));
                }
              });
      if (steps.isEmpty()) {
        columns.wrong("state at least one column as NAME: EXPRESSION");
      }
    }
    return steps;
  }

  private @Nullable StepSpec keep(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(KEEP);
    PlanNode condition = settings.get("keep");
    String text = condition == null ? null : condition.sql();
    return condition == null || text == null
        ? null
        : new KeepSpec(text, PlaceReader.read(folder, settings.get("left-out")), condition.mark());
  }

  private static @Nullable StepSpec coalesce(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(COALESCE);
    PlanNode column = settings.get("coalesce");
    PlanNode from = settings.get("from");
    PlanNode fill = settings.get("fill");
    PlanNode source = settings.get("source");
    String name = column == null ? null : column.text();
    if (name == null || from == null) {
      node.wrong("state coalesce: NAME and from: [COLUMN, COLUMN]");
      return null;
    }
    return new PlainSpec(
        new Coalesce(
            name,
            from.texts(),
            fill == null ? null : fill.text(),
            source == null ? null : source.text()),
        node.mark());
  }

  private static @Nullable StepSpec correct(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(CORRECT);
    PlanNode column = settings.get("correct");
    PlanNode using = settings.get("using");
    if (column == null || using == null) {
      node.wrong("a correction states correct: COLUMN and using: REFERENCE");
      return null;
    }
    PlanNode written = settings.get("written");
    PlanNode meant = settings.get("meant");
    PlanNode part = settings.get("part");
    PlanNode normalise = settings.get("normalise");
    String columnName = column.text();
    String reference = using.text();
    String writtenName = written == null ? "written" : written.text();
    String meantName = meant == null ? "meant" : meant.text();
    if (columnName == null || reference == null || writtenName == null || meantName == null) {
      return null;
    }
    return new CorrectSpec(
        columnName,
        reference,
        writtenName,
        meantName,
        part != null && Boolean.TRUE.equals(part.yesOrNo()),
        normalise == null ? null : NormaliseReader.read(normalise),
        using.mark());
  }
}
