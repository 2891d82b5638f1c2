package org.abletwine.match.index;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Decides what the values of an ordered rule are: the declared type wins, else the reference's
 * values, read whole, decide. A column of which most are numbers or dates, but not all, is refused:
 * taken as text, its bands would be in an order nobody meant.
 */
final class Domains {
  /** Digits of a number that has a coordinate of its own. */
  private static final int MOST_DIGITS = 17;

  private static final long DAY = 86_400;

  private final RuleRows rows;
  private final MatchRule rule;
  private final String place;
  private final RuleIndexes.RowNumber number;

  private Domains(RuleRows rows, MatchRule rule, String place, RuleIndexes.RowNumber number) {
    this.rows = rows;
    this.rule = rule;
    this.place = place;
    this.number = number;
  }

  static Domain of(
      RuleRows rows,
      MatchRule rule,
      @Nullable ColumnType declared,
      String place,
      RuleIndexes.RowNumber number) {
    Domains domains = new Domains(rows, rule, place, number);
    if (declared == null && domains.empty()) {
      // Nothing says what the values are: any of ours is one, and is met by none of theirs.
      return new Ranks<>(List.of(), Ranks.CodePoints::new, "text");
    }
    ColumnType type = declared == null ? found(rows) : declared;
    return switch (type.kind()) {
      case NUMBER -> domains.numbers();
      case INTEGER -> domains.whole();
      case DATE -> domains.times(false, type.patterns());
      case DATE_TIME -> domains.times(true, type.patterns());
      case TEXT, BOOLEAN -> domains.texts();
    };
  }

  private boolean empty() {
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        if (!rows.isNull(row, v)) {
          return false;
        }
      }
    }
    return true;
  }

  /** What most values are; text when neither numbers nor dates are most of them. */
  static ColumnType found(RuleRows rows) {
    if (rows.plainNumbers()) {
      return ColumnType.of(ColumnType.Kind.NUMBER);
    }
    ValuesSeen seen = new ValuesSeen(null);
    seen.look(rows);
    return seen.most();
  }

  private Domain whole() {
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        BigDecimal value =
            rows.isNull(row, v)
                ? BigDecimal.ZERO
                : Numbers.parse(rows.text(), rows.start(row, v), rows.end(row, v));
        if (value == null || value.stripTrailingZeros().scale() > 0) {
          throw unfit(row, v, "a whole number");
        }
      }
    }
    return numbers();
  }

  private Domain numbers() {
    int scale = rule.within() == null ? 0 : Math.max(0, rule.within().scale());
    scale = Math.max(scale, Math.max(rows.mostPlaces(), rows.finest()));
    int whole = rows.mostWhole();
    List<BigDecimal> wide = new ArrayList<>();
    for (int row = 0; row < rows.rows() && !rows.plainNumbers(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        if (rows.isNull(row, v) || rows.plain(row, v) != Numbers.NOT_PLAIN) {
          continue;
        }
        BigDecimal value = Numbers.parse(rows.text(), rows.start(row, v), rows.end(row, v));
        if (value == null) {
          throw unfit(row, v, "a number");
        }
        BigDecimal bare = value.stripTrailingZeros();
        scale = Math.max(scale, bare.scale());
        whole = Math.max(whole, bare.precision() - bare.scale());
      }
    }
    // Midpoints between two values need one decimal place more.
    scale += rule.kind() == MatchRule.Kind.NEAREST ? 1 : 0;
    boolean fit = whole + scale <= MOST_DIGITS;
    if (fit) {
      return new Numbers(scale);
    }
    if (apart()) {
      throw new DataException(
          place + ": " + asked() + " takes numbers of up to 17 digits, places included");
    }
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        String value = rows.value(row, v);
        if (value != null) {
          wide.add(Objects.requireNonNull(wideNumber(value)));
        }
      }
    }
    return new Ranks<>(wide, Domains::wideNumber, "a number");
  }

  private static @Nullable BigDecimal wideNumber(String text) {
    BigDecimal value = DecimalText.read(text);
    return value == null ? null : value.stripTrailingZeros();
  }

  /** Times as fine as the finest of theirs, and where that is too fine for a long, as ranks. */
  private Domain times(boolean withTime, List<String> patterns) {
    DatePatterns dates = new DatePatterns(patterns);
    Times whole = new Times(withTime, patterns, 0, 0);
    int places = rule.within() == null ? 0 : Times.places(rule.within());
    places = Math.max(places, rows.finest());
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        if (rows.isNull(row, v)) {
          continue;
        }
        int start = rows.start(row, v);
        int end = rows.end(row, v);
        if (whole.isDay(rows.text(), start, end)) {
          continue;
        }
        LocalDateTime time = dates.read(Utf8.text(rows.text(), start, end));
        if (time == null) {
          throw unfit(row, v, whole.noun());
        }
        places = Math.max(places, Times.places(time));
      }
    }
    // Half way between two times needs one decimal place more.
    boolean nearest = rule.kind() == MatchRule.Kind.NEAREST;
    int needed = nearest ? places + 1 : places;
    if (needed <= Times.MOST_PLACES) {
      return new Times(withTime, patterns, needed, 0);
    }
    List<Ranks.Time> all = allTimes(dates);
    long origin = all.stream().mapToLong(Domains::seconds).min().orElse(0);
    long last = all.stream().mapToLong(Domains::seconds).max().orElse(0);
    BigDecimal reach = rule.within() == null ? BigDecimal.ZERO : rule.within();
    boolean near = reach.compareTo(BigDecimal.valueOf(Times.span(needed) / DAY)) < 0;
    if (last - origin < Times.span(needed) && near) {
      return new Times(withTime, patterns, needed, origin);
    }
    if (apart()) {
      throw new DataException(
          place
              + ": "
              + asked()
              + " takes times of more than "
              + (Times.MOST_PLACES - 1)
              + " decimal places of a second only where they, and within, span no more than "
              + Times.span(needed) / DAY
              + " days; round the times");
    }
    return new Ranks<>(all, new Ranks.TimeReading(dates), whole.noun());
  }

  private static long seconds(Ranks.Time time) {
    return time.time().toEpochSecond(ZoneOffset.UTC);
  }

  private List<Ranks.Time> allTimes(DatePatterns dates) {
    List<Ranks.Time> all = new ArrayList<>();
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        String value = rows.value(row, v);
        if (value != null) {
          all.add(new Ranks.Time(Objects.requireNonNull(dates.read(value))));
        }
      }
    }
    return all;
  }

  private Domain texts() {
    if (apart()) {
      throw new DataException(
          place + ": " + asked() + " needs numbers or dates, and the column holds text");
    }
    List<Ranks.CodePoints> values = new ArrayList<>();
    for (int row = 0; row < rows.rows(); row++) {
      for (int v = 0; v < rows.width(); v++) {
        String value = rows.value(row, v);
        if (value != null) {
          values.add(new Ranks.CodePoints(value));
        }
      }
    }
    return new Ranks<>(values, Ranks.CodePoints::new, "text");
  }

  /** Whether it matters how far apart values are, and not only which is above which. */
  private boolean apart() {
    return rule.kind() == MatchRule.Kind.NEAREST || rule.within() != null;
  }

  private String asked() {
    return rule.kind() == MatchRule.Kind.NEAREST ? "match: nearest" : "within:";
  }

  private DataException unfit(int row, int v, String noun) {
    return new DataException(
        place
            + ", row "
            + number.of(rows.number(row))
            + ": \""
            + rows.shown(row, v)
            + "\" is not "
            + noun
            + ", and the column is ordered; correct the row, or in a plan declare the column's type"
            + " (types: { COLUMN: text } orders by code point; dates other than ISO 8601 state"
            + " their pattern), or leave such rows out with unreadable: leave-out",
        place,
        number.of(rows.number(row)),
        null);
  }
}
