package org.abletwine.lookup;

import java.io.Serializable;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Row;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.text.CellValue;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * A lookup with its references in memory, for one record at a time: in a loop of one's own, or as a
 * function in a stream. It answers as the same lookup does in a run, those tried otherwise
 * included. Serialisable, references included. Safe to share between threads.
 *
 * <p>Treatments that drop a row or end a run are the caller's here: the outcome says enough. Fills
 * apply. A lookup that gives a row for each match ({@code several: each}) cannot be loaded.
 */
public final class LoadedLookup
    implements Function<Map<String, @Nullable String>, LoadedLookup.Result>, Serializable {
  private static final long serialVersionUID = 1L;

  private final Tried[] sources;
  private final String[] names;

  /** What the attributes hold; null where that is not stated. */
  private final @Nullable ColumnType[] types;

  private final LookupFills fills;

  /** For each reference its key parts' places among those of the first, or -1. */
  private final int[][] partOf;

  /** Each thread has its own; not shipped. */
  @SuppressWarnings("serial") // made anew by readResolve
  private final transient ThreadLocal<Scratch[]> scratches;

  private LoadedLookup(
      Tried[] sources, String[] names, @Nullable ColumnType[] types, LookupFills fills) {
    this.sources = sources;
    this.names = names;
    this.types = types;
    this.fills = fills;
    this.partOf = new int[sources.length][];
    List<String> known = List.of(sources[0].ours());
    Arrays.setAll(
        partOf, source -> Stream.of(sources[source].ours()).mapToInt(known::indexOf).toArray());
    this.scratches = ThreadLocal.withInitial(() -> scratches(sources));
  }

  private Object readResolve() {
    return new LoadedLookup(sources, names, types, fills);
  }

  static LoadedLookup of(Lookup lookup, List<LoadedReference> references) {
    String[] names = lookup.bring.stream().map(Attribute::as).toArray(String[]::new);
    Tried[] sources = new Tried[references.size()];
    for (int i = 0; i < sources.length; i++) {
      Lookup from = i == 0 ? lookup : lookup.otherwise.get(i - 1);
      sources[i] = Tried.of(from, references.get(i), names);
    }
    @Nullable ColumnType[] types =
        lookup.bring.stream().map(bring -> type(lookup, bring)).toArray(ColumnType[]::new);
    return new LoadedLookup(sources, names, types, new LookupFills(lookup));
  }

  private static @Nullable ColumnType type(Lookup lookup, Attribute attribute) {
    return attribute.aggregate() == null ? lookup.reference.type(attribute.source()) : null;
  }

  /**
   * One of the references.
   *
   * @param ours the key's columns of ours
   * @param cellOf for each attribute the cell of a stored row that holds it, or -1
   */
  private record Tried(LoadedReference reference, SerialKey key, String[] ours, int[] cellOf)
      implements Serializable {
    private static final long serialVersionUID = 1L;

    static Tried of(Lookup from, LoadedReference reference, String[] names) {
      List<String> cells = KeptColumns.inCellOrder(from.bring).stream().map(Attribute::as).toList();
      return new Tried(
          reference,
          SerialKey.of(from),
          from.key.stream().map(KeyPart::ours).toArray(String[]::new),
          Stream.of(names).mapToInt(cells::indexOf).toArray());
    }

    Found find(Scratch scratch) {
      int[] found = scratch.found;
      OneRow.fill(scratch.row, scratch.parts);
      KeyProbe probe = scratch.probe;
      probe.read(scratch.row);
      probe.find(reference.finder(), found);
      int place = found[0];
      if (place < 0 && place > RuleIndex.LAST_MISS) {
        place = reference.choices().place(~place);
        boolean disagree = place == Choices.DISAGREE;
        return new Found(
            this,
            disagree ? Outcome.AMBIGUOUS : Outcome.MATCHED,
            place,
            reference.choices().combined(~found[0]));
      }
      if (place >= 0) {
        return new Found(this, Outcome.MATCHED, place, null);
      }
      boolean blank = place == RuleIndex.UNFIT || probe.blankParts(0) != 0;
      return new Found(this, blank ? Outcome.BLANK_KEY : Outcome.UNMATCHED, place, null);
    }
  }

  /** What one thread needs to look into one of the references. */
  private static final class Scratch {
    final @Nullable String[] parts;
    final Batch row;
    final KeyProbe probe;
    final int[] found = new int[1];

    Scratch(Tried source) {
      parts = new @Nullable String[source.ours.length];
      row = OneRow.of(parts);
      probe = new KeyProbe(source.key.layout(), source.key.equal(), source.key.ruled());
    }
  }

  private static Scratch[] scratches(Tried[] sources) {
    return Stream.of(sources).map(Scratch::new).toArray(Scratch[]::new);
  }

  /** What one of the references has for a key. */
  private record Found(
      Tried source, Outcome outcome, int place, @Nullable String @Nullable [] combined) {
    @Nullable String cell(int row, int cell) {
      return combined == null ? source.reference().rows().get(row, cell) : combined[cell];
    }

    boolean open() {
      return outcome == Outcome.UNMATCHED || outcome == Outcome.BLANK_KEY;
    }
  }

  /** What reading a key needs of the lookup. */
  private record SerialKey(KeyLayout layout, NormaliseStep[][] equal, NormaliseStep[][] ruled)
      implements Serializable {
    private static final long serialVersionUID = 1L;

    static SerialKey of(Lookup lookup) {
      KeyLayout layout = KeyLayout.of(lookup);
      return new SerialKey(
          layout,
          layout.equalSteps(lookup).stream()
              .map(s -> s.toArray(NormaliseStep[]::new))
              .toArray(NormaliseStep[][]::new),
          layout.ruleSteps(lookup, true));
    }
  }

  /**
   * Looks up one record.
   *
   * @param record the record, by column name, of which the key columns are read; null is no value
   * @return outcome and attributes
   * @throws SettingException when it has no such field at all, naming the nearest
   */
  @Override
  public Result apply(Map<String, @Nullable String> record) {
    Objects.requireNonNull(record, "record");
    Scratch[] scratch = scratches.get();
    for (int source = 0; source < sources.length; source++) {
      String[] ours = sources[source].ours();
      for (int part = 0; part < ours.length; part++) {
        String value = record.get(ours[part]);
        if (value == null && !record.containsKey(ours[part])) {
          throw new SettingException(
              "the record has no field \""
                  + ours[part]
                  + "\", by which is looked up; "
                  + NearestName.hint(ours[part], record.keySet()));
        }
        scratch[source].parts[part] = value;
      }
    }
    return find(scratch);
  }

  /**
   * Looks up a row.
   *
   * @param row the row, of which the key columns are read
   * @return outcome and attributes
   * @throws SettingException when it has no such column, naming the nearest
   */
  public Result find(Row row) {
    Objects.requireNonNull(row, "row");
    return apply(row.map());
  }

  private Result find(Scratch[] scratch) {
    Found found = sources[0].find(scratch[0]);
    for (int further = 1; further < sources.length && found.open(); further++) {
      Found other = sources[further].find(scratch[further]);
      found = other.open() ? found : other;
    }
    return result(found);
  }

  /**
   * Looks up one key.
   *
   * @param key the key parts in the order of the lookup; a part may be null
   * @return outcome and attributes
   * @throws IllegalArgumentException when the number of parts is wrong, or a reference tried
   *     otherwise needs another column than these; then {@link #apply} it to the record
   */
  public Result find(@Nullable String... key) {
    Objects.requireNonNull(key, "key");
    String[] ours = sources[0].ours();
    if (key.length != ours.length) {
      throw new IllegalArgumentException(
          "the key has " + ours.length + " parts, not " + key.length);
    }
    Scratch[] scratch = scratches.get();
    for (int source = 0; source < sources.length; source++) {
      for (int part = 0; part < partOf[source].length; part++) {
        int of = partOf[source][part];
        if (of < 0) {
          throw new IllegalArgumentException(
              "the lookup tries otherwise by column \""
                  + sources[source].ours()[part]
                  + "\" too; apply it to a record");
        }
        scratch[source].parts[part] = key[of];
      }
    }
    return find(scratch);
  }

  private Result result(Found found) {
    Outcome outcome = found.outcome();
    boolean matched = outcome == Outcome.MATCHED;
    LoadedReference reference = found.source().reference();
    int row = matched ? reference.rowAt(found.place()) : -1;
    @Nullable String[] values = new @Nullable String[names.length];
    for (int a = 0; a < values.length; a++) {
      int cell = found.source().cellOf()[a];
      String value = matched && cell >= 0 ? found.cell(row, cell) : null;
      values[a] = value == null ? fills.of(outcome.ordinal(), a) : value;
    }
    return new Result(
        outcome,
        matched || outcome == Outcome.AMBIGUOUS ? reference.name() : "",
        matched ? reference.numbers().of(row) : 0,
        new AttributeValues(names, types, values));
  }

  @Override
  public String toString() {
    return "LoadedLookup["
        + sources[0].reference().name()
        + " by "
        + List.of(sources[0].ours())
        + "]";
  }

  /**
   * What one record's lookup gave.
   *
   * @param outcome what came of it
   * @param reference the reference that had the row, or rows that disagree, one tried otherwise
   *     perhaps; empty when none had
   * @param referenceRow the reference row taken, 1-based, header not counted; 0 when none was
   * @param attributes the attributes by name; values are null where nothing was found or filled
   */
  public record Result(
      Outcome outcome,
      String reference,
      long referenceRow,
      Map<String, @Nullable String> attributes) {

    /** Copies the map, keeping its order. */
    public Result {
      if (!(attributes instanceof AttributeValues)) {
        attributes = Collections.unmodifiableMap(new LinkedHashMap<>(attributes));
      }
    }

    /**
     * An attribute as it was written.
     *
     * @param attribute its name
     * @return its value, or null
     * @throws SettingException when the lookup brings no such attribute, naming the nearest
     */
    public @Nullable String get(String attribute) {
      Objects.requireNonNull(attribute, "attribute");
      String value = attributes.get(attribute);
      if (value == null && !attributes.containsKey(attribute)) {
        throw new SettingException(
            "the lookup brings no \""
                + attribute
                + "\"; "
                + NearestName.hint(attribute, attributes.keySet()));
      }
      return value;
    }

    private CellValue cell(String attribute) {
      String value = get(attribute);
      ColumnType type =
          attributes instanceof AttributeValues values ? values.type(attribute) : null;
      return new CellValue(reference, referenceRow, attribute, type, value);
    }

    /**
     * An attribute as an exact number.
     *
     * @param attribute its name
     * @return the number, or null for null
     * @throws SettingException when the lookup brings no such attribute, naming the nearest
     * @throws org.abletwine.table.DataException when it is no number
     */
    public @Nullable BigDecimal decimal(String attribute) {
      Objects.requireNonNull(attribute, "attribute");
      return cell(attribute).decimal();
    }

    /**
     * An attribute as a whole number; {@code 5.0} is one.
     *
     * @param attribute its name
     * @return the number, or null for null
     * @throws SettingException when the lookup brings no such attribute, naming the nearest
     * @throws org.abletwine.table.DataException when it is no whole number, or one that a long does
     *     not hold
     */
    public @Nullable Long integer(String attribute) {
      Objects.requireNonNull(attribute, "attribute");
      return cell(attribute).integer();
    }

    /**
     * An attribute as a day: as the type of its column says it is written, else as in 2026-07-20.
     *
     * @param attribute its name
     * @return the day, or null for null
     * @throws SettingException when the lookup brings no such attribute, naming the nearest
     * @throws org.abletwine.table.DataException when it is no day, or one with a time of day
     */
    public @Nullable LocalDate date(String attribute) {
      Objects.requireNonNull(attribute, "attribute");
      return cell(attribute).date();
    }

    /**
     * An attribute as a day with a time of day, midnight where none is written.
     *
     * @param attribute its name
     * @return the time, or null for null
     * @throws SettingException when the lookup brings no such attribute, naming the nearest
     * @throws org.abletwine.table.DataException when it is no such time
     */
    public @Nullable LocalDateTime dateTime(String attribute) {
      Objects.requireNonNull(attribute, "attribute");
      return cell(attribute).dateTime();
    }

    /** {@return whether the key was found, so that the attributes are those of a reference row} */
    public boolean matched() {
      return outcome == Outcome.MATCHED;
    }
  }
}
