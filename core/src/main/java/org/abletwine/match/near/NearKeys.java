package org.abletwine.match.near;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.abletwine.match.NearMiss;
import org.jspecify.annotations.Nullable;

/**
 * The keys of a reference, to be searched for those that a person would take for a key that did not
 * match. Immutable; safe to share between threads, each of which takes a {@link #search}.
 *
 * <p>Keys are vectors of their words and of their two- and three-letter pieces, each weighed by its
 * rarity among the keys, so that what every key has, such as a suffix, carries nothing (Salton and
 * Buckley, "Term-weighting approaches in automatic text retrieval", 1988). Those whose vectors
 * point the same way are compared word by word: words few edits apart, shortened, joined, swapped
 * or left out (after Cohen, Ravikumar and Fienberg, "A comparison of string distance metrics for
 * name-matching tasks", 2003, which calls it soft), with numbers that must agree. Codes are found
 * with any one character left out, and compared by their edits.
 *
 * <p>It takes about 100 bytes for a name and up to 300 for a code, texts not counted, and a
 * fraction of a millisecond for each key that is searched for.
 */
public final class NearKeys {
  private final List<String> shown;
  private final String[] folded;
  private final PieceIndex index;

  /**
   * @param keys the keys as they are compared, parts of one parted by {@link #PART}
   * @param shown the same keys as they are shown
   */
  public NearKeys(List<String> keys, List<String> shown) {
    if (keys.size() != shown.size()) {
      throw new IllegalArgumentException(
          keys.size() + " keys are compared and " + shown.size() + " shown");
    }
    this.shown = List.copyOf(shown);
    folded = new String[keys.size()];
    for (int i = 0; i < folded.length; i++) {
      folded[i] = FoldedText.of(keys.get(i));
    }
    index =
        new PieceIndex(
            folded.length,
            (key, codes, into) -> {
              if (codes && FoldedText.code(folded[key])) {
                into.ofCode(folded[key]);
              } else {
                into.of(codes ? "" : folded[key]);
              }
            });
  }

  /** Parts the parts of a key of several. */
  public static final char PART = FoldedText.PART;

  /**
   * @param keys the keys, compared and shown as they are
   */
  public NearKeys(List<String> keys) {
    this(keys, keys);
  }

  /** Returns something that searches these keys; for one thread. */
  public NearSearch search() {
    return new NearSearch(this);
  }

  /**
   * Searches for many keys, with a thread for each processor.
   *
   * @param keys what did not match, as it is compared
   * @param most how many to give for each, at most
   * @return for each the nearest first
   */
  public List<List<NearMiss>> nearest(List<String> keys, int most) {
    List<List<NearMiss>> found = new ArrayList<>(Collections.nCopies(keys.size(), List.of()));
    int threads =
        Math.max(1, Math.min(Runtime.getRuntime().availableProcessors(), keys.size() / 16));
    AtomicInteger next = new AtomicInteger();
    AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
    Runnable work =
        () -> {
          try {
            NearSearch search = search();
            for (int i = next.getAndIncrement(); i < keys.size(); i = next.getAndIncrement()) {
              found.set(i, search.nearest(keys.get(i), most));
            }
          } catch (RuntimeException | Error e) {
            failure.compareAndSet(null, e); // what is not found must not pass for nothing near
          }
        };
    List<Thread> others = new ArrayList<>();
    for (int i = 1; i < threads; i++) {
      Thread thread = new Thread(work, "near misses " + (i + 1));
      thread.setDaemon(true);
      thread.start();
      others.add(thread);
    }
    work.run();
    for (Thread thread : others) {
      try {
        thread.join();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new IllegalStateException("interrupted while near misses were looked for", e);
      }
    }
    Throwable failed = failure.get();
    if (failed instanceof Error error) {
      throw error;
    }
    if (failed != null) {
      throw new IllegalStateException("near misses could not be looked for", failed);
    }
    return found;
  }

  int size() {
    return folded.length;
  }

  String folded(int key) {
    return folded[key];
  }

  String shown(int key) {
    return shown.get(key);
  }

  PieceIndex index() {
    return index;
  }

  /** Returns the memory the index takes, in bytes, texts not counted. */
  public long bytes() {
    return index.bytes();
  }

  @Override
  public String toString() {
    return "NearKeys[" + Arrays.stream(folded).limit(3).toList() + ", " + folded.length + " keys]";
  }
}
