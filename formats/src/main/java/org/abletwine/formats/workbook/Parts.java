package org.abletwine.formats.workbook;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.zip.CRC32;
import org.abletwine.formats.packed.Spool;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;

/** Writes the parts of a workbook into an archive; the same rows make the same bytes. */
final class Parts implements AutoCloseable {
  private static final LocalDateTime SOME_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

  private final ZipArchiveOutputStream zip;

  Parts(OutputStream into) {
    zip = new ZipArchiveOutputStream(into);
    zip.setUseZip64(Zip64Mode.AsNeeded);
  }

  private static ZipArchiveEntry entry(String name) {
    ZipArchiveEntry entry = new ZipArchiveEntry(name);
    entry.setTimeLocal(SOME_TIME);
    return entry;
  }

  /** Writes a part of text. */
  void text(String name, String text) throws IOException {
    begin(name);
    add(text);
    end();
  }

  /** Writes a part that is not packed, so that its bytes can be read where they lie. */
  void plain(String name, String text) throws IOException {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    CRC32 sum = new CRC32();
    sum.update(bytes);
    ZipArchiveEntry entry = entry(name);
    entry.setMethod(ZipArchiveEntry.STORED);
    entry.setSize(bytes.length);
    entry.setCrc(sum.getValue());
    zip.putArchiveEntry(entry);
    zip.write(bytes);
    zip.closeArchiveEntry();
  }

  /** Writes a part that is packed already. */
  void packed(String name, Spool spool) throws IOException {
    ZipArchiveEntry entry = entry(name);
    entry.setMethod(ZipArchiveEntry.DEFLATED);
    entry.setSize(spool.size());
    entry.setCompressedSize(spool.packedSize());
    entry.setCrc(spool.sum());
    try (InputStream bytes = spool.packed()) {
      zip.addRawArchiveEntry(entry, bytes);
    }
  }

  void begin(String name) throws IOException {
    zip.putArchiveEntry(entry(name));
  }

  void add(String text) throws IOException {
    zip.write(text.getBytes(StandardCharsets.UTF_8));
  }

  void add(Spool spool) throws IOException {
    try (InputStream bytes = spool.plain()) {
      bytes.transferTo(zip);
    }
  }

  void end() throws IOException {
    zip.closeArchiveEntry();
  }

  /** A text as the value of an attribute. */
  static String quoted(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }

  @Override
  public void close() throws IOException {
    zip.finish();
  }
}
