package org.abletwine.plan;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Attribute;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Outcome;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/** Reads a lookup step, in its short and long forms. */
final class LookupReader {
  private static final Set<String> LOOKUP =
      PlanReader.ordered(
          "lookup",
          "name",
          "key",
          "normalise",
          "bring",
          "several",
          "unmatched",
          "ambiguous",
          "blank-key",
          "empty",
          "mark");
  private static final Set<String> PART = PlanReader.ordered("ours", "theirs", "normalise");

  @Nullable LookupSpec read(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(LOOKUP);
    PlanNode reference = settings.get("lookup");
    if (reference == null) {
      if (node.isMapping()) {
        node.wrong("not a step; a step starts with lookup: REFERENCE or correct: COLUMN");
      }
      return null;
    }
    String referenceName = reference.text();
    PlanNode normalise = settings.get("normalise");
    PlanNode several = settings.get("several");
    PlanNode bring = settings.get("bring");
    PlanNode mark = settings.get("mark");
    PlanNode name = settings.get("name");
    boolean all = bring != null && bring.isScalar() && "all".equals(bring.text());
    Map<Outcome, Treatment> treatments = new EnumMap<>(Outcome.class);
    treatment(settings.get("unmatched"), Outcome.UNMATCHED, treatments);
    treatment(settings.get("ambiguous"), Outcome.AMBIGUOUS, treatments);
    treatment(settings.get("blank-key"), Outcome.BLANK_KEY, treatments);
    if (referenceName == null) {
      return null;
    }
    return new LookupSpec(
        referenceName,
        name == null ? null : name.text(),
        key(settings.get("key")),
        normalise == null ? null : NormaliseReader.read(normalise),
        bring == null || all ? List.of() : attributes(bring),
        all,
        several(several),
        treatments,
        empty(settings.get("empty")),
        mark == null ? null : mark.text(),
        reference.mark());
  }

  private static List<String> attributes(PlanNode bring) {
    List<String> attributes = new ArrayList<>();
    for (PlanNode item : bring.items()) {
      String text = item.text();
      if (text != null && reads(item, () -> Attribute.parse(text))) {
        attributes.add(text);
      }
    }
    return attributes;
  }

  private static boolean reads(PlanNode node, Runnable reading) {
    try {
      reading.run();
      return true;
    } catch (SettingException e) {
      node.wrong(String.valueOf(e.getMessage()));
      return false;
    }
  }

  private static @Nullable Several several(@Nullable PlanNode node) {
    String word = node == null ? null : node.oneOf(List.of("flag", "first", "last"));
    return word == null ? null : Several.valueOf(word.toUpperCase(Locale.ROOT));
  }

  private static List<KeyPart> key(@Nullable PlanNode node) {
    List<KeyPart> parts = new ArrayList<>();
    if (node != null) {
      for (PlanNode item : node.items()) {
        KeyPart part = item.isMapping() ? longPart(item) : shortPart(item);
        if (part != null) {
          parts.add(part);
        }
      }
    }
    return parts;
  }

  private static @Nullable KeyPart shortPart(PlanNode node) {
    String text = node.text();
    if (text == null) {
      return null;
    }
    List<KeyPart> parsed = new ArrayList<>();
    reads(node, () -> parsed.add(KeyPart.parse(text)));
    return parsed.isEmpty() ? null : parsed.get(0);
  }

  private static @Nullable KeyPart longPart(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(PART);
    PlanNode ours = settings.get("ours");
    PlanNode theirs = settings.get("theirs");
    if (ours == null || theirs == null) {
      node.wrong("a key part states both ours: COLUMN and theirs: COLUMN");
      return null;
    }
    String oursName = ours.text();
    String theirsName = theirs.text();
    List<NormaliseStep> steps = null;
    PlanNode normalise = settings.get("normalise");
    if (normalise != null) {
      steps = NormaliseReader.read(normalise);
    }
    return oursName == null || theirsName == null ? null : new KeyPart(oursName, theirsName, steps);
  }

  private static void treatment(
      @Nullable PlanNode node, Outcome outcome, Map<Outcome, Treatment> treatments) {
    if (node == null) {
      return;
    }
    if (node.isMapping()) {
      treatments.put(outcome, Treatment.filling(fill(node)));
      return;
    }
    String word = node.oneOf(List.of("leave", "drop", "fail"));
    if (word != null) {
      treatments.put(
          outcome,
          switch (word) {
            case "drop" -> Treatment.drop();
            case "fail" -> Treatment.fail();
            default -> Treatment.leave();
          });
    }
  }

  private static Fill empty(@Nullable PlanNode node) {
    if (node == null) {
      return new Fill(Map.of());
    }
    if (node.isMapping()) {
      return fill(node);
    }
    node.oneOf(List.of("leave"));
    return new Fill(Map.of());
  }

  private static Fill fill(PlanNode node) {
    Map<String, String> values = new LinkedHashMap<>();
    PlanNode fill = node.entries(Set.of("fill")).get("fill");
    if (fill == null) {
      node.wrong("state the values as { fill: { ATTRIBUTE: value } }");
    } else {
      fill.anyEntries()
          .forEach(
              (column, value) -> {
                String text = value.text();
                if (text != null) {
                  values.put(column, text);
                }
              });
    }
    return new Fill(values);
  }
}
