package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.match.MatchRule;
import org.abletwine.match.index.PatternSteps;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.text.NearestName;

/** Checks a lookup's settings, before any row is read. */
final class LookupCheck {
  private LookupCheck() {}

  /**
   * Checks what can be seen without the transactions, for a lookup used one record at a time.
   *
   * @throws SettingException naming every problem, a line for each
   */
  static void loadable(Lookup lookup) {
    Problems problems = new Problems();
    settings(lookup, problems);
    otherwise(lookup, problems);
    List<Lookup> all = new ArrayList<>(lookup.otherwise);
    all.add(0, lookup);
    for (Lookup one : all) {
      problems.look(() -> oneRow(one));
      problems.look(() -> everyRow(one));
    }
    problems.throwIfAny();
  }

  private static void oneRow(Lookup lookup) {
    if (lookup.several.rule() == Several.Rule.EACH) {
      throw new SettingException(
          "lookup "
              + lookup.name
              + ": several: each may give several rows for a key, and a lookup that is used one"
              + " record at a time answers with one; choose flag, first, last or newest-by, or run"
              + " it as a step");
    }
  }

  private static void everyRow(Lookup lookup) {
    if (lookup.asked != null) {
      throw new SettingException(
          "lookup "
              + lookup.name
              + ": when: is for runs; a lookup that is used one record at a time is asked by whoever"
              + " calls it, who can look at the record first");
    }
  }

  private static void settings(Lookup lookup, Problems problems) {
    String where = "lookup " + lookup.name;
    problems.look(() -> keySize(lookup, where));
    List<String> attributes = new ArrayList<>();
    for (Attribute attribute : lookup.bring) {
      if (!attribute.ofRows()) {
        problems.look(() -> require(lookup, attribute, where + ", bring"));
      }
      if (attributes.contains(attribute.as())) {
        problems.look(() -> twice(attribute, where));
      }
      attributes.add(attribute.as());
    }
    for (KeyPart part : lookup.key) {
      problems.look(() -> require(lookup, part.theirs(), where + ", key"));
      String to = part.theirsTo();
      if (to != null) {
        problems.look(() -> require(lookup, to, where + ", key"));
      }
    }
    problems.look(() -> rules(lookup, where));
    String decides = lookup.duplicates.column();
    if (decides != null) {
      problems.look(() -> require(lookup, decides, where + ", duplicates"));
    }
    lookup.treatments.forEach(
        (outcome, treatment) -> {
          String setting = outcome == Outcome.MATCHED ? "empty" : outcome.label();
          for (String column : treatment.fill().values().keySet()) {
            problems.look(() -> brought(column, attributes, where + ", " + setting));
          }
        });
  }

  private static void keySize(Lookup lookup, String where) {
    if (lookup.key.isEmpty()) {
      throw new SettingException(where + ": no key; state it as ours = theirs");
    }
    if (lookup.key.size() > 31) {
      throw new SettingException(where + ": more than 31 key parts");
    }
  }

  private static void twice(Attribute attribute, String where) {
    throw new SettingException(
        where
            + ", bring: \""
            + attribute.as()
            + "\" stands twice; give one another name: "
            + attribute.source()
            + " as OTHER");
  }

  private static void brought(String column, List<String> attributes, String where) {
    if (!attributes.contains(column)) {
      throw new SettingException(
          where
              + ": fill names \""
              + column
              + "\", which the lookup does not bring; "
              + NearestName.hint(column, attributes));
    }
  }

  /** Settings that contradict each other. */
  private static void rules(Lookup lookup, String where) {
    List<KeyPart> ruled = lookup.key.stream().filter(part -> !part.equal()).toList();
    List<KeyPart> choosing =
        ruled.stream().filter(part -> part.match().kind() != MatchRule.Kind.BETWEEN).toList();
    if (choosing.size() > 1) {
      throw new SettingException(
          where
              + ", key: \""
              + choosing.get(0)
              + "\" and \""
              + choosing.get(1)
              + "\" both match by a rule; one lookup takes any number of bands (between) and one"
              + " other rule beside any equal parts, so bring the first by a lookup of its own and"
              + " use what it brings as key of the second");
    }
    for (KeyPart part : ruled) {
      boolean band = part.match().kind() == MatchRule.Kind.BETWEEN;
      if (band != (part.theirsTo() != null)) {
        throw new SettingException(
            where
                + ", key: "
                + (band
                    ? "match: between needs two columns of theirs, the lower end and the upper end"
                    : "match: " + part.match().word() + " takes one column of theirs"));
      }
    }
    for (KeyPart part : ruled) {
      String refused = PatternSteps.refused(part.match().kind(), KeyLayout.steps(lookup, part));
      if (refused != null) {
        throw new SettingException(
            where
                + ", key: "
                + refused
                + " cannot be applied to a "
                + (part.match().kind() == MatchRule.Kind.REGEX ? "regular expression" : "wildcard")
                + " without changing what it means; normalise that part otherwise, such as"
                + " normalise: [trim, ignore-case]");
      }
    }
    boolean patterns =
        ruled.stream().anyMatch(p -> p.match().kind().pattern() && !p.match().oursIsPattern());
    if (lookup.several.rule() == Several.Rule.LONGEST && !patterns) {
      throw new SettingException(
          where
              + ": several: longest chooses between patterns of theirs, and no key part has them;"
              + " use flag, first, last, newest-by or each");
    }
    if (lookup.several.column() != null) {
      require(lookup, lookup.several.column(), where + ", several");
    }
    boolean aggregates = lookup.bring.stream().anyMatch(a -> a.aggregate() != null);
    if (aggregates && lookup.several.rule() != Several.Rule.FLAG) {
      throw new SettingException(
          where
              + ": an aggregate takes all rows a key fits, so several: "
              + lookup.several
              + " has nothing to choose; leave one of them out");
    }
    if (aggregates && lookup.duplicates.rule() != Duplicates.Rule.KEEP) {
      throw new SettingException(
          where
              + ": an aggregate takes all rows a key fits, but the reference's rule for duplicates ("
              + lookup.duplicates
              + ") leaves only one; leave one of them out");
    }
  }

  /** Lookups tried for rows still without a match. */
  private static void otherwise(Lookup lookup, Problems problems) {
    List<String> names = lookup.bring.stream().map(Attribute::as).toList();
    for (Lookup other : lookup.otherwise) {
      settings(other, problems);
      problems.look(() -> notAsked(lookup, other));
      for (Attribute attribute : other.bring) {
        problems.look(
            () -> {
              if (!names.contains(attribute.as())) {
                throw new SettingException(
                    "lookup "
                        + lookup.name
                        + ", otherwise "
                        + other.name
                        + ": brings \""
                        + attribute.as()
                        + "\", which the lookup itself does not; "
                        + NearestName.hint(attribute.as(), names));
              }
            });
      }
    }
  }

  private static void notAsked(Lookup lookup, Lookup other) {
    if (other.asked != null) {
      throw new SettingException(
          "lookup "
              + lookup.name
              + ", otherwise "
              + other.name
              + ": when: stands at the lookup itself; what is tried otherwise is asked for all of its"
              + " rows that are still without a match");
    }
  }

  private static void require(Lookup lookup, Attribute attribute, String where) {
    if (attribute.source().equals("*") && lookup.reference.schema().indexOf("*") < 0) {
      throw new SettingException(
          where
              + ": "
              + lookup.reference.name()
              + " has no column \"*\"; to bring all of its columns say all in place of their"
              + " names");
    }
    require(lookup, attribute.source(), where);
  }

  private static void require(Lookup lookup, String column, String where) {
    if (lookup.reference.schema().indexOf(column) < 0) {
      throw new SettingException(
          where
              + ": "
              + lookup.reference.name()
              + " has no column \""
              + column
              + "\"; "
              + NearestName.hint(column, lookup.reference.schema().names()));
    }
  }

  /**
   * Checks everything, declares the added columns, and returns the keys' column numbers. The
   * columns are declared even when something is wrong, so that later steps can be checked too.
   *
   * @throws SettingException naming every problem, a line for each
   */
  static List<int[]> against(Lookup lookup, Columns columns) {
    Problems problems = new Problems();
    settings(lookup, problems);
    otherwise(lookup, problems);
    String step = "lookup " + lookup.name;
    Asked asked = lookup.asked;
    if (asked != null) {
      problems.look(() -> asked.over(columns, lookup.name));
    }
    List<int[]> numbers = new ArrayList<>();
    numbers.add(keyColumns(lookup, columns, step + ", key", problems));
    for (Lookup other : lookup.otherwise) {
      String where = step + ", otherwise " + other.name + ", key";
      numbers.add(keyColumns(other, columns, where, problems));
    }
    Set<String> declared = new HashSet<>();
    for (Attribute attribute : lookup.bring) {
      if (!declared.add(attribute.as())) {
        continue; // told already
      }
      String remedy =
          "bring it under another name: "
              + attribute.source()
              + " as "
              + prefix(lookup.name)
              + "_"
              + attribute.as();
      problems.look(() -> columns.add(attribute.as(), step, remedy));
      columns.hide(attribute.as(), hides(lookup, attribute));
      ColumnType type = lookup.reference.type(attribute.source());
      Aggregate aggregate = attribute.aggregate();
      columns.typed(attribute.as(), aggregate == null ? type : aggregate.type(type));
      if (aggregate == null && lookup.reference instanceof BatchTable batches) {
        columns.likely(attribute.as(), batches.likely(attribute.source()));
      }
    }
    if (lookup.mark != null) {
      problems.look(() -> columns.add(lookup.mark, step, "choose another name for mark"));
    }
    problems.throwIfAny();
    return numbers;
  }

  /** Whether an attribute may hold private values, of the reference or of one tried otherwise. */
  private static boolean hides(Lookup lookup, Attribute attribute) {
    return lookup.hides(attribute)
        || lookup.otherwise.stream()
            .anyMatch(
                other ->
                    other.bring.stream()
                        .anyMatch(a -> a.as().equals(attribute.as()) && other.hides(a)));
  }

  private static int[] keyColumns(Lookup lookup, Columns columns, String where, Problems problems) {
    int[] numbers = new int[lookup.key.size()];
    for (int part = 0; part < numbers.length; part++) {
      int at = part;
      KeyPart one = lookup.key.get(part);
      problems.look(() -> numbers[at] = columns.require(one.ours(), where));
      columns.hide(one.ours(), lookup.hides(one));
    }
    return numbers;
  }

  private static String prefix(String lookupName) {
    String base = lookupName.replaceAll("\\.[A-Za-z0-9]+$", "").replaceAll("[^A-Za-z0-9]+", "_");
    return base.length() > 2 && base.endsWith("s") ? base.substring(0, base.length() - 1) : base;
  }
}
