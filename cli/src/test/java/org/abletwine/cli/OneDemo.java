package org.abletwine.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.demo.Planted;
import org.abletwine.demo.WendleVale;
import org.jspecify.annotations.Nullable;

/** The demo, made once for all tests and copied into the folder of each. */
final class OneDemo {
  private static @Nullable Path made;
  private static Planted planted = new Planted();

  private OneDemo() {}

  /** Copies the demo into a folder; returns what was planted in it. */
  static synchronized Planted into(Path folder) throws IOException {
    Path from = made;
    if (from == null) {
      from = Files.createTempDirectory("one-demo");
      planted = WendleVale.layOut(from);
      made = from;
    }
    Files.createDirectories(folder.resolve("out"));
    try (var files = Files.list(from)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        Files.copy(file, folder.resolve(file.getFileName()));
        file.toFile().deleteOnExit();
      }
    }
    return planted;
  }
}
