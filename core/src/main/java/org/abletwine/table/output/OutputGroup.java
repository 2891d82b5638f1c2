package org.abletwine.table.output;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.abletwine.table.DataException;

/**
 * The outputs of one run: all are completed, and only then moved into place one after another. A
 * list of the moves lies beside the first of them meanwhile, so that a run that was ended between
 * two moves is recognised by the next. Not safe for use by several threads at once.
 */
public final class OutputGroup implements AutoCloseable {
  private static final String END = ".moving";

  private final List<Output> outputs = new ArrayList<>();

  /** A group without outputs. */
  public OutputGroup() {}

  /**
   * Adds outputs, to be moved after those added before.
   *
   * @param more the outputs
   */
  public void add(List<? extends Output> more) {
    outputs.addAll(more);
  }

  /**
   * Completes all outputs, so that only their moves are left.
   *
   * @return for each target, absolute, the file that holds what will be there
   * @throws DataException when one cannot be completed
   */
  public Map<Path, Path> complete() {
    Map<Path, Path> files = new LinkedHashMap<>();
    for (Output output : outputs) {
      output.complete();
    }
    for (Output output : outputs) {
      Path target = output.target();
      Path beside = output.beside();
      if (target != null && beside != null) {
        files.put(target.toAbsolutePath().normalize(), beside);
      }
    }
    return files;
  }

  /**
   * Completes all outputs and moves them into place.
   *
   * @throws DataException when one cannot be completed, and then none is moved; or when a move
   *     fails, and then those before it are in place
   */
  public void commit() {
    complete();
    List<Path> targets = new ArrayList<>();
    for (Output output : outputs) {
      Path target = output.target();
      if (target != null) {
        targets.add(target);
      }
    }
    if (targets.size() < 2) {
      outputs.forEach(Output::commit);
      return;
    }
    Path list = list(targets.get(0));
    try {
      FileChannel moves = written(list, targets);
      try {
        outputs.forEach(Output::commit);
        if (PartFile.far(list)) {
          moves.close(); // else it would be there again once it is closed
        }
        Files.deleteIfExists(list);
      } finally {
        moves.close();
      }
    } catch (IOException e) {
      throw new DataException("cannot write " + list + ": " + e.getMessage(), e);
    }
  }

  /** Gives up what was not committed. */
  @Override
  public void close() {
    outputs.forEach(Output::close);
  }

  private static Path list(Path target) {
    Path absolute = target.toAbsolutePath();
    return absolute.resolveSibling("." + absolute.getFileName() + END);
  }

  /** The list, locked as long as it is open, so that nobody takes it for one that was left. */
  private static FileChannel written(Path list, List<Path> targets) throws IOException {
    FileChannel moves = opened(list);
    while (!PartFile.far(list) && !locked(moves, list)) { // deleted by a run that moved meanwhile
      moves.close();
      moves = opened(list);
    }
    if (moves.size() > 0) { // of a run that was ended
      moves.truncate(0);
    }
    StringBuilder lines = new StringBuilder();
    for (Path target : targets) {
      Path absolute = target.toAbsolutePath();
      lines.append(stamp(absolute)).append(' ').append(absolute).append('\n');
    }
    ByteBuffer bytes = ByteBuffer.wrap(lines.toString().getBytes(StandardCharsets.UTF_8));
    while (bytes.hasRemaining()) {
      moves.write(bytes);
    }
    moves.force(true);
    return moves;
  }

  private static FileChannel opened(Path list) throws IOException {
    return FileChannel.open(list, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
  }

  /** Waits until no other run moves the same outputs; returns whether the list is still there. */
  private static boolean locked(FileChannel moves, Path list) {
    String opened = stamp(list);
    try {
      moves.lock();
    } catch (IOException | OverlappingFileLockException e) {
      return true; // without locks, or another run of this process is at the same
    }
    return Files.exists(list) && stamp(list).equals(opened);
  }

  /** What tells whether a file has been replaced since. */
  private static String stamp(Path file) {
    try {
      return String.valueOf(Files.exists(file) ? Files.getAttribute(file, "unix:ino") : "none");
    } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
      return "unknown";
    }
  }

  /**
   * Whether a run before was ended while it moved its outputs into place.
   *
   * @param first the output it would have moved first
   * @return what to tell, in words; empty when all is well
   */
  public static Optional<String> interrupted(Path first) {
    Path list = list(first);
    if (!Files.isRegularFile(list)) {
      return Optional.empty();
    }
    try (FileChannel moves =
        FileChannel.open(list, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
      if (moves.tryLock() == null) {
        return Optional.empty();
      }
      List<String> moved = new ArrayList<>();
      List<String> old = new ArrayList<>();
      for (String line : Files.readAllLines(list)) {
        int space = line.indexOf(' ');
        if (space > 0) {
          Path file = Path.of(line.substring(space + 1));
          boolean same = stamp(file).equals(line.substring(0, space));
          (same ? old : moved).add("" + file.getFileName());
        }
      }
      return Optional.of(
          "a run before this one was ended while it moved its outputs into place: of that run"
              + (moved.isEmpty() ? " none is there" : " there are " + String.join(", ", moved))
              + (old.isEmpty() ? "" : ", not " + String.join(", ", old))
              + "; they belong together again once this run has ended");
    } catch (IOException | OverlappingFileLockException e) {
      return Optional.empty();
    }
  }

  @Override
  public String toString() {
    return "OutputGroup[" + outputs.size() + " outputs]";
  }
}
