package org.abletwine.formats.csv;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Objects;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * Where the bytes of a table come from. A regular file is opened as often as asked. Whatever else
 * there is, such as a pipe or standard input, is read once, from its first byte on; where it will
 * be opened again ({@link #readAgain}) it is copied to a temporary file first.
 */
final class ByteSource {
  /** How much of the beginning is looked at first to find the form of the file, in bytes. */
  static final int HEAD = 1 << 15;

  private final @Nullable Path path;
  private byte[] head = {};

  /** What follows the head of a source that can be read once; null before it is opened. */
  private @Nullable InputStream rest;

  private boolean taken;
  private boolean again;
  private @Nullable Path copy;

  private ByteSource(@Nullable Path path) {
    this.path = path;
  }

  static ByteSource of(Path path) {
    return new ByteSource(path.toString().equals("-") ? null : path);
  }

  String name() {
    return path == null ? "standard input" : path.toString();
  }

  /** The name without folders. */
  String shortName() {
    Path file = path == null ? null : path.getFileName();
    return file == null || path != null && Files.exists(path) && !isFile() ? name() : "" + file;
  }

  private boolean isFile() {
    return path != null && Files.isRegularFile(path);
  }

  /** Its size in bytes, or -1 when that is not known. */
  long size() {
    try {
      return path == null || !isFile() ? -1 : Files.size(path);
    } catch (IOException e) {
      return -1; // opening it says what is wrong
    }
  }

  /** Says that it will be opened more than once; to be called before it is opened. */
  synchronized void readAgain() {
    again = true;
  }

  /**
   * The first bytes.
   *
   * @param bytes how many; fewer come only of a source that has no more
   */
  synchronized byte[] head(int bytes) {
    try {
      Path held = copy;
      if (held != null || path != null && (isFile() || !Files.exists(path))) {
        try (InputStream in = held == null ? openFile(path) : Files.newInputStream(held)) {
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
      in = path == null ? System.in : openFile(path);
      rest = in;
    }
    if (head.length < bytes && !taken) {
      byte[] more = in.readNBytes(bytes - head.length);
      int from = head.length;
      head = Arrays.copyOf(head, from + more.length);
      System.arraycopy(more, 0, head, from, more.length);
    }
  }

  synchronized InputStream open() {
    try {
      Path held = copy;
      if (held != null) {
        return Files.newInputStream(held);
      }
      if (path != null && (isFile() || !Files.exists(path))) {
        return new WatchedFile(path, openFile(path));
      }
      if (taken) {
        throw new DataException(
            name() + " can be read only once; give a file where a table is needed twice");
      }
      fillHead(0);
      taken = true;
      InputStream all =
          new SequenceInputStream(new ByteArrayInputStream(head), Objects.requireNonNull(rest));
      return again ? copied(all) : all;
    } catch (IOException e) {
      throw cannotRead(e);
    }
  }

  private InputStream copied(InputStream all) throws IOException {
    Path file = Files.createTempFile("able-twine-", ".spool");
    file.toFile().deleteOnExit();
    try (all) {
      Files.copy(all, file, StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      throw new DataException(
          "cannot keep a copy of "
              + name()
              + " in "
              + file.getParent()
              + ": "
              + e.getMessage()
              + "; make room there, or give a file",
          e);
    }
    copy = file;
    return Files.newInputStream(file);
  }

  private static InputStream openFile(Path path) {
    if (Files.isDirectory(path)) {
      throw new DataException(path + " is a folder, not a file; name the file in it");
    }
    try {
      return Files.newInputStream(path);
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
   */
  synchronized long lineOf(long offset) {
    Path file = copy == null && isFile() ? path : copy;
    if (file == null) {
      return 0;
    }
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
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
