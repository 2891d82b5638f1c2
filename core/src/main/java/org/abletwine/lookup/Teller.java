package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.abletwine.step.Exceptions;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Tells of rows that are not matched. Belongs to one worker. */
final class Teller {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final PreparedLookup.Shared shared;
  private final Lookup lookup;
  private final Exceptions exceptions;

  /** For each part of the key whether its values are private. */
  private final boolean[] hidden;

  /** Of which outcomes it is told. */
  private final boolean[] tells = new boolean[OUTCOMES.length];

  Teller(PreparedLookup.Shared shared, Exceptions exceptions) {
    this.shared = shared;
    this.lookup = shared.lookup();
    this.exceptions = exceptions;
    this.hidden = new boolean[shared.keyColumns().length];
    for (int part = 0; part < hidden.length; part++) {
      hidden[part] = lookup.hides(lookup.key.get(part));
    }
    for (Outcome outcome : OUTCOMES) {
      boolean asked = outcome != Outcome.MATCHED && outcome != Outcome.NOT_ASKED;
      tells[outcome.ordinal()] = asked && !lookup.expected().contains(outcome);
    }
  }

  /** Whether rows of an outcome are told of. */
  boolean tells(byte outcome) {
    return tells[outcome];
  }

  /**
   * Tells of each row that is not matched.
   *
   * @param outcomes the outcome of each row
   * @param told what there is to say of a row, beside its key
   */
  void tell(Batch batch, byte[] outcomes, int count, IntFunction<String> told) {
    for (int row = 0; row < count; row++) {
      if (tells[outcomes[row]]) {
        StringBuilder key = new StringBuilder();
        for (int part = 0; part < hidden.length; part++) {
          String value = value(batch, row, part);
          key.append(part == 0 ? "" : " | ").append(value == null ? "" : value);
        }
        exceptions.found(
            new Exceptions.Found(
                lookup.name,
                OUTCOMES[outcomes[row]].label(),
                shared.transactions(),
                batch.rowNumber(row),
                key.toString(),
                told.apply(row),
                shared.measure() < 0 ? null : batch.column(shared.measure()).get(row),
                carried(batch, row)));
      }
    }
  }

  /** What may be shown of a part of a row's key. */
  private @Nullable String value(Batch batch, int row, int part) {
    return Veil.over(hidden[part], batch.column(shared.keyColumns()[part]).get(row));
  }

  private List<@Nullable String> carried(Batch batch, int row) {
    List<@Nullable String> cells = new ArrayList<>();
    int[] columns = shared.carried();
    for (int i = 0; i < columns.length; i++) {
      boolean veiled = shared.carriedHidden().get(i);
      cells.add(Veil.over(veiled, batch.column(columns[i]).get(row)));
    }
    return cells;
  }

  /** What ends the run because of a row's outcome. */
  DataException failure(Batch batch, int row, Outcome outcome, String detail) {
    String key =
        lookup.key.stream()
            .map(part -> part.ours() + " " + shown(batch, row, lookup.key.indexOf(part)))
            .collect(Collectors.joining(", "));
    return new DataException(
        "row "
            + batch.rowNumber(row)
            + " is "
            + outcome.label()
            + " in lookup "
            + lookup.name
            + " ("
            + key
            + (detail.isEmpty() ? "" : ": " + detail)
            + "), and the plan says "
            + outcome.label()
            + ": fail."
            + " Correct the row or "
            + lookup.reference.name()
            + ", or use leave, drop or fill",
        shared.transactions(),
        batch.rowNumber(row),
        null);
  }

  private String shown(Batch batch, int row, int part) {
    String value = value(batch, row, part);
    return value == null ? "null" : "\"" + value + "\"";
  }
}
