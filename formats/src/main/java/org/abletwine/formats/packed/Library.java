package org.abletwine.formats.packed;

import org.abletwine.table.SettingException;

/** Libraries that only some tables need: whoever has none of these tables need not have them. */
public enum Library {
  /** Reads gzip, and writes workbooks. */
  COMPRESS(
      "org.apache.commons:commons-compress",
      "org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream"),
  /** Reads and writes Zstandard. */
  ZSTD("com.github.luben:zstd-jni", "com.github.luben.zstd.ZstdInputStream"),
  /** Reads and writes JSON. */
  JSON("com.fasterxml.jackson.core:jackson-core", "com.fasterxml.jackson.core.JsonFactory"),
  /** Reads workbooks. */
  XML("com.fasterxml:aalto-xml", "com.fasterxml.aalto.stax.InputFactoryImpl");

  private final String coordinates;
  private final String type;

  Library(String coordinates, String type) {
    this.coordinates = coordinates;
    this.type = type;
  }

  /**
   * Holds that the library is there.
   *
   * @param file the file that needs it, for the message
   * @throws SettingException when it is not
   */
  public void require(Object file) {
    try {
      Class.forName(type, false, Library.class.getClassLoader());
    } catch (ClassNotFoundException e) {
      throw new SettingException(
          file
              + " needs the library "
              + coordinates
              + ", which is neither on the class path nor among the modules; add it, or add"
              + " org.abletwine:able-twine-plan, which brings all of them");
    }
  }
}
