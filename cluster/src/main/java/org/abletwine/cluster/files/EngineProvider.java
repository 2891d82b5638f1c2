package org.abletwine.cluster.files;

import java.io.FileNotFoundException;
import java.io.IOException;
import java.net.URI;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.AccessMode;
import java.nio.file.CopyOption;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileAttributeView;
import java.nio.file.attribute.FileTime;
import java.nio.file.spi.FileSystemProvider;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.apache.flink.core.fs.FileStatus;
import org.apache.flink.core.fs.FileSystem.WriteMode;
import org.jspecify.annotations.Nullable;

/** What Java asks of a file system, put to the engine's. Stateless. */
final class EngineProvider extends FileSystemProvider {
  static final EngineProvider ONE = new EngineProvider();

  private EngineProvider() {}

  private static EnginePath own(Path path) {
    return (EnginePath) path.toAbsolutePath();
  }

  private static org.apache.flink.core.fs.FileSystem engine(Path path) throws IOException {
    return own(path).getFileSystem().engine();
  }

  private static FileStatus status(Path path) throws IOException {
    try {
      FileStatus found = engine(path).getFileStatus(own(path).engine());
      if (found != null) {
        return found;
      }
    } catch (FileNotFoundException e) {
      // told below, as Java does
    }
    throw new NoSuchFileException(path.toString());
  }

  private static boolean exists(Path path) throws IOException {
    return engine(path).exists(own(path).engine());
  }

  @Override
  public String getScheme() {
    return "abletwine";
  }

  @Override
  public FileSystem newFileSystem(URI uri, Map<String, ?> settings) {
    throw new UnsupportedOperationException("the engine opens its file systems");
  }

  @Override
  public FileSystem getFileSystem(URI uri) {
    return getPath(uri).getFileSystem();
  }

  @Override
  public Path getPath(URI uri) {
    return new EngineFiles().path(uri.toString());
  }

  @Override
  public SeekableByteChannel newByteChannel(
      Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes)
      throws IOException {
    return newFileChannel(path, options, attributes);
  }

  @Override
  public FileChannel newFileChannel(
      Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes)
      throws IOException {
    boolean writes = options.contains(StandardOpenOption.WRITE);
    if (!writes) {
      FileStatus found = status(path);
      if (found.isDir()) {
        throw new IOException(path + " is a folder");
      }
      return EngineChannel.reading(engine(path).open(own(path).engine()), found.getLen());
    }
    boolean fresh = options.contains(StandardOpenOption.CREATE_NEW);
    if (fresh && exists(path)) {
      throw new FileAlreadyExistsException(path.toString());
    }
    if (!fresh && !options.contains(StandardOpenOption.CREATE)) {
      throw new IOException("files there are only written anew");
    }
    return EngineChannel.writing(
        engine(path)
            .create(own(path).engine(), fresh ? WriteMode.NO_OVERWRITE : WriteMode.OVERWRITE));
  }

  @Override
  public DirectoryStream<Path> newDirectoryStream(
      Path folder, DirectoryStream.Filter<? super Path> filter) throws IOException {
    if (!status(folder).isDir()) {
      throw new NotDirectoryException(folder.toString());
    }
    List<Path> found = new ArrayList<>();
    FileStatus[] all = engine(folder).listStatus(own(folder).engine());
    for (FileStatus one : all == null ? new FileStatus[0] : all) {
      Path path =
          folder.resolve(new EnginePath(own(folder).getFileSystem(), one.getPath().getName()));
      if (filter.accept(path)) {
        found.add(path);
      }
    }
    return new DirectoryStream<>() {
      @Override
      public Iterator<Path> iterator() {
        return found.iterator();
      }

      @Override
      public void close() {
        // all is listed
      }
    };
  }

  @Override
  public void createDirectory(Path folder, FileAttribute<?>... attributes) throws IOException {
    if (exists(folder)) {
      throw new FileAlreadyExistsException(folder.toString());
    }
    if (!engine(folder).mkdirs(own(folder).engine())) {
      throw new IOException("cannot make the folder " + folder);
    }
  }

  @Override
  public void delete(Path path) throws IOException {
    status(path);
    if (!engine(path).delete(own(path).engine(), false)) {
      throw new IOException("cannot delete " + path);
    }
  }

  @Override
  public void copy(Path from, Path to, CopyOption... options) {
    throw new UnsupportedOperationException();
  }

  /** One step where the engine's file system has it; where it replaces nothing, two. */
  @Override
  public void move(Path from, Path to, CopyOption... options) throws IOException {
    status(from);
    org.apache.flink.core.fs.FileSystem system = engine(from);
    boolean there = exists(to);
    if (there && !status(to).isDir()) {
      system.delete(own(to).engine(), false);
    } else if (there) {
      throw new FileAlreadyExistsException(to.toString());
    }
    if (!system.rename(own(from).engine(), own(to).engine())) {
      throw new IOException("cannot move " + from + " to " + to);
    }
  }

  @Override
  public boolean isSameFile(Path one, Path other) {
    return one.toAbsolutePath().normalize().equals(other.toAbsolutePath().normalize());
  }

  @Override
  public boolean isHidden(Path path) {
    return path.getFileName() != null && path.getFileName().toString().startsWith(".");
  }

  @Override
  public FileStore getFileStore(Path path) {
    throw new UnsupportedOperationException();
  }

  @Override
  public void checkAccess(Path path, AccessMode... modes) throws IOException {
    status(path);
  }

  @Override
  public <V extends FileAttributeView> @Nullable V getFileAttributeView(
      Path path, Class<V> type, LinkOption... options) {
    return null;
  }

  @Override
  public <A extends BasicFileAttributes> A readAttributes(
      Path path, Class<A> type, LinkOption... options) throws IOException {
    return type.cast(new Attributes(status(path)));
  }

  @Override
  public Map<String, Object> readAttributes(Path path, String names, LinkOption... options)
      throws IOException {
    if (names.indexOf(':') > 0) {
      throw new UnsupportedOperationException(names);
    }
    Attributes all = new Attributes(status(path));
    return Map.of("size", all.size(), "lastModifiedTime", all.lastModifiedTime());
  }

  @Override
  public void setAttribute(Path path, String name, Object value, LinkOption... options) {
    throw new UnsupportedOperationException();
  }

  private record Attributes(FileStatus status) implements BasicFileAttributes {
    @Override
    public FileTime lastModifiedTime() {
      return FileTime.fromMillis(status.getModificationTime());
    }

    @Override
    public FileTime lastAccessTime() {
      return lastModifiedTime();
    }

    @Override
    public FileTime creationTime() {
      return lastModifiedTime();
    }

    @Override
    public boolean isRegularFile() {
      return !status.isDir();
    }

    @Override
    public boolean isDirectory() {
      return status.isDir();
    }

    @Override
    public boolean isSymbolicLink() {
      return false;
    }

    @Override
    public boolean isOther() {
      return false;
    }

    @Override
    public long size() {
      return status.getLen();
    }

    @Override
    public @Nullable Object fileKey() {
      return null;
    }
  }
}
