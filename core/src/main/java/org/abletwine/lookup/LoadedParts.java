package org.abletwine.lookup;

import org.abletwine.lookup.rows.DuplicateRows;
import org.jspecify.annotations.Nullable;

/**
 * Loads a reference part by part, and remembers what is wrong with any part, until it is known what
 * would have been met first had all rows been together. For one thread.
 */
final class LoadedParts {
  private final Held held;

  /** The keys that its rule for duplicates does not allow; null for none. */
  private DuplicateRows.@Nullable Failures refused;

  /** The row that stops its loading; null for none. */
  private ReferenceLoader.@Nullable PartFailure failed;

  /**
   * @param held the reference, divided or not
   */
  LoadedParts(Held held) {
    this.held = held;
  }

  /**
   * Loads a part.
   *
   * @param of whose reference it is
   * @param part which part
   * @return the part, or all of a reference that is not divided; null when a row stops it
   */
  @Nullable LoadedReference part(Lookup of, int part, int workers) {
    try {
      ReferenceLoader.Part read = ReferenceLoader.part(of, held, part, workers);
      DuplicateRows.Failures more = read.failures();
      refused = refused == null || more == null ? more == null ? refused : more : refused.and(more);
      return read.loaded();
    } catch (ReferenceLoader.PartFailure e) {
      failed = ReferenceLoader.PartFailure.first(failed, e);
      return null;
    }
  }

  /** All parts have been loaded: ends the run by what would have ended it, had they been one. */
  void throwIfAny() {
    if (failed != null) {
      throw failed.met();
    }
    if (refused != null) {
      refused.throwIfAny();
    }
  }

  /** Loads all parts, one after another, to see what is wrong with them. */
  static void check(Lookup of, Held held, int workers) {
    if (held instanceof LargeReference large) {
      LoadedParts parts = new LoadedParts(held);
      for (int part = 0; part < large.parts().parts(); part++) {
        parts.part(of, part, workers);
      }
      parts.throwIfAny();
    }
  }
}
