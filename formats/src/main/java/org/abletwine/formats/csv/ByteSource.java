package org.abletwine.formats.csv;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/** Where the bytes of a table come from: a file, or standard input, which can be read only once. */
final class ByteSource {
  /** How much of the beginning is looked at to find the form of the file, in bytes. */
  static final int HEAD = 1 << 15;

  private final @Nullable Path path;
  private @Nullable BufferedInputStream standardInput;

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
    return file == null ? name() : file.toString();
  }

  long size() {
    try {
      return path == null ? -1 : Files.size(path);
    } catch (IOException e) {
      return -1; // opening it says what is wrong
    }
  }

  /** The first bytes, at most {@link #HEAD}. */
  synchronized byte[] head() {
    try {
      if (path == null) {
        BufferedInputStream in = new BufferedInputStream(System.in, HEAD + 1);
        standardInput = in;
        in.mark(HEAD);
        byte[] head = in.readNBytes(HEAD);
        in.reset();
        return head;
      }
      try (InputStream in = open()) {
        return in.readNBytes(HEAD);
      }
    } catch (IOException e) {
      throw new DataException("cannot read " + name() + ": " + e.getMessage(), e);
    }
  }

  synchronized InputStream open() {
    if (path == null) {
      InputStream in = standardInput;
      if (in == null) {
        throw new DataException(
            "standard input can be read only once; give a file where a table is needed twice");
      }
      standardInput = null;
      return in;
    }
    if (Files.isDirectory(path)) {
      throw new DataException(path + " is a folder, not a file; name the file in it");
    }
    try {
      return Files.newInputStream(path);
    } catch (NoSuchFileException e) {
      throw new DataException("there is no file " + path + missingHint(), e);
    } catch (IOException e) {
      throw new DataException("cannot read " + path + ": permission denied or not a file", e);
    }
  }

  private String missingHint() {
    if (path == null) {
      return "";
    }
    Path folder = path.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      return "; nor is there a folder " + path.getParent();
    }
    try (var files = Files.list(folder)) {
      String wanted = path.getFileName().toString();
      return org.abletwine.table.NearestName.of(
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
  long lineOf(long offset) {
    if (path == null) {
      return 0;
    }
    try (InputStream in = new BufferedInputStream(open())) {
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
