package org.abletwine.parquet;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.DecimalText;
import org.apache.parquet.column.ColumnReader;

/** How days and times become text. */
final class TimeForms {
  private TimeForms() {}

  /** Days. */
  static final class DayCells extends CellForm {
    @Override
    void add(ColumnReader column, Batch into) {
      into.addCell(room, 0, IsoText.day(column.getInteger(), room, 0));
    }
  }

  /** Days with a time. */
  static final class TimeCells extends CellForm {
    private final int digits;
    private final boolean moment;

    /**
     * @param digits of seconds: 3, 6 or 9
     * @param moment whether it is told in UTC
     */
    TimeCells(int digits, boolean moment) {
      this.digits = digits;
      this.moment = moment;
    }

    @Override
    void add(ColumnReader column, Batch into) {
      int end = IsoText.time(column.getLong(), digits, room, 0);
      if (moment) {
        room[end++] = 'Z';
      }
      into.addCell(room, 0, end);
    }
  }

  /** Times of a day. */
  static final class TimeOfDayCells extends CellForm {
    private final boolean wide;
    private final int digits;

    TimeOfDayCells(boolean wide, int digits) {
      this.wide = wide;
      this.digits = digits;
    }

    @Override
    void add(ColumnReader column, Batch into) {
      long value = wide ? column.getLong() : column.getInteger();
      if (value < 0 || value >= IsoText.SECONDS_OF_DAY * DecimalText.power(digits)) {
        throw new IllegalArgumentException("it holds a time beyond the end of a day");
      }
      into.addCell(room, 0, IsoText.timeOfDay(value, digits, room, 0));
    }
  }

  /** Times as older programs wrote them: nanoseconds of a day, and the Julian day. */
  static final class OldTimeCells extends CellForm {
    private static final int JULIAN_DAY_OF_1970 = 2_440_588;

    @Override
    void add(ColumnReader column, Batch into) {
      ByteBuffer bytes = column.getBinary().toByteBuffer().order(ByteOrder.LITTLE_ENDIAN);
      long nanos = bytes.getLong(bytes.position());
      long day = bytes.getInt(bytes.position() + Long.BYTES) - JULIAN_DAY_OF_1970;
      if (nanos < 0 || nanos >= IsoText.SECONDS_OF_DAY * DecimalText.power(9)) {
        throw new IllegalArgumentException("it holds a time beyond the end of a day");
      }
      int at = IsoText.day(day, room, 0);
      room[at++] = 'T';
      into.addCell(room, 0, IsoText.timeOfDay(nanos, 9, room, at));
    }
  }
}
