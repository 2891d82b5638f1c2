package org.abletwine.lookup;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.abletwine.table.ColumnType;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.CellValue;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * What one record's lookup gave.
 *
 * @param outcome what came of it
 * @param reference the reference that had the row, or rows that disagree, one tried otherwise
 *     perhaps; empty when none had
 * @param referenceRow the reference row taken, 1-based, header not counted; 0 when none was
 * @param attributes the attributes by name; values are null where nothing was found or filled
 */
public record LookupResult(
    Outcome outcome,
    String reference,
    long referenceRow,
    Map<String, @Nullable String> attributes) {

  /** Copies the map, keeping its order. */
  public LookupResult {
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
    ColumnType type = attributes instanceof AttributeValues values ? values.type(attribute) : null;
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
