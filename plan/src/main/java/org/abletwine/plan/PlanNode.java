package org.abletwine.plan;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/** A node of the plan with its place. Wrong shapes are noted and read as absent, never thrown. */
final class PlanNode {
  private final Node node;
  private final String path;
  private final Mistakes mistakes;
  private final Parameters parameters;

  PlanNode(Node node, String path, Mistakes mistakes, Parameters parameters) {
    this.parameters = parameters;
    this.node = node;
    this.path = path;
    this.mistakes = mistakes;
  }

  Optional<Mark> mark() {
    return node.getStartMark();
  }

  String path() {
    return path;
  }

  void wrong(String text) {
    mistakes.add(mark(), path.isEmpty() ? text : path + ": " + text);
  }

  boolean isScalar() {
    return node instanceof ScalarNode;
  }

  boolean isMapping() {
    return node instanceof MappingNode;
  }

  /** The value of a key of a mapping, looked at before the others; null when there is none. */
  @Nullable PlanNode child(String name) {
    if (node instanceof MappingNode mapping) {
      for (NodeTuple tuple : mapping.getValue()) {
        if (tuple.getKeyNode() instanceof ScalarNode key && key.getValue().equals(name)) {
          return new PlanNode(tuple.getValueNode(), name, mistakes, parameters);
        }
      }
    }
    return null;
  }

  /** Whether a mapping has a key of that name. */
  boolean has(String name) {
    return node instanceof MappingNode mapping
        && mapping.getValue().stream()
            .anyMatch(t -> t.getKeyNode() instanceof ScalarNode key && key.getValue().equals(name));
  }

  /** Whether there is no value. */
  boolean isNothing() {
    return node instanceof ScalarNode scalar && scalar.getTag().equals(Tag.NULL);
  }

  /** The text of a scalar, its parameters put in; notes a mistake for anything else. */
  @Nullable String text() {
    String text = written();
    return text == null ? null : parameters.in(text, this);
  }

  /** The text of a scalar that is SQL, its parameters put in as values. */
  @Nullable String sql() {
    String text = written();
    return text == null ? null : parameters.inSql(text, this);
  }

  /** The text of a scalar as it is written. */
  @Nullable String written() {
    if (node instanceof ScalarNode scalar && !scalar.getTag().equals(Tag.NULL)) {
      return scalar.getValue();
    }
    wrong("expected a word or text");
    return null;
  }

  /** One of the stated words. */
  @Nullable String oneOf(List<String> words) {
    String text = isScalar() ? text() : null;
    if (text != null && words.contains(text)) {
      return text;
    }
    wrong(
        "expected one of "
            + String.join(", ", words)
            + (text == null ? "" : ", found \"" + text + "\"; " + NearestName.hint(text, words)));
    return null;
  }

  /** Whether the value is the word null, which YAML takes for no value; else it must be fail. */
  boolean isNullWord() {
    if (node instanceof ScalarNode scalar) {
      if (scalar.getValue().equals("null")) {
        return true;
      }
      if (scalar.getValue().equals("fail")) {
        return false;
      }
    }
    wrong("expected fail or null");
    return false;
  }

  @Nullable Boolean yesOrNo() {
    String text = isScalar() ? text() : null;
    if (text != null && (text.equals("true") || text.equals("yes"))) {
      return true;
    }
    if (text != null && (text.equals("false") || text.equals("no"))) {
      return false;
    }
    wrong("expected true or false");
    return null;
  }

  /** The items of a list; a single item counts as a list of one. */
  List<PlanNode> items() {
    if (node instanceof SequenceNode sequence) {
      if (sequence.getValue().isEmpty()) {
        String name = path.substring(path.lastIndexOf(", ") + 1).strip();
        mistakes.add(
            mark(), name + ": the list is empty; state at least one, or leave " + name + " out");
      }
      List<PlanNode> items = new ArrayList<>();
      for (Node item : sequence.getValue()) {
        items.add(new PlanNode(item, path, mistakes, parameters));
      }
      return items;
    }
    return List.of(this);
  }

  /** The SQL expressions of a list; a single one counts as a list of one. */
  List<String> sqls() {
    List<String> texts = new ArrayList<>();
    for (PlanNode item : items()) {
      String text = item.sql();
      if (text != null) {
        texts.add(text);
      }
    }
    return texts;
  }

  /** The texts of a list; a single text counts as a list of one. */
  List<String> texts() {
    List<String> texts = new ArrayList<>();
    for (PlanNode item : items()) {
      String text = item.text();
      if (text != null) {
        texts.add(text);
      }
    }
    return texts;
  }

  /** As {@link #texts}, where a list of nothing means something too. */
  List<String> textsOrNone() {
    boolean none = node instanceof SequenceNode sequence && sequence.getValue().isEmpty();
    return none ? List.of() : texts();
  }

  /**
   * The entries of a mapping.
   *
   * @param allowed the keys it may have; an unknown one is noted with the nearest valid
   */
  Map<String, PlanNode> entries(Set<String> allowed) {
    Map<String, PlanNode> entries = anyEntries();
    for (Map.Entry<String, PlanNode> entry : List.copyOf(entries.entrySet())) {
      if (!allowed.contains(entry.getKey())) {
        mistakes.add(
            keyMark(entry.getKey()),
            (path.isEmpty() ? "" : path + ": ")
                + "no setting is called \""
                + entry.getKey()
                + "\" here; "
                + NearestName.hint(entry.getKey(), allowed));
        entries.remove(entry.getKey());
      }
    }
    return entries;
  }

  private Optional<Mark> keyMark(String key) {
    for (NodeTuple tuple : ((MappingNode) node).getValue()) {
      if (tuple.getKeyNode() instanceof ScalarNode scalar && scalar.getValue().equals(key)) {
        return scalar.getStartMark();
      }
    }
    return mark();
  }

  /** The entries of a mapping whose keys are names the plan chooses. */
  Map<String, PlanNode> anyEntries() {
    Map<String, PlanNode> entries = new LinkedHashMap<>();
    if (!(node instanceof MappingNode mapping)) {
      wrong("expected settings, each as name: value");
      return entries;
    }
    for (NodeTuple tuple : mapping.getValue()) {
      if (tuple.getKeyNode() instanceof ScalarNode key) {
        String name = key.getValue();
        String below = path.isEmpty() ? name : path + ", " + name;
        if (entries.put(name, new PlanNode(tuple.getValueNode(), below, mistakes, parameters))
            != null) {
          mistakes.add(key.getStartMark(), "\"" + name + "\" stands twice");
        }
      }
    }
    return entries;
  }
}
