package org.abletwine.table.output;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Objects;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.DataException;
import org.abletwine.table.ReaderGoneException;
import org.jspecify.annotations.Nullable;

/**
 * A file that is written beside its target and moved into place whole. At any moment the target is
 * either as it was or complete: what was written is forced to the disk first, and the move is one
 * rename. A link is followed, and stays; mode, owner and group of a file that is replaced are kept
 * where that is allowed. A target that is no regular file, such as a pipe or a device, is written
 * straight through. Folders that are missing are made. Not safe for use by several threads.
 *
 * <p>Each part file has a name of its own and is locked while it is written, so that any number of
 * runs may write one target: the last to be moved stays, whole. A part that a killed run left
 * behind is cleared away by the next run that writes the same target.
 */
public final class OutputFile implements Output {
  private final Path named;
  private final Path target;

  /** The part file; null when the target is written straight through. */
  private final @Nullable PartFile part;

  private final FileChannel channel;
  private boolean complete;
  private boolean closed;

  /**
   * Creates the part file.
   *
   * @param target where the file will be
   * @throws DataException when it cannot be written there, saying what to do
   */
  public OutputFile(Path target) {
    this.named = target;
    this.target = followed(target);
    if (this.target.getFileName() == null || Files.isDirectory(this.target)) {
      throw new DataException(
          target + " is a folder; name a file in it, or move the folder away to write there");
    }
    boolean through = Files.exists(this.target) && !Files.isRegularFile(this.target);
    try {
      if (through) {
        part = null;
        channel = FileChannel.open(this.target, StandardOpenOption.WRITE);
      } else {
        part = PartFile.of(madeFolder(), "" + this.target.getFileName());
        channel = part.channel();
      }
    } catch (IOException e) {
      throw new DataException(
          "cannot write "
              + (through ? "to " + target : "to the folder " + folderName())
              + ": "
              + reason(e)
              + "; check its permissions, or write elsewhere",
          e);
    }
  }

  /** Where links lead: to a file, or to where there will be one. */
  private static Path followed(Path target) {
    Path at = target.toAbsolutePath();
    try {
      for (int links = 0; Files.isSymbolicLink(at); links++) {
        if (links == 40) {
          throw new DataException(target + ": the link leads round in a circle");
        }
        if (Files.exists(at) && !Files.isRegularFile(at)) {
          return at; // such as /dev/stdout: whoever opens it follows it
        }
        at = at.resolveSibling(Files.readSymbolicLink(at));
      }
      return at;
    } catch (IOException e) {
      return at; // opening it says what is wrong
    }
  }

  private Path madeFolder() throws IOException {
    Path folder = target.getParent();
    if (folder == null) {
      throw new DataException(named + " is a folder; name a file in it");
    }
    return Files.isDirectory(folder) ? folder : Files.createDirectories(folder);
  }

  private String folderName() {
    Path parent = named.getParent();
    return parent == null ? "." : parent.toString();
  }

  @Override
  public Path target() {
    return named;
  }

  @Override
  public @Nullable Path beside() {
    return part == null ? null : part.path();
  }

  /**
   * Writes bytes.
   *
   * @param bytes from here
   * @param length so many, from the first on
   * @throws DataException when they cannot be written, a full disk included
   */
  public void write(byte[] bytes, int length) {
    write(bytes, 0, length);
  }

  /**
   * Writes bytes.
   *
   * @param bytes from here
   * @param from the first of them, 0-based
   * @param length how many
   * @throws DataException when they cannot be written, a full disk included
   */
  public void write(byte[] bytes, int from, int length) {
    try {
      ByteBuffer left = ByteBuffer.wrap(bytes, from, length);
      while (left.hasRemaining()) {
        channel.write(left);
      }
    } catch (IOException e) {
      throw failed(e);
    }
  }

  private AbleTwineException failed(IOException e) {
    if (part == null && ReaderGoneException.means(e)) {
      return new ReaderGoneException(named.toString(), e);
    }
    return new DataException(
        "cannot write "
            + named
            + ": "
            + reason(e)
            + (part == null ? "" : "; nothing was changed")
            + ". Make room or write elsewhere, then run again",
        e);
  }

  @Override
  public void complete() {
    if (part == null || complete) {
      return;
    }
    try {
      part.takeAfter(target);
      channel.force(true);
      if (PartFile.far(target)) {
        channel.close(); // what is in a store counts once it is closed
      }
      complete = true;
    } catch (IOException e) {
      throw failed(e);
    }
  }

  @Override
  public void commit() {
    complete();
    try {
      if (part != null) {
        move(part.path());
        force(Objects.requireNonNull(target.getParent(), "a file is in a folder"));
      }
    } catch (IOException e) {
      throw new DataException("cannot write " + named + ": " + reason(e), e);
    } finally {
      close();
    }
  }

  private void move(Path from) throws IOException {
    try {
      Files.move(from, target, StandardCopyOption.ATOMIC_MOVE);
    } catch (AtomicMoveNotSupportedException e) {
      Files.move(from, target, StandardCopyOption.REPLACE_EXISTING);
    }
  }

  /** The rename itself reaches the disk, where folders can be forced. */
  private static void force(Path folder) {
    try (FileChannel names = FileChannel.open(folder, StandardOpenOption.READ)) {
      names.force(true);
    } catch (IOException e) {
      // not every file system lets a folder be opened; the file itself is on the disk
    }
  }

  /**
   * Opens a file to be read that may be what an output is written to, {@link #beside}: that is read
   * without losing the lock that keeps other runs from taking it for a leftover.
   *
   * @param file any file
   * @return its bytes, from the first on
   * @throws IOException when it cannot be opened
   */
  public static InputStream reading(Path file) throws IOException {
    return PartFile.reading(file);
  }

  /** Gives up what was written, unless it was committed. */
  @Override
  public void close() {
    if (closed) {
      return;
    }
    closed = true;
    if (part != null) {
      part.close();
      return;
    }
    try {
      channel.close();
    } catch (IOException e) {
      // what was written went straight through; nothing depends on the close
    }
  }

  /**
   * The operating system's reason without the path that messages name already.
   *
   * @param e what failed
   */
  public static String reason(IOException e) {
    if (e instanceof java.nio.file.AccessDeniedException) {
      return "permission denied";
    }
    if (e instanceof java.nio.file.NoSuchFileException f) {
      Path folder = Path.of("" + f.getFile()).toAbsolutePath().getParent();
      return folder != null && Files.isDirectory(folder)
          ? "what was written was taken away by another program"
          : "the folder is not there";
    }
    if (e instanceof java.nio.file.FileAlreadyExistsException f) {
      return f.getFile() + " is not a folder";
    }
    if (e instanceof java.nio.file.FileSystemException f && f.getReason() != null) {
      return f.getReason();
    }
    String message = e.getMessage();
    return message == null ? e.getClass().getSimpleName() : message;
  }

  /**
   * Deletes the part files that this process still writes, for a program that is being ended.
   * Whoever goes on writing afterwards fails.
   */
  public static void abandonAll() {
    PartFile.abandonAll();
  }

  /** Whether a path names a file, following no link: a part file must not be one. */
  static boolean isPlainFile(Path path) {
    return Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS);
  }
}
