package org.abletwine.formats.packed;

import java.io.IOException;
import java.io.OutputStream;
import java.util.Arrays;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/**
 * Writes to a stream on a thread of its own, some blocks behind. A block belongs to whoever has
 * taken it from the queue. What the stream throws is thrown by the next write, or by the close.
 * Written to by one thread at a time.
 */
public final class BehindStream extends OutputStream {
  private static final int BLOCKS = 4;
  private static final byte[] END = {};

  private final OutputStream out;
  private final BlockingQueue<byte[]> full = new ArrayBlockingQueue<>(BLOCKS);
  private final AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
  private final Thread thread;

  /**
   * @param out where the bytes go in the end; closed by the thread
   * @param name the name of the thread
   */
  public BehindStream(OutputStream out, String name) {
    this.out = out;
    thread = new Thread(this::writeAll, name);
    thread.setDaemon(true);
    thread.start();
  }

  private void writeAll() {
    try {
      for (byte[] block = full.take(); block != END; block = full.take()) {
        out.write(block, 0, block.length);
      }
      out.close();
    } catch (InterruptedException e) {
      return; // given up
    } catch (IOException | RuntimeException | Error e) {
      failure.set(e);
    }
  }

  @Override
  public void write(int b) throws IOException {
    put(new byte[] {(byte) b});
  }

  @Override
  public void write(byte[] bytes, int from, int length) throws IOException {
    if (length > 0) {
      put(Arrays.copyOfRange(bytes, from, from + length));
    }
  }

  private void put(byte[] block) throws IOException {
    try {
      boolean taken = false;
      while (!taken) {
        rethrow();
        taken = full.offer(block, 100, TimeUnit.MILLISECONDS);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("writing was interrupted", e);
    }
  }

  private void rethrow() throws IOException {
    Throwable cause = failure.get();
    if (cause instanceof IOException e) {
      throw e;
    }
    if (cause instanceof RuntimeException e) {
      throw e;
    }
    if (cause instanceof Error e) {
      throw e;
    }
  }

  /** Waits until everything is written, and ends the stream. */
  @Override
  public void close() throws IOException {
    put(END);
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("writing was interrupted", e);
    }
    rethrow();
  }

  /** Ends the thread; what was not written is lost. */
  public void abandon() {
    thread.interrupt();
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
