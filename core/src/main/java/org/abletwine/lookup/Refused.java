package org.abletwine.lookup;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.abletwine.lookup.rows.DuplicateRows;
import org.abletwine.lookup.rows.ValuesCompared;
import org.abletwine.table.DataException;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * What is wrong with a reference, or with its parts: gathered from all parts in any order, until it
 * is known what would have been met first had all rows been together. For one thread.
 */
final class Refused {
  /** The row that stops its loading; null for none. */
  private @Nullable Stop stop;

  /** The values that decide which row is the newest, by how far loading has come with them. */
  private final Map<Integer, ValuesCompared> compared = new TreeMap<>();

  /** The keys that its rule for duplicates does not allow; null for none. */
  private DuplicateRows.@Nullable Failures keys;

  /** A row for which a part cannot be loaded, and how far loading had come. */
  private record Stop(int stage, DataException met) {
    static Stop carried(@Nullable Stop held, Carrier carrier) {
      Stop stop = held == null ? new Stop(0, new DataException("")) : held;
      int stage = carrier.number(stop.stage);
      return new Stop(stage, carrier.failure(stop.met));
    }

    /** Of two, what would have been met first had all rows been together. */
    static @Nullable Stop first(@Nullable Stop one, @Nullable Stop other) {
      if (one == null || other == null) {
        return one == null ? other : one;
      }
      if (one.stage != other.stage) {
        return one.stage < other.stage ? one : other;
      }
      return other.met.row() < one.met.row() ? other : one;
    }
  }

  /**
   * Loading has met a row that stops it.
   *
   * @param stage how far it had come
   * @throws DataException when that is of no single row, nor of values compared with others
   */
  void stopped(int stage, DataException met) {
    if (compared.containsKey(stage)) {
      return; // by their place among those of all parts
    }
    if (met.row() == 0) {
      throw met;
    }
    stop = new Stop(stage, met);
  }

  /** Values were compared at that stage of loading. */
  void compared(int stage, ValuesCompared values) {
    compared.put(stage, values);
  }

  /** The rule for duplicates does not allow these. */
  void keys(DuplicateRows.Failures failures) {
    keys = failures;
  }

  /** Carries what is wrong to another process, or takes it from there in place of nothing. */
  void carry(Carrier carrier) {
    stop = carrier.flag(stop != null) ? Stop.carried(stop, carrier) : null;
    List<Map.Entry<Integer, ValuesCompared>> all =
        carrier.all(
            List.copyOf(compared.entrySet()),
            Map.entry(0, ValuesCompared.NOTHING),
            one ->
                Map.entry(
                    carrier.number(one.getKey()), ValuesCompared.carried(one.getValue(), carrier)));
    if (carrier.comesIn()) {
      all.forEach(one -> compared.put(one.getKey(), one.getValue()));
    }
    keys = carrier.flag(keys != null) ? DuplicateRows.Failures.carried(keys, carrier) : null;
  }

  /** Takes over what is wrong with another part. */
  void merge(Refused other) {
    stop = Stop.first(stop, other.stop);
    other.compared.forEach(
        (stage, values) ->
            compared.merge(
                stage,
                values,
                (one, more) -> {
                  one.merge(more);
                  return one;
                }));
    if (other.keys != null) {
      keys = keys == null ? other.keys : keys.and(other.keys);
    }
  }

  /**
   * All parts have been loaded: ends the run by what would have ended it, had they been one.
   *
   * @throws DataException then
   */
  void throwIfAny() {
    Stop first = stop;
    for (Map.Entry<Integer, ValuesCompared> one : compared.entrySet()) {
      DataException failure = one.getValue().failure();
      first = failure == null ? first : Stop.first(first, new Stop(one.getKey(), failure));
    }
    if (first != null) {
      throw first.met();
    }
    if (keys != null) {
      keys.throwIfAny();
    }
  }
}
