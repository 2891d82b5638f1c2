package org.abletwine.cluster.files;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.NonReadableChannelException;
import java.nio.channels.NonWritableChannelException;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.WritableByteChannel;
import org.apache.flink.core.fs.FSDataInputStream;
import org.apache.flink.core.fs.FSDataOutputStream;
import org.jspecify.annotations.Nullable;

/**
 * A file of the engine, being read from anywhere, or written from its beginning on. Without locks
 * and mapped memory, which such files have not. Safe for use by several threads.
 */
final class EngineChannel extends FileChannel {
  private static final int BUFFER = 1 << 16;

  private final @Nullable FSDataInputStream in;
  private final @Nullable FSDataOutputStream out;
  private final long size;
  private long written;

  private EngineChannel(
      @Nullable FSDataInputStream in, @Nullable FSDataOutputStream out, long size) {
    this.in = in;
    this.out = out;
    this.size = size;
  }

  static EngineChannel reading(FSDataInputStream in, long size) {
    return new EngineChannel(in, null, size);
  }

  static EngineChannel writing(FSDataOutputStream out) {
    return new EngineChannel(null, out, 0);
  }

  private FSDataInputStream in() {
    if (in == null) {
      throw new NonReadableChannelException();
    }
    return in;
  }

  private FSDataOutputStream out() {
    if (out == null) {
      throw new NonWritableChannelException();
    }
    return out;
  }

  @Override
  public synchronized int read(ByteBuffer into) throws IOException {
    if (into.hasArray()) {
      int read = in().read(into.array(), into.arrayOffset() + into.position(), into.remaining());
      into.position(into.position() + Math.max(0, read));
      return read;
    }
    byte[] some = new byte[Math.min(BUFFER, into.remaining())];
    int read = in().read(some, 0, some.length);
    into.put(some, 0, Math.max(0, read));
    return read;
  }

  @Override
  public long read(ByteBuffer[] into, int from, int count) throws IOException {
    return read(into[from]);
  }

  @Override
  public synchronized int read(ByteBuffer into, long place) throws IOException {
    long before = in().getPos();
    if (place >= size) {
      return -1;
    }
    in().seek(place);
    int read = read(into);
    in().seek(before);
    return read;
  }

  @Override
  public synchronized int write(ByteBuffer from) throws IOException {
    int count = from.remaining();
    if (from.hasArray()) {
      out().write(from.array(), from.arrayOffset() + from.position(), count);
      from.position(from.limit());
    } else {
      byte[] some = new byte[count];
      from.get(some);
      out().write(some);
    }
    written += count;
    return count;
  }

  @Override
  public long write(ByteBuffer[] from, int first, int count) throws IOException {
    return write(from[first]);
  }

  @Override
  public int write(ByteBuffer from, long place) {
    throw new UnsupportedOperationException("written from the beginning on");
  }

  @Override
  public synchronized long position() throws IOException {
    return in == null ? written : in.getPos();
  }

  @Override
  public synchronized FileChannel position(long place) throws IOException {
    if (place > size) {
      throw new EOFException("behind the end");
    }
    in().seek(place);
    return this;
  }

  @Override
  public synchronized long size() {
    return in == null ? written : size;
  }

  @Override
  public FileChannel truncate(long bytes) {
    throw new UnsupportedOperationException("written from the beginning on");
  }

  @Override
  public synchronized void force(boolean all) throws IOException {
    if (out != null) {
      out.flush(); // what is in a store counts once it is closed
    }
  }

  @Override
  public long transferTo(long place, long count, WritableByteChannel target) {
    throw new UnsupportedOperationException();
  }

  @Override
  public long transferFrom(ReadableByteChannel source, long place, long count) {
    throw new UnsupportedOperationException();
  }

  @Override
  public MappedByteBuffer map(MapMode mode, long place, long count) {
    throw new UnsupportedOperationException();
  }

  @Override
  public FileLock lock(long place, long count, boolean shared) throws IOException {
    throw new IOException("such files cannot be locked");
  }

  @Override
  public FileLock tryLock(long place, long count, boolean shared) throws IOException {
    throw new IOException("such files cannot be locked");
  }

  @Override
  protected void implCloseChannel() throws IOException {
    if (in != null) {
      in.close();
    }
    if (out != null) {
      out.close();
    }
  }
}
