package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.Veil;

/**
 * What was found in a reference, or in one of its parts. Keys on several rows come in the order in
 * which they were found to be so: that of their second rows.
 *
 * @param name the reference
 * @param read its rows that its condition let pass
 * @param keys its distinct keys
 * @param blankKeys rows that no key can find
 * @param severalKeys keys on several rows
 * @param conflictingKeys those of them whose rows disagree
 * @param filteredOut rows left out by its condition
 * @param duplicates rows left out by its rule for duplicates
 * @param unreadable rows left out because they cannot be read
 * @param collisions keys written differently
 * @param examples some of them
 * @param several the first keys on several rows
 */
record ReferenceFacts(
    String name,
    long read,
    long keys,
    long blankKeys,
    long severalKeys,
    long conflictingKeys,
    long filteredOut,
    long duplicates,
    long unreadable,
    long collisions,
    List<LoadedReference.Example> examples,
    List<Several> several) {

  /** A key on several rows, and the second of these. */
  record Several(long second, LookupFigures.SeveralRows told) {}

  /** What there is to say of no rows. */
  static ReferenceFacts none(String name) {
    return new ReferenceFacts(name, 0, 0, 0, 0, 0, 0, 0, 0, 0, List.of(), List.of());
  }

  /** Carries what was found to another process, or takes it from there in place of nothing. */
  ReferenceFacts carried(Carrier carrier) {
    return new ReferenceFacts(
        name,
        carrier.number(read),
        carrier.number(keys),
        carrier.number(blankKeys),
        carrier.number(severalKeys),
        carrier.number(conflictingKeys),
        carrier.number(filteredOut),
        carrier.number(duplicates),
        carrier.number(unreadable),
        carrier.number(collisions),
        carrier.all(
            examples,
            new LoadedReference.Example(0, ""),
            one ->
                new LoadedReference.Example(
                    carrier.number(one.second()), carrier.words(one.told()))),
        carrier.all(
            several,
            new Several(0, new LookupFigures.SeveralRows("", "", false)),
            one ->
                new Several(
                    carrier.number(one.second),
                    new LookupFigures.SeveralRows(
                        carrier.words(one.told.key()),
                        carrier.words(one.told.rows()),
                        carrier.flag(one.told.conflicting())))));
  }

  static ReferenceFacts of(Lookup lookup, LoadedReference reference) {
    boolean ruled = reference.finder().rule() != null;
    return new ReferenceFacts(
        reference.name(),
        reference.read(),
        ruled ? reference.read() : reference.finder().index().keys(),
        reference.blankKeys(),
        reference.finder().sets().count(),
        reference.choices().conflictingCount(),
        reference.leftOutRows(),
        reference.duplicates().size(),
        reference.unreadable().length,
        reference.collisions(),
        reference.collisionExamples(),
        ruled ? List.of() : several(lookup, reference));
  }

  /** Keys that stand on several rows, as the first of them writes them. */
  private static List<Several> several(Lookup lookup, LoadedReference reference) {
    List<Several> several = new ArrayList<>();
    int from = lookup.bring.size(); // the key comes after what is brought
    int most = LookupFigures.Reference.MOST_SEVERAL;
    boolean[] hidden = KeyLayout.of(lookup).hidden(lookup);
    for (int set = 0; set < reference.finder().sets().count() && several.size() < most; set++) {
      int[] rows = reference.finder().sets().rows(set);
      StringBuilder key = new StringBuilder();
      for (int part = 0; part < lookup.key.size(); part++) {
        String value = Veil.over(hidden[part], reference.rows().get(rows[0], from + part));
        key.append(part == 0 ? "" : " | ").append(value);
      }
      several.add(
          new Several(
              reference.numbers().of(rows[1]),
              new LookupFigures.SeveralRows(
                  key.toString(),
                  reference.numbers().list(rows),
                  reference.choices().conflicting(set))));
    }
    return several;
  }

  /** {@return the same with as many keys on several rows, of which so many disagree} */
  ReferenceFacts met(long onSeveral, long conflicting) {
    return new ReferenceFacts(
        name,
        read,
        keys,
        blankKeys,
        onSeveral,
        conflicting,
        filteredOut,
        duplicates,
        unreadable,
        collisions,
        examples,
        several);
  }

  /** {@return what was found in these rows and in others of the same reference} */
  ReferenceFacts and(ReferenceFacts other) {
    List<LoadedReference.Example> allExamples = new ArrayList<>(examples);
    allExamples.addAll(other.examples);
    allExamples.sort((a, b) -> Long.compare(a.second(), b.second()));
    List<Several> allSeveral = new ArrayList<>(several);
    allSeveral.addAll(other.several);
    allSeveral.sort((a, b) -> Long.compare(a.second(), b.second()));
    int most = LookupFigures.Reference.MOST_SEVERAL;
    return new ReferenceFacts(
        name,
        read + other.read,
        keys + other.keys,
        blankKeys + other.blankKeys,
        severalKeys + other.severalKeys,
        conflictingKeys + other.conflictingKeys,
        filteredOut + other.filteredOut,
        duplicates + other.duplicates,
        unreadable + other.unreadable,
        collisions + other.collisions,
        allExamples.subList(0, Math.min(LoadedReference.EXAMPLES, allExamples.size())),
        allSeveral.subList(0, Math.min(most, allSeveral.size())));
  }

  LookupFigures.Reference figures() {
    return new LookupFigures.Reference(
        name,
        read + filteredOut,
        keys,
        blankKeys,
        severalKeys,
        conflictingKeys,
        filteredOut,
        duplicates,
        unreadable,
        collisions,
        examples.stream().map(LoadedReference.Example::told).toList(),
        several.stream().map(Several::told).toList());
  }
}
