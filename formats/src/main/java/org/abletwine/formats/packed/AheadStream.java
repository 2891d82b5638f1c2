package org.abletwine.formats.packed;

import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/**
 * Reads a stream on a thread of its own, some blocks ahead. A block belongs to whoever has taken it
 * from a queue. What the stream throws is thrown once the bytes before it are read.
 */
final class AheadStream extends InputStream {
  private static final int BLOCKS = 4;
  private static final int BLOCK = 1 << 18;

  /** How long a close waits for the thread, in milliseconds. */
  private static final int PATIENCE = 2_000;

  private static final class Block {
    final byte[] bytes = new byte[BLOCK];
    int length;
  }

  private final InputStream in;
  private final BlockingQueue<Block> empty = new ArrayBlockingQueue<>(BLOCKS);
  private final BlockingQueue<Block> full = new ArrayBlockingQueue<>(BLOCKS + 1);
  private final Block end = new Block();
  private final AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
  private final Thread thread;
  private @Nullable Block current;
  private int at;

  AheadStream(InputStream in, String name) {
    this.in = in;
    for (int i = 0; i < BLOCKS; i++) {
      empty.add(new Block());
    }
    thread = new Thread(this::readAll, "unpack " + name);
    thread.setDaemon(true);
    thread.start();
  }

  private void readAll() {
    try {
      while (true) {
        Block block = empty.take();
        block.length = in.readNBytes(block.bytes, 0, BLOCK);
        if (block.length == 0) {
          break;
        }
        full.put(block);
      }
    } catch (InterruptedException e) {
      return; // closed early: nobody waits for more
    } catch (IOException | RuntimeException | Error e) {
      failure.set(e);
    }
    full.add(end);
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    int count = read(one, 0, 1);
    return count < 0 ? count : one[0] & 0xFF;
  }

  @Override
  public int read(byte[] into, int from, int length) throws IOException {
    Block block = current;
    if (block != null && at == block.length) {
      empty.add(block);
      block = null;
    }
    if (block == null) {
      block = next();
      current = block;
      at = 0;
      if (block == null) {
        return -1;
      }
    }
    int count = Math.min(length, block.length - at);
    System.arraycopy(block.bytes, at, into, from, count);
    at += count;
    return count;
  }

  private @Nullable Block next() throws IOException {
    try {
      Block block = full.take();
      if (block != end) {
        return block;
      }
      full.add(end);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("reading was interrupted", e);
    }
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
    return null;
  }

  @Override
  public void close() throws IOException {
    thread.interrupt();
    try {
      thread.join(PATIENCE); // a pipe that gives nothing more is not waited for
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    if (!thread.isAlive()) {
      in.close();
    }
  }
}
