package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.KeyPart;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.By;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** Reads a key: parts in the short form {@code ours = theirs}, or in the long one. */
final class KeyReader {
  private static final Set<String> PART =
      PlanReader.ordered(
          "ours",
          "theirs",
          "match",
          "within",
          "ends",
          "pattern",
          "at-least",
          "by",
          "separator",
          "normalise");

  private KeyReader() {}

  static List<KeyPart> read(@Nullable PlanNode node) {
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
    LookupReader.reads(node, () -> parsed.add(KeyPart.parse(text)));
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
    List<String> theirsNames = theirs.texts();
    List<NormaliseStep> steps = null;
    PlanNode normalise = settings.get("normalise");
    if (normalise != null) {
      steps = NormaliseReader.read(normalise);
    }
    if (theirsNames.isEmpty() || theirsNames.size() > 2) {
      theirs.wrong("one column, or two for match: between: [FROM, TO]");
      return null;
    }
    MatchRule rule = rule(settings);
    return oursName == null || rule == null
        ? null
        : new KeyPart(
            oursName,
            theirsNames.get(0),
            theirsNames.size() == 2 ? theirsNames.get(1) : null,
            steps,
            rule);
  }

  private static @Nullable MatchRule rule(Map<String, PlanNode> settings) {
    PlanNode match = settings.get("match");
    Kind kind = kind(match);
    if (kind == null) {
      return null;
    }
    only(settings.get("within"), kind.distant(), "nearest, at-or-below or at-or-above");
    only(settings.get("ends"), kind == Kind.BETWEEN, "between");
    only(settings.get("pattern"), kind.pattern(), "starts-with, contains, wildcard or regex");
    only(settings.get("at-least"), kind == Kind.SIMILAR, "similar");
    only(settings.get("by"), kind == Kind.SIMILAR, "similar");
    only(settings.get("separator"), kind == Kind.LISTED, "listed");
    if (match != null && kind == Kind.OWN) {
      return ofOthers(match);
    }
    By by = by(settings.get("by"));
    return new MatchRule(
        kind,
        number(settings.get("within"), "0 or more", BigDecimal.ZERO, null),
        ends(settings.get("ends")),
        oursIsPattern(settings.get("pattern")),
        atLeast(settings.get("at-least"), by.usualAtLeast()),
        by,
        separator(settings.get("separator")),
        null);
  }

  private static @Nullable Kind kind(@Nullable PlanNode match) {
    if (match == null) {
      return Kind.EQUAL;
    }
    String name = match.isScalar() ? match.text() : null;
    if (name != null && name.indexOf(':') > 0) {
      return Kind.OWN; // of another library: names here have no colon
    }
    String word = match.oneOf(Kind.words());
    return word == null ? null : Kind.valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_'));
  }

  private static @Nullable MatchRule ofOthers(PlanNode match) {
    try {
      return MatchRule.named(String.valueOf(match.text()));
    } catch (SettingException e) {
      match.wrong(String.valueOf(e.getMessage()));
      return null;
    }
  }

  private static String separator(@Nullable PlanNode node) {
    String text = node == null ? MatchRule.USUAL_SEPARATOR : node.text();
    if (node != null && text != null && text.isEmpty()) {
      node.wrong("state what stands between two items of a list, such as \";\"");
    }
    return text == null || text.isEmpty() ? MatchRule.USUAL_SEPARATOR : text;
  }

  private static By by(@Nullable PlanNode node) {
    String word = node == null ? null : node.oneOf(List.of("letters", "words"));
    return word == null ? By.LETTERS : By.valueOf(word.toUpperCase(Locale.ROOT));
  }

  private static void only(@Nullable PlanNode node, boolean fits, String rules) {
    if (node != null && !fits) {
      node.wrong("goes with match: " + rules + " only; leave it out or change match");
    }
  }

  private static Ends ends(@Nullable PlanNode node) {
    String word = node == null ? null : node.oneOf(List.of("lower", "both", "upper", "neither"));
    return word == null ? Ends.LOWER : Ends.valueOf(word.toUpperCase(Locale.ROOT));
  }

  private static boolean oursIsPattern(@Nullable PlanNode node) {
    return node != null && "ours".equals(node.oneOf(List.of("ours", "theirs")));
  }

  private static double atLeast(@Nullable PlanNode node, double usual) {
    BigDecimal number = number(node, "from 0 to 1", BigDecimal.ZERO, BigDecimal.ONE);
    return number == null ? usual : number.doubleValue();
  }

  private static @Nullable BigDecimal number(
      @Nullable PlanNode node, String range, BigDecimal least, @Nullable BigDecimal most) {
    String text = node == null ? null : node.text();
    if (node == null || text == null) {
      return null;
    }
    BigDecimal number = DecimalText.read(text);
    boolean inRange =
        number != null
            && number.compareTo(least) >= 0
            && (most == null || number.compareTo(most) <= 0);
    if (inRange) {
      return number;
    }
    node.wrong("expected a number, " + range + ", found \"" + text + "\"");
    return null;
  }
}
