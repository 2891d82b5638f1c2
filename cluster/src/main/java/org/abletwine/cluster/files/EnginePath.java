package org.abletwine.cluster.files;

import java.net.URI;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.ProviderMismatchException;
import java.nio.file.WatchEvent;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A path in a file system of the engine: from its root on when it begins with a slash. Immutable.
 */
final class EnginePath implements Path {
  /** What an address begins with. */
  static final Pattern ADDRESS = Pattern.compile("[a-zA-Z][a-zA-Z0-9+.-]*://.*");

  private final EngineFileSystem system;
  private final String path;
  private final List<String> names;

  EnginePath(EngineFileSystem system, String path) {
    this.system = system;
    names = Arrays.stream(path.split("/")).filter(name -> !name.isEmpty()).toList();
    this.path = (path.startsWith("/") ? "/" : "") + String.join("/", names);
  }

  private EnginePath of(boolean absolute, List<String> parts) {
    return new EnginePath(system, (absolute ? "/" : "") + String.join("/", parts));
  }

  private static EnginePath own(Path other) {
    if (other instanceof EnginePath own) {
      return own;
    }
    throw new ProviderMismatchException(other.toString());
  }

  /** The same as the engine names it. */
  org.apache.flink.core.fs.Path engine() {
    return new org.apache.flink.core.fs.Path(
        URI.create(system.root() + "/").getScheme(), authority(), path);
  }

  private @Nullable String authority() {
    String after = system.root().substring(system.root().indexOf("://") + 3);
    return after.isEmpty() ? null : after;
  }

  @Override
  public EngineFileSystem getFileSystem() {
    return system;
  }

  @Override
  public boolean isAbsolute() {
    return path.startsWith("/");
  }

  @Override
  public @Nullable Path getRoot() {
    return isAbsolute() ? new EnginePath(system, "/") : null;
  }

  @Override
  public @Nullable Path getFileName() {
    return names.isEmpty() ? null : of(false, names.subList(names.size() - 1, names.size()));
  }

  @Override
  public @Nullable Path getParent() {
    return names.isEmpty() || names.size() == 1 && !isAbsolute()
        ? null
        : of(isAbsolute(), names.subList(0, names.size() - 1));
  }

  @Override
  public int getNameCount() {
    return names.size();
  }

  @Override
  public Path getName(int index) {
    return of(false, names.subList(index, index + 1));
  }

  @Override
  public Path subpath(int from, int to) {
    return of(false, names.subList(from, to));
  }

  @Override
  public boolean startsWith(Path other) {
    return other instanceof EnginePath that
        && that.system.equals(system)
        && that.isAbsolute() == isAbsolute()
        && that.names.size() <= names.size()
        && names.subList(0, that.names.size()).equals(that.names);
  }

  @Override
  public boolean endsWith(Path other) {
    return other instanceof EnginePath that
        && that.names.size() <= names.size()
        && names.subList(names.size() - that.names.size(), names.size()).equals(that.names);
  }

  @Override
  public Path normalize() {
    List<String> kept = new ArrayList<>();
    for (String name : names) {
      boolean up = name.equals("..");
      if (up && !kept.isEmpty() && !kept.get(kept.size() - 1).equals("..")) {
        kept.remove(kept.size() - 1);
      } else if (!name.equals(".") && !(up && isAbsolute())) {
        kept.add(name);
      }
    }
    return of(isAbsolute(), kept);
  }

  @Override
  public Path resolve(String other) {
    return ADDRESS.matcher(other).matches()
        ? new EngineFiles().path(other)
        : resolve(new EnginePath(system, other));
  }

  @Override
  public Path resolve(Path other) {
    EnginePath that = own(other);
    if (that.isAbsolute()) {
      return that;
    }
    List<String> all = new ArrayList<>(names);
    all.addAll(that.names);
    return of(isAbsolute(), all);
  }

  @Override
  public Path relativize(Path other) {
    EnginePath that = own(other);
    int same = 0;
    while (same < Math.min(names.size(), that.names.size())
        && names.get(same).equals(that.names.get(same))) {
      same++;
    }
    List<String> all = new ArrayList<>();
    for (int up = same; up < names.size(); up++) {
      all.add("..");
    }
    all.addAll(that.names.subList(same, that.names.size()));
    return of(false, all);
  }

  @Override
  public URI toUri() {
    return engine().toUri();
  }

  @Override
  public Path toAbsolutePath() {
    return isAbsolute() ? this : of(true, names);
  }

  @Override
  public Path toRealPath(LinkOption... options) {
    return toAbsolutePath().normalize();
  }

  @Override
  public WatchKey register(
      WatchService watcher, WatchEvent.Kind<?>[] events, WatchEvent.Modifier... modifiers) {
    throw new UnsupportedOperationException();
  }

  @Override
  public int compareTo(Path other) {
    return toString().compareTo(other.toString());
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof EnginePath that && that.system.equals(system) && that.path.equals(path);
  }

  @Override
  public int hashCode() {
    return Objects.hash(system, path);
  }

  @Override
  public String toString() {
    return isAbsolute() ? system.root() + path : path;
  }
}
