package org.abletwine.plan;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.util.List;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** Holds a plan against the JSON Schema that ships with the tool. */
final class SchemaProblems {
  private SchemaProblems() {}

  private static final Schema SCHEMA =
      SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
          .getSchema(PlanSchema.text(), InputFormat.JSON);

  /** What the schema has against a plan; empty when nothing. */
  static List<String> problems(Node root) {
    return SCHEMA.validate(toJson(root).toString(), InputFormat.JSON).stream()
        .map(error -> error.getInstanceLocation() + ": " + error.getMessage())
        .toList();
  }

  private static JsonNode toJson(Node node) {
    JsonNodeFactory make = JsonNodeFactory.instance;
    if (node instanceof MappingNode mapping) {
      ObjectNode object = make.objectNode();
      for (NodeTuple tuple : mapping.getValue()) {
        String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
        object.set(key, toJson(tuple.getValueNode()));
      }
      return object;
    }
    if (node instanceof SequenceNode sequence) {
      ArrayNode array = make.arrayNode();
      for (Node item : sequence.getValue()) {
        array.add(toJson(item));
      }
      return array;
    }
    ScalarNode scalar = (ScalarNode) node;
    Tag tag = scalar.getTag();
    String value = scalar.getValue();
    if (tag.equals(Tag.NULL)) {
      return make.nullNode();
    }
    if (tag.equals(Tag.BOOL)) {
      return make.booleanNode(Boolean.parseBoolean(value));
    }
    if (tag.equals(Tag.INT) || tag.equals(Tag.FLOAT)) {
      try {
        return make.numberNode(new java.math.BigDecimal(value));
      } catch (NumberFormatException e) {
        return make.textNode(value); // another notation of a number; only its being a scalar counts
      }
    }
    return make.textNode(value);
  }
}
