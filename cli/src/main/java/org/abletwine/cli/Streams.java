package org.abletwine.cli;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.Charset;
import java.util.Locale;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.abletwine.table.ReaderGoneException;

/**
 * Standard output and standard error as commands print to them. Two things are seen to here, for
 * everything that is printed: bytes that cannot be written are an error, which a print stream would
 * keep to itself; and control characters, wherever in the data they came from, never reach a
 * terminal, but are shown as {@code <U+001B>}. Bytes of tables go through as they are.
 */
final class Streams implements AutoCloseable {
  private static final int BUFFER = 1 << 13;

  private final PrintStream out = System.out;
  private final PrintStream err = System.err;

  private Streams() {}

  /** Makes the process's own standard output and error tell what cannot be written. */
  static void checked() {
    Charset charset =
        Charset.forName(System.getProperty("sun.stdout.encoding", Charset.defaultCharset().name()));
    OutputStream checked = new Checked(new FileOutputStream(FileDescriptor.out));
    System.setOut(
        new PrintStream(new java.io.BufferedOutputStream(checked, BUFFER), false, charset));
  }

  /** From now on, until closed, shows control characters in what is printed. */
  static Streams shown() {
    Streams streams = new Streams();
    System.setOut(new Showing(streams.out));
    System.setErr(new Showing(streams.err));
    return streams;
  }

  /** Standard output without that, for what colours itself. */
  PrintStream out() {
    return out;
  }

  /** Standard error without that. */
  PrintStream err() {
    return err;
  }

  /** What a person looks at who is shown progress: lines that are written over. */
  static PrintStream overwritten(PrintStream stream) {
    return stream instanceof Showing showing ? showing.to : stream;
  }

  @Override
  public void close() {
    System.setOut(out);
    System.setErr(err);
  }

  /** Throws what a print stream would keep to itself. */
  private static final class Checked extends OutputStream {
    private static final String NAME = "standard output";
    private final OutputStream to;

    Checked(OutputStream to) {
      this.to = to;
    }

    @Override
    public void write(int b) {
      write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
      try {
        to.write(bytes, from, length);
      } catch (IOException e) {
        if (ReaderGoneException.means(e)) {
          throw new ReaderGoneException(NAME, e);
        }
        throw new DataException(
            "cannot write to "
                + NAME
                + ": "
                + e.getMessage()
                + "; make room there, or write to a file with --out",
            e);
      }
    }
  }

  /** Prints texts with their control characters shown, and passes bytes on as they are. */
  private static final class Showing extends PrintStream {
    private final PrintStream to;

    Showing(PrintStream to) {
      super(to, false);
      this.to = to;
    }

    @Override
    public void print(String text) {
      to.print(Ink.shown(Words.shown(String.valueOf(text))));
    }

    @Override
    public void println(String text) {
      to.println(Ink.shown(Words.shown(String.valueOf(text))));
    }

    @Override
    public void print(Object value) {
      print(String.valueOf(value));
    }

    @Override
    public void println(Object value) {
      println(String.valueOf(value));
    }

    @Override
    public void println() {
      to.println();
    }

    @Override
    public PrintStream append(CharSequence text) {
      print(String.valueOf(text));
      return this;
    }

    @Override
    public PrintStream format(String format, Object... values) {
      print(String.format(Locale.ROOT, format, values));
      return this;
    }

    @Override
    public PrintStream printf(String format, Object... values) {
      return format(format, values);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
      to.write(bytes, from, length);
    }

    @Override
    public void write(int b) {
      to.write(b);
    }

    @Override
    public void flush() {
      to.flush();
    }

    @Override
    public void close() {
      to.flush(); // the stream behind stays open
    }
  }
}
