package org.abletwine.plan;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.abletwine.formats.packed.PartFolder;
import org.abletwine.table.DataException;
import org.abletwine.table.output.OutputFile;
import org.jspecify.annotations.Nullable;

/**
 * What tells one state of a file from another.
 *
 * @param file the file, as a person would write it
 * @param bytes its size, in bytes; -1 when not known
 * @param sha256 the SHA-256 digest of all its bytes, in hexadecimal digits; null when it cannot be
 *     told, such as of a pipe
 */
public record FileFacts(String file, long bytes, @Nullable String sha256) {
  private static final int BUFFER = 1 << 18;

  /**
   * The facts of a file as it lies there.
   *
   * @param name how it is told
   * @param at where it lies
   * @throws DataException when it cannot be read
   */
  static FileFacts of(String name, Path at) {
    MessageDigest digest = fresh();
    long bytes = 0;
    byte[] buffer = new byte[BUFFER];
    try (InputStream in = new DigestInputStream(opened(at), digest)) {
      for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
        bytes += read;
      }
    } catch (IOException e) {
      throw new DataException("cannot read " + name + " for its checksum: " + e.getMessage(), e);
    }
    return new FileFacts(name, bytes, HexFormat.of().formatHex(digest.digest()));
  }

  /** The bytes of a file, or of all parts in a folder, one behind the other. */
  private static InputStream opened(Path at) throws IOException {
    if (!Files.isDirectory(at)) {
      return OutputFile.reading(at);
    }
    return PartFolder.open(at, 0);
  }

  /** The digest of some bytes, in hexadecimal digits. */
  static String digest(byte[] bytes) {
    return HexFormat.of().formatHex(fresh().digest(bytes));
  }

  private static MessageDigest fresh() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
