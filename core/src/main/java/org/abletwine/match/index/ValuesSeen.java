package org.abletwine.match.index;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * What the values of a rule are, counted piece by piece: for a reference that is in memory one part
 * at a time, whose parts must all be compared alike. Belongs to one thread; counts are added up.
 */
public final class ValuesSeen {
  private final @Nullable ColumnType declared;
  private final DatePatterns dates;
  private final Times iso = new Times(true, List.of(), 0, 0);
  private long values;
  private long numbers;
  private long days;
  private long times;
  private int numberPlaces;
  private int timePlaces;

  /**
   * @param declared what the column holds, when that is stated
   */
  public ValuesSeen(@Nullable ColumnType declared) {
    this.declared = declared;
    dates = new DatePatterns(declared == null ? List.of() : declared.patterns());
  }

  /** Counts the values of some rows. */
  public void look(RuleRows rows) {
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        if (!rows.isNull(row, v)) {
          look(rows, row, v);
        }
      }
    }
  }

  private void look(RuleRows rows, int row, int v) {
    values++;
    long plain = rows.plain(row, v);
    if (plain != Numbers.NOT_PLAIN) {
      numbers++;
      numberPlaces = Math.max(numberPlaces, DecimalText.places(plain));
      return;
    }
    int start = rows.start(row, v);
    int end = rows.end(row, v);
    BigDecimal number = Numbers.parse(rows.text(), start, end);
    if (number != null) {
      numbers++;
      numberPlaces = Math.max(numberPlaces, number.stripTrailingZeros().scale());
      return;
    }
    boolean isTime = iso.coordinate(rows.text(), start, end) != Domain.UNFIT;
    days += isTime && end - start == DatePatterns.DAY_LENGTH ? 1 : 0;
    times += isTime && end - start != DatePatterns.DAY_LENGTH ? 1 : 0;
    if (!isTime || end - start != DatePatterns.DAY_LENGTH) {
      LocalDateTime time = dates.read(Utf8.text(rows.text(), start, end));
      timePlaces = Math.max(timePlaces, time == null ? 0 : Times.places(time));
    }
  }

  /** Adds what was counted of other rows. */
  public void merge(ValuesSeen other) {
    values += other.values;
    numbers += other.numbers;
    days += other.days;
    times += other.times;
    numberPlaces = Math.max(numberPlaces, other.numberPlaces);
    timePlaces = Math.max(timePlaces, other.timePlaces);
  }

  /** Carries what was counted to another process, or takes it from there in place of nothing. */
  public void carry(Carrier carrier) {
    values = carrier.number(values);
    numbers = carrier.number(numbers);
    days = carrier.number(days);
    times = carrier.number(times);
    numberPlaces = carrier.number(numberPlaces);
    timePlaces = carrier.number(timePlaces);
  }

  /** What most values are; null where nothing says. */
  public @Nullable ColumnType type() {
    return declared != null || values == 0 ? declared : most();
  }

  /** What most values are; text when neither numbers nor dates are most of them. */
  ColumnType most() {
    if (numbers * 2 > values) {
      return ColumnType.of(ColumnType.Kind.NUMBER);
    }
    if ((days + times) * 2 > values) {
      return ColumnType.of(times > 0 ? ColumnType.Kind.DATE_TIME : ColumnType.Kind.DATE);
    }
    return ColumnType.of(ColumnType.Kind.TEXT);
  }

  /** Decimal places, of numbers or of seconds, that must be told apart. */
  public int places() {
    ColumnType type = type();
    return type != null && type.kind().numeric() ? numberPlaces : timePlaces;
  }
}
