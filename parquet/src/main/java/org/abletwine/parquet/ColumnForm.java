package org.abletwine.parquet;

import java.util.function.Supplier;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.apache.parquet.format.ConvertedType;
import org.apache.parquet.format.LogicalType;
import org.apache.parquet.format.SchemaElement;
import org.apache.parquet.format.TimeUnit;
import org.apache.parquet.format.Type;
import org.jspecify.annotations.Nullable;

/**
 * What a column holds, and how its cells become text. What files of old and of new say of it, in
 * two fields of the foot, becomes one here.
 *
 * @param kind what it holds; null for text, and for what is told as text
 * @param maker makes what reads the cells, one for each reader
 */
record ColumnForm(ColumnType.@Nullable Kind kind, Supplier<CellForm> maker) {
  private static final int MOST_PLACES = 1000;
  private static final int HALF_BYTES = 2;
  private static final int UUID_BYTES = 16;

  @Nullable ColumnType type() {
    return kind == null ? null : ColumnType.of(kind);
  }

  CellForm cells() {
    return maker.get();
  }

  /**
   * @param place names file and column
   * @throws DataException when it holds what is no text
   */
  static ColumnForm of(SchemaElement element, String place) {
    Type type = element.getType();
    LogicalType logical = element.getLogicalType();
    ConvertedType old = element.getConverted_type();
    if (logical != null && logical.isSetDECIMAL() || old == ConvertedType.DECIMAL) {
      int places =
          logical != null && logical.isSetDECIMAL()
              ? logical.getDECIMAL().getScale()
              : element.getScale();
      if (places < 0 || places > MOST_PLACES) {
        throw refused(place, "numbers of " + places + " decimal places");
      }
      return new ColumnForm(
          ColumnType.Kind.NUMBER, () -> new NumberForms.DecimalCells(type, places));
    }
    return switch (type) {
      case BOOLEAN -> new ColumnForm(ColumnType.Kind.BOOLEAN, CellForm.TruthCells::new);
      case INT32, INT64 -> integers(type == Type.INT64, logical, old);
      case INT96 -> new ColumnForm(ColumnType.Kind.DATE_TIME, TimeForms.OldTimeCells::new);
      case FLOAT ->
          new ColumnForm(ColumnType.Kind.NUMBER, () -> new NumberForms.BinaryNumberCells(4));
      case DOUBLE ->
          new ColumnForm(ColumnType.Kind.NUMBER, () -> new NumberForms.BinaryNumberCells(8));
      case BYTE_ARRAY -> text(logical, old, place);
      case FIXED_LEN_BYTE_ARRAY -> fixed(element, logical, place);
    };
  }

  private static ColumnForm integers(
      boolean wide, @Nullable LogicalType logical, @Nullable ConvertedType old) {
    if (logical != null && logical.isSetTIMESTAMP()) {
      int digits = digits(logical.getTIMESTAMP().getUnit());
      boolean moment = logical.getTIMESTAMP().isIsAdjustedToUTC();
      return times(digits, moment);
    }
    if (logical != null && logical.isSetTIME()) {
      int digits = digits(logical.getTIME().getUnit());
      return new ColumnForm(null, () -> new TimeForms.TimeOfDayCells(wide, digits));
    }
    if (logical != null && logical.isSetDATE()) {
      return new ColumnForm(ColumnType.Kind.DATE, TimeForms.DayCells::new);
    }
    if (logical != null && logical.isSetINTEGER()) {
      boolean signed = logical.getINTEGER().isIsSigned();
      return new ColumnForm(
          ColumnType.Kind.INTEGER, () -> new NumberForms.WholeCells(wide, signed));
    }
    if (old == null) {
      return new ColumnForm(ColumnType.Kind.INTEGER, () -> new NumberForms.WholeCells(wide, true));
    }
    return switch (old) {
      case DATE -> new ColumnForm(ColumnType.Kind.DATE, TimeForms.DayCells::new);
      case TIME_MILLIS -> new ColumnForm(null, () -> new TimeForms.TimeOfDayCells(wide, 3));
      case TIME_MICROS -> new ColumnForm(null, () -> new TimeForms.TimeOfDayCells(wide, 6));
      case TIMESTAMP_MILLIS -> times(3, true);
      case TIMESTAMP_MICROS -> times(6, true);
      case UINT_8, UINT_16, UINT_32, UINT_64 ->
          new ColumnForm(ColumnType.Kind.INTEGER, () -> new NumberForms.WholeCells(wide, false));
      default ->
          new ColumnForm(ColumnType.Kind.INTEGER, () -> new NumberForms.WholeCells(wide, true));
    };
  }

  /** Times of day and day; moments, which are known with their zone, are told in UTC. */
  private static ColumnForm times(int digits, boolean moment) {
    return new ColumnForm(
        moment ? null : ColumnType.Kind.DATE_TIME, () -> new TimeForms.TimeCells(digits, moment));
  }

  private static int digits(TimeUnit unit) {
    return unit.isSetMILLIS() ? 3 : unit.isSetMICROS() ? 6 : 9;
  }

  /** Bytes without a word of what they are: older programs wrote texts so. */
  private static ColumnForm text(
      @Nullable LogicalType logical, @Nullable ConvertedType old, String place) {
    boolean other =
        logical != null
                && (logical.isSetBSON()
                    || logical.isSetVARIANT()
                    || logical.isSetGEOMETRY()
                    || logical.isSetGEOGRAPHY())
            || old == ConvertedType.BSON;
    if (other) {
      throw refused(place, "bytes, which are no text");
    }
    return new ColumnForm(null, CellForm.TextCells::new);
  }

  private static ColumnForm fixed(
      SchemaElement element, @Nullable LogicalType logical, String place) {
    if (logical != null && logical.isSetUUID() && element.getType_length() == UUID_BYTES) {
      return new ColumnForm(null, CellForm.UuidCells::new);
    }
    if (logical != null && logical.isSetFLOAT16() && element.getType_length() == HALF_BYTES) {
      return new ColumnForm(
          ColumnType.Kind.NUMBER, () -> new NumberForms.BinaryNumberCells(HALF_BYTES));
    }
    throw refused(
        place,
        element.getConverted_type() == ConvertedType.INTERVAL
            ? "spans of time, which have no one form as text"
            : "bytes, which are no text");
  }

  private static DataException refused(String place, String what) {
    return new DataException(place + " holds " + what + "; write the file without it");
  }
}
