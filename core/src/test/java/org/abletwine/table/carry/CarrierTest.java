package org.abletwine.table.carry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What goes out is what comes in, whatever the other process held before. */
class CarrierTest {

  /** Carries what is held out, and into where something else is held; both ways give it back. */
  private static <T> T carried(
      @Nullable T held, @Nullable T there, BiFunction<Carrier, @Nullable T, @Nullable T> call) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    Carrier out = Carrier.to(new DataOutputStream(bytes));
    assertThat(out.comesIn()).isFalse();
    T given = call.apply(out, held);
    out.number(77);
    Carrier in = Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes.toByteArray())));
    assertThat(in.comesIn()).isTrue();
    T come = call.apply(in, there);
    assertThat(in.number(0)).as("what was carried next").isEqualTo(77);
    if (!(held instanceof DataException)) {
      assertThat(given).isEqualTo(held);
    }
    return come;
  }

  @Test
  void numbersAndFlags() {
    for (long number : new long[] {0, -1, Long.MAX_VALUE, Long.MIN_VALUE}) {
      assertThat(carried(number, 5L, Carrier::number)).isEqualTo(number);
    }
    assertThat(carried(-7, 5, Carrier::number)).isEqualTo(-7);
    assertThat(carried(true, false, Carrier::flag)).isTrue();
    assertThat(carried(false, true, Carrier::flag)).isFalse();
  }

  @Test
  void texts() {
    assertThat(carried("a \u20ac\n", null, Carrier::text)).isEqualTo("a \u20ac\n");
    assertThat(carried("", "else", Carrier::text)).isEmpty();
    assertThat(carried(null, "else", Carrier::text)).isNull();
    assertThat(carried("words", "", Carrier::words)).isEqualTo("words");
    List<@Nullable String> some = Arrays.asList("a", null, "", "b");
    assertThat(carried(some, List.of("else"), Carrier::texts)).isEqualTo(some);
    assertThat(carried(List.of(), some, Carrier::texts)).isEmpty();
  }

  @Test
  void decimals() {
    for (String number : new String[] {"0", "-12.340", "1e30", "12345678901234567890.123456789"}) {
      BigDecimal held = new BigDecimal(number);
      assertThat(carried(held, BigDecimal.ONE, Carrier::decimal)).isEqualTo(held);
    }
    assertThat(carried(null, BigDecimal.ONE, Carrier::decimal)).isNull();
  }

  @Test
  void asManyBytesAndNumbersAsAreUsed() {
    byte[] held = {1, 2, 3, 4};
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    Carrier out = Carrier.to(new DataOutputStream(bytes));
    assertThat(out.bytes(held, 3)).isSameAs(held);
    long[] numbers = {5, 6, 7};
    assertThat(out.numbers(numbers, 2)).isSameAs(numbers);
    out.numbers(numbers);
    Carrier in = Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes.toByteArray())));
    assertThat(in.bytes(new byte[9], 9)).containsExactly(1, 2, 3);
    assertThat(in.numbers(new long[1], 1)).containsExactly(5, 6);
    long[] there = new long[3];
    in.numbers(there);
    assertThat(there).containsExactly(5, 6, 7);
    assertThat(numbers).as("what went out").containsExactly(5, 6, 7);
  }

  @Test
  void thingsCarriedByCallsOfTheirOwn() {
    BiFunction<Carrier, @Nullable List<String>, @Nullable List<String>> call =
        (carrier, held) ->
            carrier.all(
                held == null ? List.of() : held,
                "nothing",
                each -> {
                  if (carrier.comesIn()) {
                    assertThat(each).as("what stands for what is held").isEqualTo("nothing");
                  }
                  return carrier.words(each);
                });
    assertThat(carried(List.of("a", "b"), List.of("else"), call)).containsExactly("a", "b");
    assertThat(carried(List.of(), List.of("else"), call)).isEmpty();
  }

  @Test
  void failuresWithWhereTheyAre() {
    DataException held = new DataException("growers.csv, row 3: no", "growers.csv", 3, "since");
    DataException come = carried(held, new DataException("else"), Carrier::failure);
    assertThat(come).hasMessage("growers.csv, row 3: no");
    assertThat(come.table()).isEqualTo("growers.csv");
    assertThat(come.row()).isEqualTo(3);
    assertThat(come.column()).isEqualTo("since");
    assertThat(carried(new DataException("no place"), held, Carrier::failure).table()).isNull();
  }

  @Test
  void whatCannotBeCarriedIsAnError() {
    Carrier empty = Carrier.from(new DataInputStream(new ByteArrayInputStream(new byte[10])));
    assertThat(empty.number(3)).isZero();
    assertThatThrownBy(() -> empty.number(3))
        .isInstanceOf(UncheckedIOException.class)
        .hasCauseInstanceOf(EOFException.class);
    byte[] twoGone = {0, 0, 0, 0, 0, 0, 0, 3, 1};
    Carrier cut = Carrier.from(new DataInputStream(new ByteArrayInputStream(twoGone)));
    assertThatThrownBy(() -> cut.bytes(new byte[0], 0)).isInstanceOf(UncheckedIOException.class);
    Carrier full =
        Carrier.to(
            new DataOutputStream(
                new OutputStream() {
                  @Override
                  public void write(int b) throws IOException {
                    throw new IOException("full");
                  }
                }));
    assertThatThrownBy(() -> full.flag(true)).hasRootCauseMessage("full");
  }
}
