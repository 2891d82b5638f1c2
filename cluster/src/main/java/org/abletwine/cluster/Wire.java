package org.abletwine.cluster;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.io.Serializable;
import java.io.UncheckedIOException;
import org.jspecify.annotations.Nullable;

/** Things as bytes, for the way between two processes of one run. Stateless. */
final class Wire {
  private Wire() {}

  /**
   * Something with its number in the order of the rows.
   *
   * @param number 1-based
   * @param what null for nothing
   */
  record Numbered<T extends Serializable>(int number, @Nullable T what) implements Serializable {}

  static <T extends Serializable> byte[] bytes(int number, @Nullable T what) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ObjectOutputStream out = new ObjectOutputStream(bytes)) {
      out.writeObject(new Numbered<>(number, what));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  /** Reads what another process of this run, of the same version, has written. */
  @SuppressWarnings("unchecked")
  static <T extends Serializable> Numbered<T> of(byte[] bytes) {
    try (ObjectInputStream in = new ObjectInputStream(new ByteArrayInputStream(bytes))) {
      return (Numbered<T>) in.readObject();
    } catch (IOException | ClassNotFoundException e) {
      throw new IllegalStateException("what another process has sent cannot be read", e);
    }
  }
}
