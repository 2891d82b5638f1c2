package org.abletwine.plan;

import java.util.Map;
import java.util.Set;
import org.abletwine.derive.Coalesce;
import org.abletwine.plan.Plan.CorrectSpec;
import org.abletwine.plan.Plan.PlainSpec;
import org.abletwine.plan.Plan.StepSpec;
import org.jspecify.annotations.Nullable;

/** Reads one step: its first setting says which kind it is. */
final class StepReader {
  private static final Set<String> CORRECT =
      PlanReader.ordered("correct", "using", "written", "meant", "part", "normalise");

  private static final Set<String> COALESCE =
      PlanReader.ordered("coalesce", "from", "fill", "source");

  private final LookupReader lookups = new LookupReader();

  @Nullable StepSpec read(PlanNode node) {
    if (!node.isMapping()) {
      return lookups.read(node);
    }
    if (node.has("correct")) {
      return correct(node);
    }
    if (node.has("coalesce")) {
      return coalesce(node);
    }
    return lookups.read(node);
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
