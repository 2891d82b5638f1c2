package org.abletwine.plan;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.StringWriter;
import java.util.Map;

/**
 * Writes a tree as indented JSON, as the library's mapper would. That one is made for objects of
 * any kind, and setting it up is felt in a short run; a tree does not need it.
 */
final class TreeText {
  private static final JsonFactory FACTORY = new JsonFactory();

  private TreeText() {}

  static String of(JsonNode tree) {
    StringWriter text = new StringWriter();
    try (JsonGenerator out = FACTORY.createGenerator(text)) {
      out.setPrettyPrinter(new DefaultPrettyPrinter());
      write(tree, out);
    } catch (IOException e) {
      throw new IllegalStateException("figures are always JSON", e);
    }
    return text.toString();
  }

  private static void write(JsonNode node, JsonGenerator out) throws IOException {
    switch (node.getNodeType()) {
      case OBJECT -> {
        out.writeStartObject();
        for (Map.Entry<String, JsonNode> one : node.properties()) {
          out.writeFieldName(one.getKey());
          write(one.getValue(), out);
        }
        out.writeEndObject();
      }
      case ARRAY -> {
        out.writeStartArray();
        for (JsonNode one : node) {
          write(one, out);
        }
        out.writeEndArray();
      }
      case NUMBER -> out.writeNumber(node.asText()); // of any kind, with all its digits
      case BOOLEAN -> out.writeBoolean(node.booleanValue());
      case STRING -> out.writeString(node.textValue());
      default -> out.writeNull();
    }
  }
}
