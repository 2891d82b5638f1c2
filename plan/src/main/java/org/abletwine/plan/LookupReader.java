package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.lookup.Attribute;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.Outcome;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.table.Destination;
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
          "when",
          "several",
          "unmatched",
          "ambiguous",
          "blank-key",
          "empty",
          "mark",
          "otherwise");
  private static final Set<String> OTHERWISE =
      PlanReader.ordered("reference", "name", "key", "normalise", "bring", "several");

  private static final Set<String> APART = Set.of("apart");

  private final Path folder;

  /**
   * @param folder what relative paths are relative to
   */
  LookupReader(Path folder) {
    this.folder = folder;
  }

  @Nullable LookupSpec read(PlanNode node) {
    Map<String, PlanNode> settings = node.entries(LOOKUP);
    PlanNode reference = settings.get("lookup");
    if (reference == null) {
      if (node.isMapping()) {
        node.wrong(
            "not a step; a step starts with lookup: REFERENCE, correct: COLUMN, coalesce:"
                + " COLUMN, compute: or keep: CONDITION");
      }
      return null;
    }
    String referenceName = reference.text();
    PlanNode normalise = settings.get("normalise");
    PlanNode several = settings.get("several");
    PlanNode bring = settings.get("bring");
    PlanNode mark = settings.get("mark");
    PlanNode name = settings.get("name");
    PlanNode when = settings.get("when");
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
        KeyReader.read(settings.get("key")),
        normalise == null ? null : NormaliseReader.read(normalise),
        bring == null || all(bring) ? List.of() : attributes(bring),
        bring != null && all(bring),
        when == null ? null : when.sql(),
        several(several),
        treatments,
        empty(settings.get("empty")),
        mark == null ? null : mark.text(),
        otherwise(settings.get("otherwise")),
        reference.mark());
  }

  private static boolean all(PlanNode bring) {
    return bring.isScalar() && "all".equals(bring.text());
  }

  private static List<LookupSpec> otherwise(@Nullable PlanNode node) {
    List<LookupSpec> all = new ArrayList<>();
    if (node != null) {
      for (PlanNode item : node.items()) {
        LookupSpec spec = oneOtherwise(item);
        if (spec != null) {
          all.add(spec);
        }
      }
    }
    return all;
  }

  private static @Nullable LookupSpec oneOtherwise(PlanNode item) {
    Map<String, PlanNode> settings = item.entries(OTHERWISE);
    PlanNode reference = settings.get("reference");
    PlanNode name = settings.get("name");
    PlanNode normalise = settings.get("normalise");
    PlanNode bring = settings.get("bring");
    String referenceName = reference == null ? null : reference.text();
    if (reference == null || referenceName == null) {
      item.wrong("state what to try otherwise as { reference: NAME, key: ..., bring: [...] }");
      return null;
    }
    return new LookupSpec(
        referenceName,
        name == null ? null : name.text(),
        KeyReader.read(settings.get("key")),
        normalise == null ? null : NormaliseReader.read(normalise),
        bring == null || all(bring) ? List.of() : attributes(bring),
        bring != null && all(bring),
        null,
        several(settings.get("several")),
        Map.of(),
        new Fill(Map.of()),
        null,
        List.of(),
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

  static boolean reads(PlanNode node, Runnable reading) {
    try {
      reading.run();
      return true;
    } catch (SettingException e) {
      node.wrong(String.valueOf(e.getMessage()));
      return false;
    }
  }

  private static @Nullable Several several(@Nullable PlanNode node) {
    if (node == null) {
      return null;
    }
    if (node.isMapping()) {
      PlanNode column = node.entries(Set.of("newest-by")).get("newest-by");
      String name = column == null ? null : column.text();
      if (name == null) {
        node.wrong("state several: { newest-by: COLUMN }");
      }
      return name == null ? null : Several.newestBy(name);
    }
    if (node.isScalar() && "newest-by".equals(node.text())) {
      node.wrong("newest-by needs a column: several: { newest-by: COLUMN }");
      return null;
    }
    String word = node.oneOf(List.of("flag", "first", "last", "longest", "each"));
    return word == null
        ? null
        : new Several(Several.Rule.valueOf(word.toUpperCase(Locale.ROOT)), null);
  }

  private void treatment(
      @Nullable PlanNode node, Outcome outcome, Map<Outcome, Treatment> treatments) {
    if (node == null) {
      return;
    }
    if (node.has("apart")) {
      Destination place = PlaceReader.read(folder, node.entries(APART).get("apart"));
      if (place != null) {
        treatments.put(outcome, Treatment.apart(place));
      }
      return;
    }
    if (node.isMapping()) {
      treatments.put(outcome, Treatment.filling(fill(node)));
      return;
    }
    List<String> words =
        outcome == Outcome.AMBIGUOUS
            ? List.of("leave", "drop", "fail")
            : List.of("leave", "expected", "drop", "fail");
    String word = node.oneOf(words);
    if (word != null) {
      treatments.put(
          outcome,
          switch (word) {
            case "drop" -> Treatment.drop();
            case "expected" -> Treatment.expected();
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
