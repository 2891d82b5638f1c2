package org.abletwine.formats.packed;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PushbackInputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Objects;
import java.util.function.LongSupplier;
import org.abletwine.table.DataException;
import org.abletwine.table.output.OutputFile;
import org.abletwine.table.output.SpillFile;
import org.jspecify.annotations.Nullable;

/**
 * Where the bytes of a table come from. A regular file, or a folder that holds it in parts ({@link
 * PartFolder}), is opened as often as asked. Whatever else there is, such as a pipe or standard
 * input, is read once, from its first byte on; where it will be opened again ({@link #readAgain})
 * it is copied to a temporary file first. What is packed, by its first bytes and not by its name,
 * is given unpacked. Safe to share between threads; what it opens is not.
 */
public final class ByteSource {
  /** How much of the beginning is looked at first to find the form of the file, in bytes. */
  public static final int HEAD = 1 << 15;

  /** Bytes by which it is known what a file is. */
  private static final int BEGINNING = 512;

  private final @Nullable Path path;
  private byte[] head = {};

  /** What follows the head of a source that can be read once; null before it is opened. */
  private @Nullable InputStream rest;

  private @Nullable CountedStream raw;

  private boolean taken;
  private boolean again;
  private @Nullable Path copy;

  private ByteSource(@Nullable Path path) {
    this.path = path;
  }

  /**
   * A source.
   *
   * @param path a file; {@code -} is standard input
   */
  public static ByteSource of(Path path) {
    return new ByteSource(path.toString().equals("-") ? null : path);
  }

  /** Returns the name for messages. */
  public String name() {
    return path == null ? "standard input" : path.toString();
  }

  /** Returns the name without folders. */
  public String shortName() {
    Path file = path == null ? null : path.getFileName();
    return file == null || path != null && Files.exists(path) && !isFile() ? name() : "" + file;
  }

  private boolean isFile() {
    return path != null && (Files.isRegularFile(path) || PartFolder.is(path));
  }

  /** Returns its size in bytes, as it is packed, or -1 when that is not known. */
  public long size() {
    try {
      return path == null || !isFile()
          ? -1
          : Files.isDirectory(path) ? PartFolder.size(path) : Files.size(path);
    } catch (IOException e) {
      return -1; // opening it says what is wrong
    }
  }

  /** Says that it will be opened more than once; to be called before it is opened. */
  public synchronized void readAgain() {
    again = true;
  }

  /**
   * The first bytes, unpacked.
   *
   * @param bytes how many; fewer come only of a source that has no more
   */
  public synchronized byte[] head(int bytes) {
    try {
      if (again()) {
        try (InputStream in = unpacked(openAgain())) {
          return in.readNBytes(bytes);
        }
      }
      fillHead(bytes);
      return head.clone();
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  private void fillHead(int bytes) throws IOException {
    InputStream in = rest;
    if (in == null) {
      raw = new CountedStream(path == null ? System.in : openFile(path));
      in = unpacked(raw);
      rest = in;
    }
    if (head.length < bytes && !taken) {
      byte[] more = in.readNBytes(bytes - head.length);
      int from = head.length;
      head = Arrays.copyOf(head, from + more.length);
      System.arraycopy(more, 0, head, from, more.length);
    }
  }

  /**
   * Bytes of a source, unpacked.
   *
   * @param in the bytes
   * @param taken bytes taken of the source so far, as it is packed; may be asked from any thread
   */
  public record Opened(InputStream in, LongSupplier taken) {}

  /**
   * Opens the source at its first byte.
   *
   * @throws DataException when it cannot be opened, or be read once more
   */
  public synchronized Opened open() {
    try {
      if (!again() && !taken) {
        fillHead(0);
        taken = true;
        InputStream all =
            new SequenceInputStream(new ByteArrayInputStream(head), Objects.requireNonNull(rest));
        if (!again) {
          return new Opened(all, Objects.requireNonNull(raw)::count);
        }
        copy(all);
      }
      if (!again()) {
        throw new DataException(
            name() + " can be read only once; give a file where a table is needed twice");
      }
      CountedStream file = openAgain();
      InputStream in = unpacked(file);
      return new Opened(
          in instanceof Unpacking ? new AheadStream(in, shortName()) : in, file::count);
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  /** Returns whether it can be opened anywhere: a file, and not packed. */
  public boolean opensAnywhere() {
    if (!isFile()) {
      return false;
    }
    try (InputStream in = openFile(Objects.requireNonNull(path))) {
      return Packing.of(in.readNBytes(BEGINNING)) == Packing.NONE;
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  /**
   * Opens some bytes of a file that can be opened anywhere.
   *
   * @param from the first of them, 0-based
   * @param to behind the last of them; negative for the end of the file
   * @throws DataException when it cannot be opened
   */
  public Opened open(long from, long to) {
    try {
      Path file = Objects.requireNonNull(path);
      InputStream in = openFile(file, from);
      long most = to < 0 ? Long.MAX_VALUE : to - from;
      CountedStream counted = new CountedStream(new WatchedFile(file, in, most));
      return new Opened(counted, counted::count);
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  /** Whether it can be opened from its first byte on: a file, or a copy of something else. */
  private boolean again() {
    return copy != null || path != null && (isFile() || !Files.exists(path));
  }

  /**
   * The file to read parts of an archive from: itself, or a copy of what can be read only once.
   *
   * @throws DataException when it is no archive, saying what it is
   */
  public synchronized Path archive() {
    try {
      readAgain();
      if (!again()) {
        copy(new CountedStream(path == null ? System.in : openFile(path)));
      }
      byte[] beginning;
      try (InputStream in = openAgain()) {
        beginning = in.readNBytes(BEGINNING);
      }
      String binary = BinaryKind.of(beginning);
      if (binary != null) {
        throw new DataException(name() + " is " + binary);
      }
      Packing packing = Packing.of(beginning);
      if (packing != Packing.ZIP) {
        throw new DataException(
            name()
                + (beginning.length == 0
                    ? " is empty; get the whole file again"
                    : packing == Packing.NONE
                        ? " is no workbook, whatever its ending says: if it is text, give it the"
                            + " ending .csv, else save it anew as .xlsx"
                        : " is packed, which a workbook is by itself; unpack it"));
      }
      Path held = copy;
      return held == null ? Objects.requireNonNull(path) : held;
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  private CountedStream openAgain() throws IOException {
    Path held = copy;
    if (held != null) {
      return new CountedStream(OutputFile.reading(held));
    }
    Path file = Objects.requireNonNull(path);
    return new CountedStream(new WatchedFile(file, openFile(file)));
  }

  private InputStream unpacked(CountedStream file) throws IOException {
    PushbackInputStream in = new PushbackInputStream(file, BEGINNING);
    byte[] beginning = in.readNBytes(BEGINNING);
    String binary = BinaryKind.of(beginning);
    if (binary != null) {
      in.close();
      throw new DataException(name() + " is " + binary);
    }
    in.unread(beginning);
    Packing packing = Packing.of(beginning);
    return packing == Packing.NONE ? in : Unpacking.of(name(), packing, in, file);
  }

  /**
   * What a person should know about how the bytes are packed: in another way than the name says.
   *
   * @return a remark, or null when there is nothing to say
   */
  public synchronized @Nullable String remark() {
    Path file = path;
    if (file == null || !isFile()) {
      return null;
    }
    try (InputStream in = openFile(file)) {
      Packing named = Packing.of(file);
      Packing is = Packing.of(in.readNBytes(BEGINNING));
      return is == named
          ? null
          : is == Packing.NONE
              ? "it is not packed, whatever its ending says"
              : "it is packed as " + is.ending() + " files are, whatever its ending says";
    } catch (IOException | DataException e) {
      return null; // opening it has told
    }
  }

  private void copy(InputStream all) throws IOException {
    SpillFile file = SpillFile.temporary().untilTheEnd();
    try (all) {
      all.transferTo(file.output());
    } catch (IOException e) {
      throw new DataException(
          "cannot keep a copy of "
              + name()
              + " in "
              + file.path().getParent()
              + ": "
              + e.getMessage()
              + "; make room there, or give a file",
          e);
    }
    copy = file.path();
  }

  private static InputStream openFile(Path path) {
    return openFile(path, 0);
  }

  private static InputStream openFile(Path path, long from) {
    boolean parted = PartFolder.is(path);
    if (Files.isDirectory(path) && !parted) {
      throw new DataException(path + " is a folder, not a file; name the file in it");
    }
    try {
      if (parted) {
        return PartFolder.open(path, from);
      }
      InputStream in = Files.newInputStream(path);
      in.skipNBytes(from);
      return in;
    } catch (NoSuchFileException e) {
      throw new DataException("there is no file " + path + missingHint(path), e);
    } catch (IOException e) {
      throw new DataException("cannot read " + path + ": permission denied or not a file", e);
    }
  }

  private DataException cannotRead(IOException e) {
    return new DataException("cannot read " + name() + ": " + e.getMessage(), e);
  }

  private static String missingHint(Path path) {
    Path folder = path.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      return "; nor is there a folder " + path.getParent();
    }
    try (var files = Files.list(folder)) {
      String wanted = path.getFileName().toString();
      return org.abletwine.table.text.NearestName.of(
              wanted,
              files.filter(Files::isRegularFile).map(f -> f.getFileName().toString()).toList())
          .map(near -> "; did you mean " + path.resolveSibling(near) + "?")
          .orElse("; check the name and the folder");
    } catch (IOException | UncheckedIOException e) {
      return "; check the name and the folder";
    }
  }

  /**
   * The line, 1-based, that a byte is in, counted anew from the start; 0 when it cannot be known.
   *
   * @param offset the byte, unpacked, 0-based
   */
  public synchronized long lineOf(long offset) {
    if (copy == null && !isFile()) {
      return 0;
    }
    try (InputStream in = new BufferedInputStream(unpacked(openAgain()))) {
      long line = 1;
      for (long at = 0; at < offset; at++) {
        if (in.read() == '\n') {
          line++;
        }
      }
      return line;
    } catch (IOException e) {
      return 0;
    }
  }
}
