package org.abletwine.step.run;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Supplier;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * References that several runs over the same tables share, each loaded by the first that needs it.
 * Safe for use by several threads: of two that need one, one waits while the other loads it.
 */
public final class HeldReferences implements AutoCloseable {
  @GuardedBy("this") private final Map<Object, Object> held = new HashMap<>();

  private final Spill spill;

  /**
   * @param memory bytes that they may take together; 0 for what is usual
   * @param folder where those go that do not fit; null for the folder for temporary files
   */
  public HeldReferences(long memory, @Nullable Path folder) {
    spill = new Spill(memory, folder);
  }

  synchronized <T> T get(Object key, Class<T> kind, Supplier<T> make) {
    Object known = held.get(key);
    if (known == null) {
      known = make.get();
      held.put(key, known);
    }
    return kind.cast(known);
  }

  /** Returns how many bytes they may take in memory together. */
  public long memory() {
    return spill.limit();
  }

  /** Returns how much may be in memory; used by whoever loads one. */
  Spill spill() {
    return spill;
  }

  /** Lets all of them go. */
  @Override
  public synchronized void close() {
    held.clear();
    spill.close();
  }

  @Override
  public synchronized String toString() {
    return "HeldReferences[" + held.size() + "]";
  }
}
