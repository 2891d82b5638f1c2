package org.abletwine.table.output;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.table.text.Unforeseen;

/**
 * The file an output is written to before it is moved into place: in the same folder, under a name
 * nobody can foresee, created by this process alone, and locked as long as it is written. Whoever
 * can lock such a file has found one that nobody writes any more.
 */
final class PartFile implements AutoCloseable {
  private static final String END = ".part";
  private static final int TRIES = 100;
  private static final FileAttribute<?>[] NOTHING = {};
  private static final FileAttribute<?> OWNER_ONLY =
      PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"));
  private static final Set<StandardOpenOption> CREATED =
      Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.READ, StandardOpenOption.WRITE);
  private static final AtomicLong COUNTER = new AtomicLong();

  /** The process that writes a part, as its name has it: its number, and when it began. */
  private static final Pattern PROCESS = Pattern.compile("-([0-9]{1,18})-([0-9a-f]{1,15})\\.part$");

  /** The same beginning, in milliseconds: a clock that is set right moves all of them. */
  private static final long SAME = 5_000;

  private static final String OWN_PROCESS =
      "-" + ProcessHandle.current().pid() + "-" + Long.toHexString(begun(ProcessHandle.current()));

  private static final Map<Path, PartFile> OPEN = new ConcurrentHashMap<>();

  private final Path path;
  private final FileChannel channel;

  private PartFile(Path path, FileChannel channel) {
    this.path = path;
    this.channel = channel;
    OPEN.put(path, this);
  }

  /**
   * Clears away what killed runs have left for this target, and creates a part file.
   *
   * @param folder where
   * @param name what the file will be called
   */
  static PartFile of(Path folder, String name) throws IOException {
    return of(folder, name, NOTHING, true);
  }

  /**
   * The same for a file that nobody but its owner may look at, where the file system has that.
   *
   * @param clears whether to clear away what killed runs have left
   */
  static PartFile ofOwner(Path folder, String name, boolean clears) throws IOException {
    boolean posix = Files.getFileStore(folder).supportsFileAttributeView("posix");
    return of(folder, name, posix ? new FileAttribute<?>[] {OWNER_ONLY} : NOTHING, clears);
  }

  private static synchronized PartFile of(
      Path folder, String name, FileAttribute<?>[] attributes, boolean clears) throws IOException {
    String prefix = "." + name + ".";
    if (clears) { // one at a time: what another thread has just created is no leftover
      clearLeftovers(folder, prefix);
    }
    for (int tries = 0; ; tries++) {
      String own =
          HexFormat.of().formatHex(Unforeseen.bytes(8))
              + Long.toHexString(COUNTER.getAndIncrement());
      Path path = folder.resolve(prefix + own + OWN_PROCESS + END);
      try {
        // Created new: a link that somebody has laid under that name is an error, not followed.
        FileChannel channel = FileChannel.open(path, CREATED, attributes);
        if (locked(path, channel)) {
          return new PartFile(path, channel);
        }
        channel.close();
      } catch (FileAlreadyExistsException e) {
        if (tries == TRIES) {
          throw e;
        }
      }
    }
  }

  /** Locks a file just created; not so when it was cleared away before it could be. */
  private static boolean locked(Path path, FileChannel channel) {
    try {
      channel.lock();
    } catch (IOException | OverlappingFileLockException e) {
      return true; // a file system without locks: others cannot lock it either, and leave it
    }
    return Files.exists(path, LinkOption.NOFOLLOW_LINKS);
  }

  private static void clearLeftovers(Path folder, String prefix) {
    try (DirectoryStream<Path> parts =
        Files.newDirectoryStream(
            folder,
            path -> {
              String name = "" + path.getFileName();
              return name.startsWith(prefix) && name.endsWith(END);
            })) {
      for (Path left : parts) {
        if (!OPEN.containsKey(left)) {
          clear(left);
        }
      }
    } catch (IOException e) {
      // A folder that cannot be listed may still be written to; if not, creating the part says so.
    }
  }

  private static void clear(Path left) {
    if (!OutputFile.isPlainFile(left) || isOfTheLiving(left)) {
      return;
    }
    try (FileChannel channel =
        FileChannel.open(left, StandardOpenOption.WRITE, LinkOption.NOFOLLOW_LINKS)) {
      FileLock lock = channel.tryLock();
      if (lock != null) {
        Files.deleteIfExists(left);
      }
    } catch (IOException | OverlappingFileLockException e) {
      // in use, not ours, or on a file system without locks: left where it is
    }
  }

  /**
   * Whether the process that a part names is known to run. Locks alone do not say so: on many
   * systems a process loses the lock of a file when it closes the file anywhere, such as in a
   * library that reads an archive.
   */
  private static boolean isOfTheLiving(Path part) {
    Matcher process = PROCESS.matcher("" + part.getFileName());
    if (!process.find()) {
      return false;
    }
    long begun = Long.parseLong(process.group(2), 16);
    return ProcessHandle.of(Long.parseLong(process.group(1)))
        .filter(one -> Math.abs(begun(one) - begun) < SAME) // not another that got its number
        .isPresent();
  }

  /** When a process began, in milliseconds since 1970; 0 where that is not told. */
  private static long begun(ProcessHandle process) {
    return process.info().startInstant().map(Instant::toEpochMilli).orElse(0L);
  }

  /**
   * Opens a file to be read: a part of this process through the channel that its lock belongs to,
   * since closing another one would release the lock.
   */
  static InputStream reading(Path file) throws IOException {
    PartFile own = OPEN.get(file);
    return own == null || far(file) || !own.channel.isOpen()
        ? Files.newInputStream(file)
        : own.stream();
  }

  /** Returns a stream of all bytes from the first on; several may read at once. */
  InputStream stream() {
    return new Reading(channel);
  }

  /** The bytes of a channel from the first on; what has been written, and where, stays. */
  private static final class Reading extends InputStream {
    private final FileChannel channel;
    private long at;

    Reading(FileChannel channel) {
      this.channel = channel;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] bytes, int from, int length) throws IOException {
      if (length == 0) {
        return 0;
      }
      int count = channel.read(ByteBuffer.wrap(bytes, from, length), at);
      at += Math.max(0, count);
      return count;
    }
  }

  /** Whether a file is none of this machine's own file systems. */
  static boolean far(Path path) {
    return !path.getFileSystem().equals(FileSystems.getDefault());
  }

  Path path() {
    return path;
  }

  FileChannel channel() {
    return channel;
  }

  /** Takes over mode, owner and group of a file, as far as that is allowed. */
  void takeAfter(Path file) {
    PosixFileAttributeView own = Files.getFileAttributeView(path, PosixFileAttributeView.class);
    if (own == null || !Files.isRegularFile(file)) {
      return;
    }
    try {
      PosixFileAttributes old = Files.readAttributes(file, PosixFileAttributes.class);
      PosixFileAttributes now = own.readAttributes();
      try {
        if (!now.group().equals(old.group())) {
          own.setGroup(old.group());
        }
        if (!now.owner().equals(old.owner())) {
          own.setOwner(old.owner());
        }
      } catch (IOException e) {
        // only some users may give files away: the new file is then the writer's own
      }
      own.setPermissions(old.permissions());
    } catch (IOException e) {
      // a file that cannot be looked at has nothing to take over
    }
  }

  /** Closes and deletes the file, unless it was moved away. */
  @Override
  public void close() {
    OPEN.remove(path);
    try {
      Files.deleteIfExists(path); // still locked: nobody else clears or takes it meanwhile
      channel.close();
    } catch (IOException e) {
      // left for the next run to clear
    }
  }

  static void abandonAll() {
    OPEN.values().forEach(PartFile::close);
  }

  @Override
  public String toString() {
    return path.toString();
  }
}
