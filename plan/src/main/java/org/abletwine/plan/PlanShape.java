package org.abletwine.plan;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.Set;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/**
 * Looks at a plan as a tree, before anyone reads what it says: no tags of other programs, no names
 * that are no words, aliases that neither lead round in a circle nor blow up, not too deep. Goes
 * through it with a stack of its own, so that nothing can be too deep for it.
 */
final class PlanShape {
  /** Bytes of a plan file at most. */
  static final long MOST_BYTES = 1 << 20;

  /** Settings one within another at most. */
  static final int MOST_DEPTH = 50;

  static final String TOO_DEEP = "more than " + MOST_DEPTH + " settings stand one within another";

  /** Nodes at most, those that aliases repeat counted each time. */
  private static final int MOST_NODES = 200_000;

  private static final Set<Tag> TAGS =
      Set.of(Tag.STR, Tag.INT, Tag.FLOAT, Tag.BOOL, Tag.NULL, Tag.MAP, Tag.SEQ);

  private PlanShape() {}

  private record Placed(Node node, int depth) {}

  static void check(Node root, Mistakes mistakes) {
    Deque<Placed> open = new ArrayDeque<>();
    open.push(new Placed(root, 1));
    for (int nodes = 0; !open.isEmpty(); nodes++) {
      Placed placed = open.pop();
      Node node = placed.node();
      Optional<Mark> mark = node.getStartMark();
      if (placed.depth() > MOST_DEPTH) {
        mistakes.add(mark, TOO_DEEP + ", or an alias leads round in a circle");
        return;
      }
      if (nodes > MOST_NODES) {
        mistakes.add(mark, "aliases make the plan larger than " + MOST_NODES + " settings");
        return;
      }
      if (!TAGS.contains(node.getTag())) {
        mistakes.add(mark, "a plan has no tags, and here stands " + node.getTag().getValue());
      }
      if (node instanceof SequenceNode sequence) {
        sequence.getValue().forEach(item -> open.push(new Placed(item, placed.depth() + 1)));
      }
      if (node instanceof MappingNode mapping) {
        for (NodeTuple tuple : mapping.getValue()) {
          if (!(tuple.getKeyNode() instanceof ScalarNode)) {
            mistakes.add(tuple.getKeyNode().getStartMark(), "the name of a setting is a word");
          }
          open.push(new Placed(tuple.getValueNode(), placed.depth() + 1));
        }
      }
    }
  }
}
