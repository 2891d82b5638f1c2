package org.abletwine.cluster.files;

import java.io.IOException;
import java.net.URI;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.nio.file.WatchService;
import java.nio.file.attribute.UserPrincipalLookupService;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A file system that the engine reaches. Immutable. */
final class EngineFileSystem extends FileSystem {
  private final String root;

  /**
   * @param root its scheme and authority, such as {@code s3://bucket}
   */
  EngineFileSystem(String root) {
    this.root = root;
  }

  String root() {
    return root;
  }

  /** The engine's own. */
  org.apache.flink.core.fs.FileSystem engine() throws IOException {
    return org.apache.flink.core.fs.FileSystem.get(URI.create(root + "/"));
  }

  @Override
  public EngineProvider provider() {
    return EngineProvider.ONE;
  }

  @Override
  public void close() {
    throw new UnsupportedOperationException("the engine's file systems stay open");
  }

  @Override
  public boolean isOpen() {
    return true;
  }

  @Override
  public boolean isReadOnly() {
    return false;
  }

  @Override
  public String getSeparator() {
    return "/";
  }

  @Override
  public Iterable<Path> getRootDirectories() {
    return List.of(new EnginePath(this, "/"));
  }

  @Override
  public Iterable<FileStore> getFileStores() {
    return List.of();
  }

  @Override
  public Set<String> supportedFileAttributeViews() {
    return Set.of("basic");
  }

  @Override
  public Path getPath(String first, String... more) {
    String all = more.length == 0 ? first : first + "/" + String.join("/", more);
    return new EnginePath(this, all);
  }

  /** Stars and question marks, as folders are listed by. */
  @Override
  public PathMatcher getPathMatcher(String syntaxAndPattern) {
    String glob = syntaxAndPattern.substring(syntaxAndPattern.indexOf(':') + 1);
    StringBuilder pattern = new StringBuilder();
    for (int i = 0; i < glob.length(); i++) {
      char c = glob.charAt(i);
      if (c == '\\' && i + 1 < glob.length()) {
        pattern.append(Pattern.quote(glob.substring(i + 1, i + 2)));
        i++;
      } else if (c == '*') {
        pattern.append("[^/]*");
      } else {
        pattern.append(c == '?' ? "[^/]" : Pattern.quote("" + c));
      }
    }
    Pattern compiled = Pattern.compile(pattern.toString());
    return path -> compiled.matcher(path.toString()).matches();
  }

  @Override
  public UserPrincipalLookupService getUserPrincipalLookupService() {
    throw new UnsupportedOperationException();
  }

  @Override
  public WatchService newWatchService() {
    throw new UnsupportedOperationException();
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof EngineFileSystem same && same.root.equals(root);
  }

  @Override
  public int hashCode() {
    return Objects.hash(root);
  }

  @Override
  public String toString() {
    return root;
  }
}
