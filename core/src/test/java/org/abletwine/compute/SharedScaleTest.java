package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.BinaryOperator;
import java.util.stream.Stream;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Columns of one scale are computed at once, others number by number: both come to what big
 * decimals come to, and to the same text.
 */
class SharedScaleTest {
  private static final int ROWS = 300;

  /** How the numbers of a column are written. */
  enum Column {
    WHOLE,
    TWO_PLACES,
    MIXED,
    SMALL,
    NEARLY_TOO_LONG,
    TOO_LONG,
    MOSTLY_NULL;

    @Nullable String cell(Random random) {
      BigDecimal value =
          switch (this) {
            case WHOLE -> BigDecimal.valueOf(random.nextInt(100_001) - 50_000);
            case TWO_PLACES -> BigDecimal.valueOf(random.nextInt(2_000_001) - 1_000_000, 2);
            case MIXED -> BigDecimal.valueOf(random.nextInt(1000) - 500, random.nextInt(5));
            case SMALL -> BigDecimal.valueOf(random.nextInt(41) - 20, 1);
            case NEARLY_TOO_LONG -> BigDecimal.valueOf(Long.MAX_VALUE / 3 - random.nextInt(99), 3);
            case TOO_LONG -> new BigDecimal("123456789012345678901234567.5").negate();
            case MOSTLY_NULL -> BigDecimal.valueOf(random.nextInt(100), 1);
          };
      boolean isNull = random.nextInt(10) < (this == MOSTLY_NULL ? 9 : 1);
      return isNull ? null : value.toPlainString();
    }
  }

  private static BigDecimal quotient(BigDecimal a, int by) {
    return quotient(a, by, a.scale());
  }

  private static BigDecimal quotient(BigDecimal a, int by, int least) {
    int places = Math.max(Decimals.QUOTIENT_PLACES, least);
    BigDecimal exact = a.divide(BigDecimal.valueOf(by), places, RoundingMode.HALF_UP);
    BigDecimal bare = exact.stripTrailingZeros();
    return bare.scale() < least ? bare.setScale(least) : bare;
  }

  private static Arguments of(String text, BinaryOperator<BigDecimal> oracle) {
    return Arguments.of(text, oracle);
  }

  private static BigDecimal half(BigDecimal value, int places) {
    return value.setScale(places, RoundingMode.HALF_UP);
  }

  static Stream<Arguments> expressions() {
    return Stream.of(
        of("a + b", BigDecimal::add),
        of("a - b", BigDecimal::subtract),
        of("a * b", BigDecimal::multiply),
        of("a / 1", (a, b) -> a),
        of("a / 1000", (a, b) -> quotient(a, 1000)),
        of("a / 0.8", (a, b) -> quotient(a.scaleByPowerOfTen(1), 8, a.scale())),
        of("a / 8 + b", (a, b) -> quotient(a, 8).add(b)),
        of("round(a / 100, 1)", (a, b) -> half(quotient(a, 100), 1)),
        of("round(a, 1) + b", (a, b) -> half(a, 1).add(b)),
        of("round(a * b / 100, 2)", (a, b) -> half(quotient(a.multiply(b), 100), 2)),
        of("round(a, 6) * 2 - b", (a, b) -> half(a, 6).multiply(BigDecimal.valueOf(2)).subtract(b)),
        of("floor(a) - b", (a, b) -> a.setScale(0, RoundingMode.FLOOR).subtract(b)),
        of("case when a < b then a else b + 1 end", (a, b) -> a.compareTo(b) < 0 ? a : plusOne(b)),
        of("case when a >= b then a * 0.01 else 25 end", (a, b) -> fee(a, a.compareTo(b) >= 0)),
        of("case when a <> b then a else 0.5 end * b", (a, b) -> unless(a, b).multiply(b)),
        of("case when b = b then b - a else a end", (a, b) -> b.subtract(a)));
  }

  private static BigDecimal plusOne(BigDecimal b) {
    return b.add(BigDecimal.ONE);
  }

  private static BigDecimal fee(BigDecimal a, boolean part) {
    return part ? a.multiply(new BigDecimal("0.01")) : BigDecimal.valueOf(25);
  }

  private static BigDecimal unless(BigDecimal a, BigDecimal b) {
    return a.compareTo(b) != 0 ? a : new BigDecimal("0.5");
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("expressions")
  void comesToWhatBigDecimalsComeTo(String text, BinaryOperator<BigDecimal> oracle) {
    Random random = new Random(text.hashCode());
    for (Column a : Column.values()) {
      for (Column b : Column.values()) {
        List<@Nullable String> cells = new ArrayList<>();
        Batch batch = batch(random, a, b, cells);
        CellVector computed = computed(text, batch);
        for (int row = 0; row < ROWS; row++) {
          String x = cells.get(2 * row);
          String y = cells.get(2 * row + 1);
          // Every expression with a CASE compares both; of the others, some need only one.
          boolean unknown = x == null || text.contains("b") && y == null;
          String expected =
              unknown
                  ? null
                  : oracle
                      .apply(new BigDecimal(x), y == null ? BigDecimal.ZERO : new BigDecimal(y))
                      .toPlainString();
          if (!unknown || !text.startsWith("case")) {
            assertThat(computed.get(row)).as("%s of %s and %s", text, x, y).isEqualTo(expected);
          }
        }
      }
    }
  }

  @Test
  void columnsComputedBeforeAreComputedWithLikeAnyOther() {
    Random random = new Random(8);
    Columns columns = new Columns("tickets.csv", new Schema(List.of("a", "b", "x")));
    List<Expression> after =
        Stream.of("x + a", "x * 3", "x - x / 100", "x * 400", "x * a", "x + x * 5")
            .map(text -> Expression.of(text, columns, "compute y", Evaluation.STRICT))
            .toList();
    Stream.of(
            "a * 10000000000000",
            "a - b",
            "a * b",
            "a / 1000",
            "round(a, 1)",
            "case when a < b then a end")
        .forEach(
            text -> {
              for (Column a : Column.values()) {
                Batch batch = batch(random, a, Column.SMALL, new ArrayList<>());
                CellVector held = batch.addColumn();
                held.append("left from before");
                held.clear();
                computeInto(held, text, batch);
                if (a == Column.MIXED) {
                  batch.pick(new int[] {5, 9, 5, 250, 3}, 5);
                }
                Batch again = new Batch(3);
                again.clear(1, ',');
                for (int row = 0; row < batch.rows(); row++) {
                  addRead(again, batch.column(0).get(row));
                  addRead(again, batch.column(1).get(row));
                  addRead(again, batch.column(2).get(row));
                  again.endRow(0);
                }
                for (Expression one : after) {
                  assertThat(texts(one, batch)).as(text + ", " + one).isEqualTo(texts(one, again));
                }
              }
            });
  }

  private static List<@Nullable String> texts(Expression expression, Batch batch) {
    CellVector target = new CellVector();
    target.clear();
    expression.over(batch);
    expression.appendTo(target, batch.rows());
    List<@Nullable String> texts = new ArrayList<>();
    for (int row = 0; row < batch.rows(); row++) {
      texts.add(target.get(row));
    }
    return texts;
  }

  private static Batch batch(Random random, Column a, Column b, List<@Nullable String> cells) {
    Batch batch = new Batch(2);
    batch.clear(1, ',');
    for (int row = 0; row < ROWS; row++) {
      for (Column column : List.of(a, b)) {
        String cell = column.cell(random);
        cells.add(cell);
        addRead(batch, cell);
      }
      batch.endRow(0);
    }
    return batch;
  }

  /** Appends a cell as a reader of files does, which has its bytes. */
  private static void addRead(Batch batch, @Nullable String cell) {
    byte[] bytes = Utf8.bytes((cell == null ? "" : cell) + ",");
    int start = batch.used();
    System.arraycopy(bytes, 0, batch.room(bytes.length), start, bytes.length);
    batch.took(bytes.length);
    batch.addSlice(start, start + bytes.length - 1, cell == null ? Batch.NULL : 0);
  }

  private static CellVector computed(String text, Batch batch) {
    CellVector target = new CellVector();
    target.clear();
    computeInto(target, text, batch);
    return target;
  }

  private static void computeInto(CellVector target, String text, Batch batch) {
    Columns columns = new Columns("tickets.csv", new Schema(List.of("a", "b")));
    Expression expression = Expression.of(text, columns, "compute x", Evaluation.STRICT);
    expression.over(batch);
    expression.appendTo(target, batch.rows());
  }

  @Test
  void numbersHeldAsNumbersLoseNothingWhenRowsArePickedOrWritten() {
    CellVector cells = new CellVector();
    boolean[] known = {true, false, true, true};
    int nulls =
        cells.takeNumbers(
            known, new long[] {125, 9, Long.MIN_VALUE, -7}, new byte[] {1, 0, 2, 0}, 4);
    cells.because(1, 5);

    assertThat(nulls).isEqualTo(1);
    assertThat(cells.inNumbers()).isTrue();
    assertThat(cells.isNull(1)).isTrue();
    CellVector text = cells.asText(new CellVector());
    assertThat(cells.inNumbers()).as("reading changes nothing").isTrue();
    for (CellVector one : List.of(cells, text)) {
      assertThat(one.reason(1)).isEqualTo(5);
      assertThat(List.of("" + one.get(0), "" + one.get(2), "" + one.get(3)))
          .containsExactly("12.5", "-92233720368547758.08", "-7");
      assertThat(one.get(1)).isNull();
    }
    assertThat(text.asText(cells)).as("is text already").isSameAs(text);
  }

  @Test
  void aBatchPicksRowsOfNumbersHeldAsNumbers() {
    Batch batch = batch(new Random(3), Column.WHOLE, Column.SMALL, new ArrayList<>());
    CellVector added = batch.addColumn();
    boolean[] known = new boolean[ROWS];
    long[] digits = new long[ROWS];
    for (int row = 0; row < ROWS; row++) {
      known[row] = row % 3 != 0;
      digits[row] = row;
    }
    added.takeNumbers(known, digits, new byte[ROWS], ROWS);
    batch.pick(new int[] {5, 3, 299, 5}, 4);

    CellVector held = batch.column(2);
    assertThat(held.inNumbers()).isTrue();
    assertThat(held.get(0)).isEqualTo("5");
    assertThat(held.get(1)).isNull();
    assertThat(held.get(2)).isEqualTo("299");
    assertThat(held.get(3)).isEqualTo("5");
  }
}
