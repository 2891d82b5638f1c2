package org.abletwine.lookup;

import java.util.List;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.MatchRule;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * What a loaded reference depends on of its lookup: two lookups that agree in it, such as one by
 * the site of origin and one by that of arrival, can share one.
 *
 * @param reference the table
 * @param where its condition; empty for none
 * @param parts what the key's parts are on the side of the reference
 * @param bring the columns brought, aggregates with their functions, whatever they are called
 * @param several the rule for several rows of a key
 * @param duplicates the reference's rule for duplicates
 * @param leavesOutUnreadable whether rows are left out whose ordered cell cannot be read
 * @param apart differs for lookups that find sets of rows while looking: they are counted for each
 */
record LoadKey(
    Table reference,
    String where,
    List<Part> parts,
    List<Brought> bring,
    Several several,
    Duplicates duplicates,
    boolean leavesOutUnreadable,
    Set<String> hidden,
    Object apart) {

  /**
   * Of some components: the records that the others consist of put their hashes together from
   * pieces that are made when they are first asked for, which a short run would wait for.
   */
  @Override
  public int hashCode() {
    int hash = 31 * reference.hashCode() + where.hashCode();
    for (Part part : parts) {
      hash = 31 * hash + part.theirs.hashCode();
    }
    for (Brought brought : bring) {
      hash = 31 * hash + brought.source.hashCode();
    }
    return hash;
  }

  /** A part of the key; our column counts only where messages name it. */
  record Part(
      String theirs,
      @Nullable String theirsTo,
      MatchRule match,
      List<NormaliseStep> steps,
      @Nullable String ours) {}

  /** A column brought. */
  record Brought(String source, @Nullable Aggregate aggregate) {}

  /** Whether the sets of rows that fit are known when the reference is loaded. */
  private static boolean setsKnown(KeyPart part) {
    return part.equal()
        || part.match().kind().ordered()
        || part.match().kind() == MatchRule.Kind.LISTED;
  }

  static LoadKey of(Lookup lookup) {
    boolean named = KeyLayout.of(lookup).rules().length > 1;
    return new LoadKey(
        lookup.reference,
        lookup.where == null ? "" : lookup.where.toString(),
        lookup.key.stream()
            .map(
                part ->
                    new Part(
                        part.theirs(),
                        part.theirsTo(),
                        part.match(),
                        List.copyOf(KeyLayout.steps(lookup, part)),
                        named ? part.ours() : null))
            .toList(),
        lookup.bring.stream().map(a -> new Brought(a.source(), a.aggregate())).toList(),
        lookup.several,
        lookup.duplicates,
        lookup.leavesOutUnreadable,
        lookup.hidden,
        lookup.key.stream().allMatch(LoadKey::setsKnown) ? "" : new Object());
  }
}
