package org.abletwine.lookup;

import org.jspecify.annotations.Nullable;

/**
 * Loads a reference part by part, and remembers what is wrong with any part, until it is known what
 * would have been met first had all rows been together. For one thread.
 */
final class LoadedParts {
  private final Held held;

  private final Refused refused = new Refused();

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
    ReferenceLoader.Part read = ReferenceLoader.part(of, held, part, workers);
    refused.merge(read.refused());
    return read.loaded();
  }

  /** What is wrong with the parts that were loaded. */
  Refused refused() {
    return refused;
  }

  /** Loads all parts, one after another, to see what is wrong with them. */
  static void check(Lookup of, Held held, int workers) {
    if (held instanceof LargeReference large) {
      LoadedParts parts = new LoadedParts(held);
      for (int part = 0; part < large.parts().size(); part++) {
        parts.part(of, part, workers);
      }
      parts.refused.throwIfAny();
    }
  }
}
