package org.abletwine.plan;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;

/** The record of a run as JSON. Counts are rows; durations are seconds. */
public final class RunJson {
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  /** So many groups of a rollup are told; all of them are in its file. */
  private static final int MOST_GROUPS = 10_000;

  private RunJson() {}

  /** Makes ready what writes, so that whoever does need not wait for it. */
  static void prepare() {
    ObjectNode root = NODES.objectNode();
    root.putArray("ready").addObject().put("in", 1L).put("to", "0");
    TreeText.of(root);
  }

  /**
   * @param run the account of a run
   * @return JSON, indented
   */
  public static String text(RunRecord run) {
    return TreeText.of(tree(run));
  }

  /**
   * @param account the whole account of a run
   * @return JSON, indented
   */
  public static String text(RunAccount account) {
    return TreeText.of(of(account));
  }

  /**
   * The tree that {@link #text(RunAccount)} writes.
   *
   * @param account the whole account of a run
   */
  public static JsonNode of(RunAccount account) {
    return AccountJson.tree(account, tree(account.figures()));
  }

  /**
   * @param mistakes what is wrong with a plan
   * @return JSON, indented
   */
  public static String mistakes(List<String> mistakes) {
    ObjectNode root = NODES.objectNode();
    mistakes.forEach(root.putArray("mistakes")::add);
    return TreeText.of(root);
  }

  /**
   * @param sentences a plan in words
   * @return JSON, indented
   */
  public static String words(List<PlanSentence> sentences) {
    ObjectNode root = NODES.objectNode();
    ArrayNode list = root.putArray("words");
    sentences.forEach(one -> list.addObject().put("about", one.about()).put("text", one.text()));
    return TreeText.of(root);
  }

  private static ObjectNode tree(RunRecord run) {
    ObjectNode root = NODES.objectNode();
    root.put("able_twine_record", 1);
    root.put("title", run.title());
    root.put("transactions", run.transactions());
    root.put("started", run.started().toString());
    root.put("elapsed_seconds", run.elapsed().toMillis() / 1000.0);
    root.put("rows_in", run.rowsIn());
    root.put("rows_out", run.rowsOut());
    root.put("bytes_in", run.bytesIn());
    root.put("measure", run.measure());
    run.columns().forEach(root.putArray("columns")::add);
    run.privateColumns().forEach(root.putArray("private_columns")::add);
    ArrayNode corrections = root.putArray("corrections");
    run.corrections().forEach(correction -> corrections.add(tree(correction)));
    ArrayNode lookups = root.putArray("lookups");
    run.lookups().forEach(lookup -> lookups.add(tree(lookup)));
    ArrayNode coalesced = root.putArray("coalesced");
    for (StepFigures.Coalesced one : run.of(StepFigures.Coalesced.class)) {
      ObjectNode node = coalesced.addObject();
      node.put("column", one.column());
      node.put("rows", one.rows());
      shares(node.putArray("taken"), "column", one.taken());
      node.put("filled", one.filled());
      node.put("nulls", one.nulls());
    }
    ArrayNode computed = root.putArray("computed");
    for (StepFigures.Computed one : run.of(StepFigures.Computed.class)) {
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
    for (StepFigures.Kept one : run.of(StepFigures.Kept.class)) {
      ObjectNode node = kept.addObject();
      node.put("condition", one.condition());
      node.put("rows", one.rows());
      node.put("left_out", one.leftOut());
      node.put("unknown", one.unknown());
    }
    ArrayNode rollups = root.putArray("rollups");
    for (StepFigures.RolledUp one : run.of(StepFigures.RolledUp.class)) {
      ObjectNode node = rollups.addObject();
      one.by().forEach(node.putArray("by")::add);
      one.totals().forEach(node.putArray("totals")::add);
      int told = Math.min(MOST_GROUPS, one.groups().size());
      ArrayNode groups = node.putArray("groups");
      one.groups().subList(0, told).forEach(group -> group.forEach(groups.addArray()::add));
      node.put("groups_wanted", one.groups().size());
      node.put("groups_in_all", one.allGroups());
      if (one.onDisk() > 0) {
        node.put("bytes_on_disk", one.onDisk());
      }
      one.grandTotal().forEach(node.putArray("grand_total")::add);
      node.put("errors", one.errors());
      node.put("error_example", one.errorExample());
    }
    run.aboveControlTotals().forEach(root.putArray("above_control_totals")::add);
    ArrayNode formatted = root.putArray("formatted");
    for (StepFigures.Formatted one : run.of(StepFigures.Formatted.class)) {
      ObjectNode node = formatted.addObject();
      node.put("column", one.name());
      node.put("form", one.form());
      node.put("rows", one.rows());
      node.put("errors", one.errors());
      node.put("error_example", one.errorExample());
    }
    for (StepFigures.Guarded one : run.of(StepFigures.Guarded.class)) {
      ObjectNode node = root.putObject("formulas_guarded");
      node.put("cells", one.cells());
      node.put("example", one.example());
    }
    ArrayNode totals = root.putArray("control_totals");
    for (StepFigures.Control one : run.of(StepFigures.Control.class)) {
      ObjectNode node = totals.addObject();
      node.put("column", one.column());
      node.put("when", one.when());
      node.put("total", one.total());
      node.put("rows", one.rows());
      node.put("nulls", one.nulls());
      node.put("not_numbers", one.notNumbers());
    }
    run.parameters().forEach(root.putObject("parameters")::put);
    run.remarks().forEach(root.putArray("remarks")::add);
    ArrayNode controls = root.putArray("controls");
    for (RunRecord.Control one : run.controls()) {
      ObjectNode node = controls.addObject();
      node.put("what", one.what());
      node.put("figure", one.figure());
      node.put("limit", one.limit());
      node.put("holds", one.holds());
    }
    root.put("controls_hold", run.holds());
    return root;
  }

  private static void shares(ArrayNode array, String name, List<LookupFigures.Share> shares) {
    for (LookupFigures.Share share : shares) {
      array.addObject().put(name, share.name()).put("rows", share.rows());
    }
  }

  private static ObjectNode tree(StepFigures.Corrected correction) {
    ObjectNode node = NODES.objectNode();
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
    ObjectNode node = NODES.objectNode();
    node.put("name", lookup.name());
    node.put("reference", lookup.reference().name());
    node.put("key", lookup.key());
    node.put("private_key", lookup.privateKey());
    node.put("by_rule", lookup.fits().byRule());
    node.put("combined_by_aggregates", lookup.fits().combined());
    node.put("reference_rows", lookup.reference().rows());
    node.put("reference_keys", lookup.reference().keys());
    node.put("reference_blank_keys", lookup.reference().blankKeys());
    node.put("keys_on_several_rows", lookup.reference().severalKeys());
    node.put("conflicting_keys", lookup.reference().conflictingKeys());
    node.put("rows", lookup.rows());
    node.put("matched", lookup.matched());
    node.put("unmatched", lookup.unmatched());
    node.put("ambiguous", lookup.ambiguous());
    node.put("blank_key", lookup.blankKey());
    node.put("not_asked", lookup.notAsked());
    LookupFigures.Asked asked = lookup.asked();
    if (asked != null) {
      node.put("when", asked.when());
      node.put("when_unknown", asked.unknown());
    }
    LookupFigures.Firsts firsts = lookup.outcomes().firsts();
    node.put("first_unmatched_row", firsts.unmatched());
    node.put("first_ambiguous_row", firsts.ambiguous());
    node.put("first_blank_key_row", firsts.blankKey());
    lookup.outcomes().expected().forEach(node.putArray("expected")::add);
    node.put("picked_from_several", lookup.fits().picked());
    node.put("rows_if_each", lookup.fits().rowsIfEach());
    node.put("added", lookup.fits().added());
    node.put("dropped", lookup.outcomes().dropped());
    node.put("filtered_out", lookup.reference().filteredOut());
    node.put("would_match_filtered_out", lookup.outcomes().wouldMatch());
    node.put("duplicates_dropped", lookup.reference().duplicatesDropped());
    node.put("unreadable_left_out", lookup.reference().unreadable());
    node.put("collisions", lookup.reference().collisions());
    lookup.reference().collisionExamples().forEach(node.putArray("collision_examples")::add);
    ArrayNode several = node.putArray("several_rows");
    for (LookupFigures.SeveralRows one : lookup.reference().several()) {
      several
          .addObject()
          .put("key", one.key())
          .put("rows", one.rows())
          .put("conflicting", one.conflicting());
    }
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
    LookupFigures.Spilled spilled = lookup.spilled();
    if (spilled != null) {
      ObjectNode told = node.putObject("divided");
      told.put("parts", spilled.parts());
      told.put("bytes_on_disk", spilled.bytes());
      told.put("readings", LookupFigures.Spilled.READINGS);
    }
    LookupFigures.Distances distances = lookup.distances();
    if (distances != null) {
      ObjectNode told = node.putObject("distances");
      told.put("rows", distances.rows());
      told.put("median", distances.median());
      told.put("greatest", distances.greatest());
    }
    ArrayNode attributes = node.putArray("attributes");
    for (LookupFigures.Attribute attribute : lookup.attributes()) {
      ObjectNode figures = attributes.addObject();
      figures.put("column", attribute.column());
      figures.put("nulls", attribute.nulls());
      figures.put("unmatched", attribute.unmatched());
      figures.put("ambiguous", attribute.ambiguous());
      figures.put("blank_key", attribute.blankKey());
      figures.put("not_asked", attribute.notAsked());
      figures.put("empty", attribute.empty());
      figures.put("filled", attribute.filled());
    }
    return node;
  }
}
