package org.abletwine.plan;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.abletwine.figures.AttributeFigures;
import org.abletwine.figures.CoalesceFigures;
import org.abletwine.figures.ComputeFigures;
import org.abletwine.figures.CorrectionFigures;
import org.abletwine.figures.Expectation;
import org.abletwine.figures.FormatFigures;
import org.abletwine.figures.GuardFigures;
import org.abletwine.figures.KeepFigures;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RollupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.TotalFigures;

/** The record of a run as JSON. Counts are rows; durations are seconds. */
public final class RunJson {
  private static final ObjectMapper MAPPER =
      new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

  private RunJson() {}

  /**
   * @param run the account of a run
   * @return JSON, indented
   */
  public static String text(RunRecord run) {
    return text(tree(run));
  }

  /**
   * @param mistakes what is wrong with a plan
   * @return JSON, indented
   */
  public static String mistakes(List<String> mistakes) {
    ObjectNode root = MAPPER.createObjectNode();
    mistakes.forEach(root.putArray("mistakes")::add);
    return text(root);
  }

  private static String text(ObjectNode tree) {
    try {
      return MAPPER.writeValueAsString(tree);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("figures are always JSON", e);
    }
  }

  private static ObjectNode tree(RunRecord run) {
    ObjectNode root = MAPPER.createObjectNode();
    root.put("able_twine_record", 1);
    root.put("title", run.title());
    root.put("transactions", run.transactions());
    root.put("started", run.started().toString());
    root.put("elapsed_seconds", run.elapsed().toMillis() / 1000.0);
    root.put("rows_in", run.rowsIn());
    root.put("rows_out", run.rowsOut());
    root.put("bytes_in", run.bytesIn());
    run.columns().forEach(root.putArray("columns")::add);
    ArrayNode corrections = root.putArray("corrections");
    run.corrections().forEach(correction -> corrections.add(tree(correction)));
    ArrayNode lookups = root.putArray("lookups");
    run.lookups().forEach(lookup -> lookups.add(tree(lookup)));
    ArrayNode coalesced = root.putArray("coalesced");
    for (CoalesceFigures one : run.of(CoalesceFigures.class)) {
      ObjectNode node = coalesced.addObject();
      node.put("column", one.column());
      node.put("rows", one.rows());
      shares(node.putArray("taken"), "column", one.taken());
      node.put("filled", one.filled());
      node.put("nulls", one.nulls());
    }
    ArrayNode computed = root.putArray("computed");
    for (ComputeFigures one : run.of(ComputeFigures.class)) {
      ObjectNode node = computed.addObject();
      node.put("column", one.column());
      node.put("expression", one.expression());
      node.put("rows", one.rows());
      node.put("nulls", one.nulls());
      shares(node.putArray("nulls_because"), "reason", one.reasons());
      node.put("errors", one.errors());
      node.put("error_example", one.errorExample());
    }
    ArrayNode kept = root.putArray("kept");
    for (KeepFigures one : run.of(KeepFigures.class)) {
      ObjectNode node = kept.addObject();
      node.put("condition", one.condition());
      node.put("rows", one.rows());
      node.put("left_out", one.leftOut());
      node.put("unknown", one.unknown());
    }
    ArrayNode rollups = root.putArray("rollups");
    for (RollupFigures one : run.of(RollupFigures.class)) {
      ObjectNode node = rollups.addObject();
      one.by().forEach(node.putArray("by")::add);
      one.totals().forEach(node.putArray("totals")::add);
      node.set("groups", MAPPER.valueToTree(one.groups()));
      node.set("grand_total", MAPPER.valueToTree(one.grandTotal()));
      node.put("errors", one.errors());
      node.put("error_example", one.errorExample());
    }
    run.aboveControlTotals().forEach(root.putArray("above_control_totals")::add);
    ArrayNode formatted = root.putArray("formatted");
    for (FormatFigures one : run.of(FormatFigures.class)) {
      ObjectNode node = formatted.addObject();
      node.put("column", one.name());
      node.put("form", one.form());
      node.put("rows", one.rows());
      node.put("errors", one.errors());
      node.put("error_example", one.errorExample());
    }
    for (GuardFigures one : run.of(GuardFigures.class)) {
      ObjectNode node = root.putObject("formulas_guarded");
      node.put("cells", one.cells());
      node.put("example", one.example());
    }
    ArrayNode totals = root.putArray("control_totals");
    for (TotalFigures one : run.of(TotalFigures.class)) {
      ObjectNode node = totals.addObject();
      node.put("column", one.column());
      node.put("when", one.when());
      node.put("total", one.total());
      node.put("nulls", one.nulls());
      node.put("not_numbers", one.notNumbers());
    }
    ArrayNode expectations = root.putArray("expectations");
    for (Expectation one : run.expectations()) {
      ObjectNode node = expectations.addObject();
      node.put("what", one.what());
      node.put("figure", one.figure());
      node.put("limit", one.limit());
      node.put("holds", one.holds());
    }
    root.put("expectations_hold", run.holds());
    return root;
  }

  private static void shares(ArrayNode array, String name, List<LookupFigures.Share> shares) {
    for (LookupFigures.Share share : shares) {
      array.addObject().put(name, share.name()).put("rows", share.rows());
    }
  }

  private static ObjectNode tree(CorrectionFigures correction) {
    ObjectNode node = MAPPER.createObjectNode();
    node.put("column", correction.column());
    node.put("table", correction.table());
    node.put("rows", correction.rows());
    node.put("changed", correction.changed());
    node.put("lines", correction.lines());
    node.put("lines_unused", correction.unused());
    shares(node.putArray("uses"), "line", correction.uses());
    correction.unusedExamples().forEach(node.putArray("unused_examples")::add);
    return node;
  }

  private static ObjectNode tree(LookupFigures lookup) {
    ObjectNode node = MAPPER.createObjectNode();
    node.put("name", lookup.name());
    node.put("reference", lookup.reference());
    node.put("key", lookup.key());
    node.put("by_rule", lookup.byRule());
    node.put("combined_by_aggregates", lookup.combined());
    node.put("reference_rows", lookup.referenceRows());
    node.put("reference_keys", lookup.referenceKeys());
    node.put("reference_blank_keys", lookup.referenceBlankKeys());
    node.put("keys_on_several_rows", lookup.severalKeys());
    node.put("conflicting_keys", lookup.conflictingKeys());
    node.put("rows", lookup.rows());
    node.put("matched", lookup.matched());
    node.put("unmatched", lookup.unmatched());
    node.put("ambiguous", lookup.ambiguous());
    node.put("blank_key", lookup.blankKey());
    node.put("picked_from_several", lookup.pickedFromSeveral());
    node.put("rows_if_expanded", lookup.rowsIfExpanded());
    node.put("expanded", lookup.expanded());
    node.put("dropped", lookup.dropped());
    node.put("filtered_out", lookup.filteredOut());
    node.put("would_match_filtered_out", lookup.wouldMatch());
    node.put("duplicates_dropped", lookup.duplicatesDropped());
    node.put("collisions", lookup.collisions());
    lookup.collisionExamples().forEach(node.putArray("collision_examples")::add);
    shares(node.putArray("matched_by"), "step", lookup.matchedBy());
    shares(node.putArray("blank_parts"), "part", lookup.blankParts());
    lookup.constants().forEach(node.putArray("constant_attributes")::add);
    lookup.measures().forEach(node.putArray("measure_by_outcome")::add);
    ArrayNode misses = node.putArray("misses");
    for (LookupFigures.Miss miss : lookup.misses()) {
      misses
          .addObject()
          .put("kind", miss.kind())
          .put("rows", miss.rows())
          .put("example", miss.example());
    }
    ArrayNode attributes = node.putArray("attributes");
    for (AttributeFigures attribute : lookup.attributes()) {
      ObjectNode figures = attributes.addObject();
      figures.put("column", attribute.column());
      figures.put("nulls", attribute.nulls());
      figures.put("unmatched", attribute.unmatched());
      figures.put("ambiguous", attribute.ambiguous());
      figures.put("blank_key", attribute.blankKey());
      figures.put("empty", attribute.empty());
      figures.put("filled", attribute.filled());
    }
    return node;
  }
}
