package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A tree as text is what the library's mapper makes of it, to the byte. */
class TreeTextTest {
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final String[] TEXTS = {
    "", "a", "\"", "\\", "\n\t\u0001", "é€", "\uD83C\uDF3E", "/"
  };

  private final ObjectMapper mapper = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
  private final Random random = new Random(5);

  @Test
  void isWhatTheMapperWrites() throws Exception {
    for (int i = 0; i < 2_000; i++) {
      JsonNode tree = tree(4);
      assertThat(TreeText.of(tree)).isEqualTo(mapper.writeValueAsString(tree));
    }
  }

  private JsonNode tree(int depth) {
    int kind = random.nextInt(depth == 0 ? 8 : 12);
    if (kind >= 10) {
      ArrayNode array = NODES.arrayNode();
      for (int left = random.nextInt(4); left > 0; left--) {
        array.add(tree(depth - 1));
      }
      return array;
    }
    if (kind >= 8) {
      ObjectNode object = NODES.objectNode();
      for (int left = random.nextInt(4); left > 0; left--) {
        object.set(text() + left, tree(depth - 1));
      }
      return object;
    }
    return switch (kind) {
      case 0 -> NODES.nullNode();
      case 1 -> NODES.booleanNode(random.nextBoolean());
      case 2 -> NODES.numberNode(random.nextInt());
      case 3 -> NODES.numberNode(random.nextLong());
      case 4 -> NODES.numberNode(random.nextLong() / 1000.0);
      case 5 -> NODES.numberNode(new BigDecimal(new BigInteger(90, random), random.nextInt(9)));
      case 6 -> NODES.numberNode(new BigInteger(90, random));
      default -> NODES.textNode(text());
    };
  }

  private String text() {
    return TEXTS[random.nextInt(TEXTS.length)];
  }
}
