package org.abletwine.plan;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;

/**
 * A piece of what processes hand each other that divide references among them: at most about a
 * megabyte, so that no process has to hold much of it. Immutable.
 *
 * @param kind what it is
 * @param round which of the {@linkplain PlanExchange.Round rounds} it is of, 0-based
 * @param of which of the references of the lookup, 0-based; 0 where that does not matter
 * @param to whom it goes: the number of a part, or of a range of the transactions
 * @param from whom it is of: the number of a range, or of a part
 * @param turn its turn among those of the same kind that one has sent to one
 * @param rows how many rows end in it and in those that follow it of the same, in the first of them
 * @param bytes what it holds
 */
public record Block(
    Kind kind, int round, int of, int to, int from, int turn, long rows, byte[] bytes) {

  /** What blocks are. */
  public enum Kind {
    /** A range of rows, for whoever takes them. */
    RANGE(false),
    /** Rows of a reference, for the part that their keys belong to. */
    REFERENCE(false),
    /** What the values of rules are, for whoever asks any part. */
    VALUES(true),
    /** Keys of transactions, for the part that they belong to. */
    KEYS(false),
    /** The answers of a part, for a range of the transactions. */
    ANSWERS(false),
    /** What a row has met that ends the run, for its range. */
    STOPPED(false),
    /** A reference that cannot be read, for all. */
    UNREAD(true),
    /** What is wrong with a part of the references, for all. */
    REFUSED(true),
    /** Parts of keys that a part was asked for, for all that go through the reference again. */
    ASKED(true),
    /** Those of them that the reference has, for all. */
    KNOWN(true);

    private final boolean forAll;

    Kind(boolean forAll) {
      this.forAll = forAll;
    }

    /** {@return whether every process takes it that takes such blocks} */
    public boolean forAll() {
      return forAll;
    }
  }

  /** {@return the block as bytes} */
  public byte[] toBytes() {
    ByteArrayOutputStream all = new ByteArrayOutputStream(bytes.length + 64);
    try (DataOutputStream out = new DataOutputStream(all)) {
      out.writeByte(kind.ordinal());
      for (int number : new int[] {round, of, to, from, turn}) {
        out.writeInt(number);
      }
      out.writeLong(rows);
      out.write(bytes);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return all.toByteArray();
  }

  /**
   * Reads what {@link #toBytes} has made.
   *
   * @param all the bytes
   * @throws UncheckedIOException when they are no block
   */
  public static Block of(byte[] all) {
    try (DataInputStream in = new DataInputStream(new ByteArrayInputStream(all))) {
      Kind kind = Kind.values()[in.readByte()];
      int round = in.readInt();
      int of = in.readInt();
      int to = in.readInt();
      int from = in.readInt();
      int turn = in.readInt();
      long rows = in.readLong();
      return new Block(kind, round, of, to, from, turn, rows, in.readAllBytes());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /**
   * {@return what a block is that has been made into bytes}
   *
   * @param all the bytes
   */
  public static Kind kindOf(byte[] all) {
    return Kind.values()[all[0]];
  }

  /**
   * {@return whom a block goes to that has been made into bytes}
   *
   * @param all the bytes
   */
  public static int toOf(byte[] all) {
    return ByteBuffer.wrap(all).getInt(1 + 2 * Integer.BYTES);
  }

  @Override
  public String toString() {
    return "Block["
        + kind
        + ", round "
        + round
        + ", "
        + from
        + " to "
        + to
        + ", turn "
        + turn
        + "]";
  }
}
