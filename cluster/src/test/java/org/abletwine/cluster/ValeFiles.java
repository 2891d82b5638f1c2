package org.abletwine.cluster;

import java.net.URI;
import org.apache.flink.core.fs.FileSystem;
import org.apache.flink.core.fs.FileSystemFactory;
import org.apache.flink.core.fs.local.LocalFileSystem;

/**
 * A file system that only the engine reaches, for tests: {@code vale:///x} is the file {@code /x}
 * of this machine. On the class path of the engine, not in the job.
 */
public final class ValeFiles implements FileSystemFactory {
  /** Called by the engine's service loader. */
  public ValeFiles() {}

  @Override
  public String getScheme() {
    return "vale";
  }

  @Override
  public FileSystem create(URI uri) {
    return new LocalFileSystem() {
      @Override
      public URI getUri() {
        return URI.create("vale:///");
      }
    };
  }
}
