package org.abletwine.cluster.files;

import java.net.URI;
import java.nio.file.Path;
import org.abletwine.plan.FarFiles;

/** Addresses of files that the engine reaches. Stateless. */
public final class EngineFiles implements FarFiles {
  /** Called by the service loader. */
  public EngineFiles() {}

  @Override
  public Path path(String address) {
    URI uri = URI.create(address.replace(" ", "%20"));
    String authority = uri.getAuthority() == null ? "" : uri.getAuthority();
    EngineFileSystem system = new EngineFileSystem(uri.getScheme() + "://" + authority);
    return new EnginePath(system, uri.getPath().isEmpty() ? "/" : uri.getPath()).normalize();
  }
}
