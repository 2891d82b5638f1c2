package org.abletwine.table;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A file that is written beside its target and moved into place whole. At any moment the target is
 * either as it was or complete; the move is one rename. A part file that a killed run left behind
 * is cleared away by the next run that writes the same target. Not safe for use by several threads.
 */
public final class OutputFile implements AutoCloseable {
  private static final Set<Path> PARTS = ConcurrentHashMap.newKeySet();

  static {
    Runtime.getRuntime()
        .addShutdownHook(new Thread(() -> PARTS.forEach(OutputFile::deleteQuietly), "clear parts"));
  }

  private final Path target;
  private final Path part;
  private final OutputStream stream;
  private boolean closed;

  /**
   * Creates the part file.
   *
   * @param target where the file will be
   * @throws DataException when it cannot be written there, saying what to do
   */
  public OutputFile(Path target) {
    this.target = target;
    Path folder = target.toAbsolutePath().getParent();
    if (folder == null || Files.isDirectory(target)) {
      throw new DataException(target + " is a folder; name a file in it");
    }
    if (!Files.isDirectory(folder)) {
      throw new DataException(
          "the folder "
              + folderName()
              + " does not exist; create it, or write "
              + target.getFileName()
              + " elsewhere");
    }
    String prefix = "." + target.getFileName() + ".";
    clearLeftovers(folder, prefix);
    part = folder.resolve(prefix + ProcessHandle.current().pid() + ".part");
    try {
      stream = Files.newOutputStream(part);
    } catch (IOException e) {
      throw new DataException(
          "cannot write to the folder "
              + folderName()
              + ": "
              + reason(e)
              + "; check its permissions, or write elsewhere",
          e);
    }
    PARTS.add(part);
  }

  private String folderName() {
    Path parent = target.getParent();
    return parent == null ? "." : parent.toString();
  }

  private static void clearLeftovers(Path folder, String prefix) {
    try (DirectoryStream<Path> parts =
        Files.newDirectoryStream(
            folder,
            path -> {
              String name = path.getFileName().toString();
              return name.startsWith(prefix) && name.endsWith(".part");
            })) {
      for (Path left : parts) {
        String name = left.getFileName().toString();
        String pid = name.substring(prefix.length(), name.length() - ".part".length());
        if (pid.matches("\\d{1,18}") && ProcessHandle.of(Long.parseLong(pid)).isEmpty()) {
          deleteQuietly(left);
        }
      }
    } catch (IOException e) {
      // A folder that cannot be listed may still be written to; if not, creating the part says so.
      return;
    }
  }

  /** Returns the target. */
  public Path target() {
    return target;
  }

  /**
   * Writes bytes.
   *
   * @param bytes from here
   * @param length so many, from the first on
   * @throws DataException when they cannot be written, a full disk included
   */
  public void write(byte[] bytes, int length) {
    try {
      stream.write(bytes, 0, length);
    } catch (IOException e) {
      throw new DataException(
          "cannot write "
              + target
              + ": "
              + reason(e)
              + "; nothing was changed. Make room or write elsewhere, then run again",
          e);
    }
  }

  /** Moves the file into place. */
  public void commit() {
    try {
      stream.close();
      try {
        Files.move(part, target, StandardCopyOption.ATOMIC_MOVE);
      } catch (AtomicMoveNotSupportedException e) {
        Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
      }
    } catch (IOException e) {
      throw new DataException("cannot write " + target + ": " + reason(e), e);
    } finally {
      close();
    }
  }

  /** Gives up what was written, unless it was committed. */
  @Override
  public void close() {
    if (!closed) {
      closed = true;
      try {
        stream.close();
      } catch (IOException e) {
        // closing a file that is given up; nothing depends on it
      }
      deleteQuietly(part);
      PARTS.remove(part);
    }
  }

  private static void deleteQuietly(Path path) {
    try {
      Files.deleteIfExists(path);
    } catch (IOException e) {
      // left for the next run to clear
    }
  }

  /** The operating system's reason without the path that messages name already. */
  private static String reason(IOException e) {
    if (e instanceof java.nio.file.AccessDeniedException) {
      return "permission denied";
    }
    if (e instanceof java.nio.file.FileSystemException f && f.getReason() != null) {
      return f.getReason();
    }
    String message = e.getMessage();
    return message == null ? e.getClass().getSimpleName() : message;
  }
}
