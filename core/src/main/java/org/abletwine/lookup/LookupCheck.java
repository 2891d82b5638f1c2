package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.step.Columns;
import org.abletwine.table.NearestName;
import org.abletwine.table.SettingException;

/** Checks a lookup's settings, before any row is read. */
final class LookupCheck {
  private LookupCheck() {}

  /** Checks what can be seen without the transactions. */
  static void settings(Lookup lookup) {
    String where = "lookup " + lookup.name;
    if (lookup.key.isEmpty()) {
      throw new SettingException(where + ": no key; state it as ours = theirs");
    }
    if (lookup.key.size() > 31) {
      throw new SettingException(where + ": more than 31 key parts");
    }
    List<String> attributes = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (Attribute attribute : lookup.bring) {
      require(lookup, attribute.source(), where + ", bring");
      if (!seen.add(attribute.as())) {
        throw new SettingException(
            where
                + ", bring: \""
                + attribute.as()
                + "\" stands twice; give one another name: "
                + attribute.source()
                + " as OTHER");
      }
      attributes.add(attribute.as());
    }
    for (KeyPart part : lookup.key) {
      require(lookup, part.theirs(), where + ", key");
    }
    if (lookup.duplicates.column() != null) {
      require(lookup, lookup.duplicates.column(), where + ", duplicates");
    }
    lookup.treatments.forEach(
        (outcome, treatment) -> {
          for (String column : treatment.fill().values().keySet()) {
            if (!seen.contains(column)) {
              String setting = outcome == Outcome.MATCHED ? "empty" : outcome.label();
              throw new SettingException(
                  where
                      + ", "
                      + setting
                      + ": fill names \""
                      + column
                      + "\", which the lookup does not bring; "
                      + NearestName.hint(column, attributes));
            }
          }
        });
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

  /** Checks everything, declares the added columns, and returns the key's column numbers. */
  static int[] against(Lookup lookup, Columns columns) {
    settings(lookup);
    String step = "lookup " + lookup.name;
    int[] numbers = new int[lookup.key.size()];
    for (int part = 0; part < numbers.length; part++) {
      numbers[part] = columns.require(lookup.key.get(part).ours(), step + ", key");
    }
    for (Attribute attribute : lookup.bring) {
      String other = prefix(lookup.name) + "_" + attribute.as();
      columns.add(
          attribute.as(),
          step,
          "bring it under another name: " + attribute.source() + " as " + other);
    }
    if (lookup.mark != null) {
      columns.add(lookup.mark, step, "choose another name for mark");
    }
    return numbers;
  }

  private static String prefix(String lookupName) {
    String base = lookupName.replaceAll("\\.[A-Za-z0-9]+$", "").replaceAll("[^A-Za-z0-9]+", "_");
    return base.length() > 2 && base.endsWith("s") ? base.substring(0, base.length() - 1) : base;
  }
}
