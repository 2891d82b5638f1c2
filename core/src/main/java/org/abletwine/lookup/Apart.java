package org.abletwine.lookup;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.LeftOutRows;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.jspecify.annotations.Nullable;

/** Where rows go that a lookup sets apart by their outcome; several outcomes may share a place. */
final class Apart {
  static final Apart NONE = new Apart(Map.of(), new int[Outcome.values().length]);

  private final Map<Destination, LeftOutRows> places;

  /** For each outcome which of the places, from 1 on; 0 for none. */
  private final int[] placeOf;

  private Apart(Map<Destination, LeftOutRows> places, int[] placeOf) {
    this.places = places;
    this.placeOf = placeOf;
  }

  /**
   * Begins what is written.
   *
   * @param before the columns before the lookup added its own
   * @param columns the columns of the run
   */
  static Apart of(Lookup lookup, Columns before, Columns columns, RunContext context) {
    Table transactions = context.transactions();
    if (!context.writes() || transactions == null) {
      return NONE;
    }
    Map<Destination, LeftOutRows> places = new LinkedHashMap<>();
    int[] placeOf = new int[Outcome.values().length];
    try {
      lookup.treatments.forEach(
          (outcome, treatment) -> {
            Destination place = treatment.apart();
            if (place != null) {
              places.computeIfAbsent(
                  place, name -> new LeftOutRows(context.open(place), transactions, before));
              placeOf[outcome.ordinal()] = List.copyOf(places.keySet()).indexOf(place) + 1;
            }
          });
    } catch (RuntimeException e) {
      places.values().forEach(begun -> begun.output().close());
      throw e;
    }
    if (places.isEmpty()) {
      return NONE;
    }
    columns.readAll();
    return new Apart(places, placeOf);
  }

  /** {@return what is written} */
  List<LeftOutRows> places() {
    return List.copyOf(places.values());
  }

  /** {@return the part of one worker; null when nothing is set apart} */
  @Nullable Part part() {
    return places.isEmpty()
        ? null
        : new Part(places().stream().map(LeftOutRows::part).toList(), placeOf);
  }

  /** One worker's part. */
  record Part(List<LeftOutRows.Part> parts, int[] placeOf) {

    /**
     * Takes the rows of a batch whose outcome has a place.
     *
     * @param outcome the outcome of each row
     */
    void add(Batch batch, byte[] outcome, int count) {
      int[] rows = new int[count];
      for (int place = 1; place <= parts.size(); place++) {
        int taken = 0;
        for (int row = 0; row < count; row++) {
          if (placeOf[outcome[row]] == place) {
            rows[taken++] = row;
          }
        }
        if (taken > 0) {
          parts.get(place - 1).add(batch, rows, taken);
        }
      }
    }

    void inOrder() {
      parts.forEach(LeftOutRows.Part::inOrder);
    }
  }
}
