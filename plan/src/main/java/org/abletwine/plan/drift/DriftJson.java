package org.abletwine.plan.drift;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;

/** What changed between two runs as JSON. */
public final class DriftJson {
  private static final ObjectMapper MAPPER =
      new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

  private DriftJson() {}

  /**
   * @param drift what changed
   * @return JSON, indented
   */
  public static String text(Drift drift) {
    ObjectNode root = MAPPER.createObjectNode();
    root.put("title", drift.title());
    root.put("before", drift.before());
    root.put("after", drift.after());
    root.put("holds", drift.holds());
    ArrayNode inputs = root.putArray("inputs");
    for (Drift.Table table : drift.inputs()) {
      ObjectNode node = inputs.addObject();
      node.put("name", table.name());
      node.put("place", table.place());
      node.put("state", table.state());
      if (table.rowsBefore() >= 0) {
        node.put("rows_before", table.rowsBefore());
      }
      if (table.rowsAfter() >= 0) {
        node.put("rows_after", table.rowsAfter());
      }
    }
    ArrayNode parameters = root.putArray("parameters");
    for (Change change : drift.parameters()) {
      parameters
          .addObject()
          .put("name", change.what())
          .put("before", change.before())
          .put("after", change.after());
    }
    drift.plan().forEach(root.putArray("plan_lines")::add);
    ArrayNode changes = root.putArray("changes");
    for (Change change : drift.changes()) {
      ObjectNode node = changes.addObject();
      node.put("area", change.area());
      node.put("what", change.what());
      node.put("before", change.before());
      node.put("after", change.after());
      node.put("change", change.change());
      node.put("weight", Math.round(change.weight() * 1e6) / 1e6);
      node.put("beyond", change.beyond());
      change.examples().forEach(node.putArray("examples")::add);
    }
    try {
      return MAPPER.writeValueAsString(root);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("changes are always JSON", e);
    }
  }
}
