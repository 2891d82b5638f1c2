package org.abletwine.table.carry;

import java.io.DataInput;
import java.io.DataOutput;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * Carries values out of a process or into one. Each method is given what is held and returns what
 * is held from then on: going out, the very same; coming in, what the other process held. So one
 * list of calls says both what is written and what is read, and the two cannot differ. Used by one
 * thread.
 */
public final class Carrier {
  private final @Nullable DataOutput out;
  private final @Nullable DataInput in;

  private Carrier(@Nullable DataOutput out, @Nullable DataInput in) {
    this.out = out;
    this.in = in;
  }

  /**
   * Carries values out.
   *
   * @param out takes them
   */
  public static Carrier to(DataOutput out) {
    return new Carrier(out, null);
  }

  /**
   * Carries values in.
   *
   * @param in gives them
   */
  public static Carrier from(DataInput in) {
    return new Carrier(null, in);
  }

  /** Returns whether values come in, and what is held is replaced. */
  public boolean comesIn() {
    return in != null;
  }

  /**
   * A number.
   *
   * @throws UncheckedIOException when it cannot be carried
   */
  public long number(long held) {
    try {
      if (out != null) {
        out.writeLong(held);
        return held;
      }
      return in == null ? held : in.readLong();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A number that fits an int. */
  public int number(int held) {
    return (int) number((long) held);
  }

  /** Whether something is so. */
  public boolean flag(boolean held) {
    return number(held ? 1L : 0) != 0;
  }

  /** Bytes; as many come in as went out. */
  public byte[] bytes(byte[] held, int used) {
    int length = number(used);
    try {
      if (out != null) {
        out.write(held, 0, length);
        return held;
      }
      byte[] read = new byte[length];
      if (in != null) {
        in.readFully(read);
      }
      return read;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A text; null for null. */
  public @Nullable String text(@Nullable String held) {
    if (!flag(held != null)) {
      return null;
    }
    byte[] bytes = String.valueOf(held).getBytes(StandardCharsets.UTF_8);
    return new String(bytes(bytes, bytes.length), StandardCharsets.UTF_8);
  }

  /** A text that is there. */
  public String words(String held) {
    return String.valueOf(text(held));
  }

  /** What ends a run; its cause stays behind. */
  public DataException failure(DataException held) {
    String message = words(String.valueOf(held.getMessage()));
    String table = text(held.table());
    long row = number(held.row());
    return new DataException(message, table, row, text(held.column()));
  }

  /** A number of any size; null for null. */
  public @Nullable BigDecimal decimal(@Nullable BigDecimal held) {
    if (!flag(held != null)) {
      return null;
    }
    BigDecimal value = held == null ? BigDecimal.ZERO : held;
    byte[] digits = value.unscaledValue().toByteArray();
    digits = bytes(digits, digits.length);
    return new BigDecimal(new java.math.BigInteger(digits), number(value.scale()));
  }

  /** Numbers, of which there are as many in every process: they are replaced in their array. */
  public void numbers(long[] held) {
    for (int i = 0; i < held.length; i++) {
      held[i] = number(held[i]);
    }
  }

  /**
   * Numbers.
   *
   * @param used how many of those held
   * @return those held, or as many as went out
   */
  public long[] numbers(long[] held, int used) {
    int length = number(used);
    long[] all = comesIn() ? new long[length] : held;
    for (int i = 0; i < length; i++) {
      all[i] = number(all[i]);
    }
    return all;
  }

  /**
   * Things, each carried by calls of its own.
   *
   * @param held those held, going out; what there is coming in is of no account
   * @param nothing stands for what is held where one comes in
   * @param each carries one: given what is held, returns what came in
   */
  public <T> List<T> all(List<T> held, T nothing, UnaryOperator<T> each) {
    int length = number(held.size());
    List<T> all = new ArrayList<>(Math.min(length, 1 << 16));
    for (int i = 0; i < length; i++) {
      all.add(each.apply(comesIn() ? nothing : held.get(i)));
    }
    return all;
  }

  /** Carries texts of which each may be null. */
  public List<@Nullable String> texts(List<@Nullable String> held) {
    int length = number(held.size());
    List<@Nullable String> all = new ArrayList<>(Math.min(length, 1 << 16));
    for (int i = 0; i < length; i++) {
      all.add(text(comesIn() ? null : held.get(i)));
    }
    return all;
  }

  @Override
  public String toString() {
    return comesIn() ? "Carrier[in]" : "Carrier[out]";
  }
}
