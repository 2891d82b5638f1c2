package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.batch.Batch;
import org.jspecify.annotations.Nullable;

/**
 * Which parts of keys a reference knows, to say of a key of several parts that is not there which
 * of them is missing. Gone through once, when first asked. Safe to share between threads.
 */
class KnownParts {
  private final Lookup lookup;
  private final @Nullable LoadedReference reference;
  private final boolean silent;
  private volatile @Nullable List<Set<String>> known;

  KnownParts(Lookup lookup, @Nullable LoadedReference reference) {
    this.lookup = lookup;
    this.reference = reference;
    this.silent = false;
  }

  /**
   * The parts of a reference that is not in memory.
   *
   * @param known for each part of the key those values, as compared, that are known of all that
   *     will be asked for; null when nothing is said of them
   */
  KnownParts(Lookup lookup, @Nullable List<Set<String>> known) {
    this.lookup = lookup;
    this.reference = null;
    this.known = known;
    this.silent = known == null;
  }

  /** Whether there is anything to say: several parts, all of which must be equal. */
  boolean tells() {
    return !silent && lookup.key.size() > 1 && lookup.key.stream().allMatch(KeyPart::equal);
  }

  /** A part as it is compared. */
  String compared(@Nullable String cell, int part) {
    String text = cell == null ? "" : cell;
    for (NormaliseStep step : KeyLayout.steps(lookup, lookup.key.get(part))) {
      text = step.apply(text);
    }
    return text;
  }

  /** The part of the key that a row of the reference has, as written; null for null. */
  @Nullable String part(int row, int part) {
    // the cells of the key stand behind those brought
    return held().rows().get(row, lookup.bring.size() + part);
  }

  /** Whether all keys of the reference are in memory. */
  boolean whole() {
    return reference != null;
  }

  private LoadedReference held() {
    return Objects.requireNonNull(reference, "the reference is not in memory");
  }

  private List<Set<String>> known() {
    List<Set<String>> sets = known;
    return sets == null ? goThrough() : sets;
  }

  private synchronized List<Set<String>> goThrough() {
    List<Set<String>> sets = known;
    if (sets == null) {
      sets = new ArrayList<>();
      for (int part = 0; part < lookup.key.size(); part++) {
        Set<String> values = new HashSet<>();
        for (int row = 0; row < held().rows().rows(); row++) {
          values.add(compared(part(row, part), part));
        }
        sets.add(values);
      }
      known = sets;
    }
    return sets;
  }

  /** Says which parts of a row's key are known, such as {@code variety known, grade not}. */
  String of(Batch batch, int row, int[] keyColumns) {
    boolean all = true;
    List<String> parts = new ArrayList<>();
    for (int part = 0; part < keyColumns.length; part++) {
      String cell = batch.column(keyColumns[part]).get(row);
      boolean there = known().get(part).contains(compared(cell, part));
      all &= there;
      parts.add(lookup.key.get(part).ours() + (there ? " known" : " not"));
    }
    return all
        ? "each part is known, but no row of " + lookup.reference.name() + " has them together"
        : String.join(", ", parts);
  }
}
