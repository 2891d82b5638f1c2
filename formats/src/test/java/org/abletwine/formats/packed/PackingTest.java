package org.abletwine.formats.packed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.github.luben.zstd.Zstd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.abletwine.enrich.Enrichment;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables that are packed: read and written whole, or an error; never a part of one. */
class PackingTest {
  @TempDir private Path folder;

  private static byte[] csv(int rows) {
    Random random = new Random(rows);
    StringBuilder text = new StringBuilder("id,value\n");
    for (int row = 0; row < rows; row++) {
      text.append(row).append(',').append(Long.toString(random.nextLong(), 36)).append('\n');
    }
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static byte[] gzip(byte[] bytes) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (OutputStream packer = new GZIPOutputStream(out)) {
      packer.write(bytes);
    }
    return out.toByteArray();
  }

  private static byte[] zip(Object... namesAndBytes) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream packer = new ZipOutputStream(out)) {
      for (int i = 0; i < namesAndBytes.length; i += 2) {
        packer.putNextEntry(new ZipEntry((String) namesAndBytes[i]));
        packer.write((byte[]) namesAndBytes[i + 1]);
        packer.closeEntry();
      }
    }
    return out.toByteArray();
  }

  private static byte[] packed(Packing packing, byte[] bytes) throws IOException {
    return switch (packing) {
      case NONE -> bytes;
      case GZIP -> gzip(bytes);
      case ZSTD -> Zstd.compress(bytes);
      case ZIP -> zip("t.csv", bytes);
    };
  }

  private Path file(String name, byte[] bytes) throws IOException {
    return Files.write(folder.resolve(name), bytes);
  }

  private static List<String> read(Table table) {
    List<String> all = new ArrayList<>();
    try (Rows rows = table.rows()) {
      for (List<@Nullable String> row = rows.next(); row != null; row = rows.next()) {
        all.add(String.join(",", row));
      }
    }
    return all;
  }

  private static List<String> lines(byte[] csv) {
    return new String(csv, StandardCharsets.UTF_8).lines().skip(1).toList();
  }

  private static String ending(Packing packing) {
    return switch (packing) {
      case NONE -> ".csv";
      case GZIP -> ".csv.gz";
      case ZSTD -> ".csv.zst";
      case ZIP -> ".zip";
    };
  }

  @ParameterizedTest
  @EnumSource(Packing.class)
  void whatWasPackedElsewhereIsReadAndWrittenBack(Packing packing) throws IOException {
    byte[] csv = csv(40_000);
    Path in = file("in" + ending(packing), packed(packing, csv));
    Table table = Tables.file(in);
    assertThat(read(table)).isEqualTo(lines(csv));
    assertThat(read(table)).as("once more").hasSize(40_000);
    for (Packing other : Packing.values()) {
      Path out = folder.resolve("out" + ending(other));
      var record = Enrichment.of(table).build().writeTo(Tables.sink(out));
      assertThat(record.bytesIn())
          .as("as it is packed")
          .isBetween(Files.size(in) - 150, Files.size(in));
      assertThat(Packing.of(Arrays.copyOf(Files.readAllBytes(out), 4))).isEqualTo(other);
      assertThat(read(Tables.file(out))).isEqualTo(lines(csv));
    }
  }

  /** The same rows make the same bytes, whenever and by however many they are written. */
  @ParameterizedTest
  @EnumSource(Packing.class)
  void whatIsWrittenIsTheSameEveryTime(Packing packing) throws IOException {
    Path in = file("in.csv", csv(20_000));
    byte[] first = {};
    for (int workers = 1; workers <= 3; workers++) {
      Path out = folder.resolve(workers + "").resolve("out" + ending(packing));
      Enrichment.of(Tables.file(in)).workers(workers).build().writeTo(Tables.sink(out));
      byte[] bytes = Files.readAllBytes(out);
      assertThat(bytes).isEqualTo(first.length == 0 ? bytes : first);
      first = bytes;
    }
  }

  /** Cut off anywhere, it is an error that says where; nothing of it passes for the whole. */
  @ParameterizedTest
  @EnumSource(value = Packing.class, names = "NONE", mode = EnumSource.Mode.EXCLUDE)
  void whatIsCutOffIsAnError(Packing packing) throws IOException {
    byte[] whole = packed(packing, csv(80));
    int data = packing == Packing.ZIP ? dataEnd(whole) : whole.length;
    for (int length = 5; length < data; length++) {
      Path in = file("in" + ending(packing), Arrays.copyOf(whole, length));
      assertThatThrownBy(() -> read(Tables.file(in)))
          .as("%d of %d bytes", length, whole.length)
          .isInstanceOf(DataException.class)
          .hasMessageMatching(
              ".*is cut off or damaged: after byte \\d+ it cannot be unpacked.*"
                  + (packing == Packing.ZIP && length < 40 ? "|.*it is empty, or cut off" : ""));
    }
  }

  /** Where the only member of an archive ends, its sums included. */
  private static int dataEnd(byte[] zip) {
    for (int at = 0; ; at++) {
      if (zip[at] == 'P' && zip[at + 1] == 'K' && zip[at + 2] == 1 && zip[at + 3] == 2) {
        return at;
      }
    }
  }

  /** Any byte changed: an error, or the table as it was. */
  @ParameterizedTest
  @EnumSource(value = Packing.class, names = "NONE", mode = EnumSource.Mode.EXCLUDE)
  void whatIsDamagedIsAnErrorOrTheSame(Packing packing) throws IOException {
    byte[] csv = csv(60);
    List<String> expected = lines(csv);
    byte[] whole = packed(packing, csv);
    whole = packing == Packing.ZSTD ? withChecksum(csv) : whole;
    Random random = new Random(1);
    int errors = 0;
    for (int round = 0; round < 5_000; round++) {
      byte[] damaged = whole.clone();
      for (int i = random.nextInt(3); i >= 0; i--) {
        damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
      }
      ByteArrayOutputStream text = new ByteArrayOutputStream();
      try {
        if (Packing.of(damaged) == packing) {
          CountedStream raw = new CountedStream(new java.io.ByteArrayInputStream(damaged));
          Unpacking.of("t", packing, raw, raw).transferTo(text);
          assertThat(lines(text.toByteArray())).isEqualTo(expected);
        }
      } catch (DataException e) {
        errors++;
        assertThat(e.getMessage()).startsWith("t ").doesNotContain("Exception");
      }
    }
    assertThat(errors).isGreaterThan(3_000);
  }

  private static byte[] withChecksum(byte[] bytes) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (var packer = new com.github.luben.zstd.ZstdOutputStream(out).setChecksum(true)) {
      packer.write(bytes);
    }
    return out.toByteArray();
  }

  @Test
  void severalMembersAreOneText() throws IOException {
    byte[] csv = csv(50_000);
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    for (int at = 0; at < csv.length; at += 100_000) {
      all.write(gzip(Arrays.copyOfRange(csv, at, Math.min(csv.length, at + 100_000))));
    }
    assertThat(read(Tables.file(file("m.csv.gz", all.toByteArray())))).isEqualTo(lines(csv));
    all.write("and something else".getBytes(StandardCharsets.UTF_8));
    Path garbage = file("g.csv.gz", all.toByteArray());
    assertThatThrownBy(() -> read(Tables.file(garbage)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is cut off or damaged");
  }

  @Test
  void aFileIsWhatItsFirstBytesSay() throws IOException {
    byte[] csv = csv(10);
    assertThat(read(Tables.file(file("packed.csv", gzip(csv))))).isEqualTo(lines(csv));
    assertThat(Tables.file(folder.resolve("packed.csv")).remarks())
        .containsExactly("it is packed as .gz files are, whatever its ending says");
    assertThat(read(Tables.file(file("plain.csv.gz", csv)))).isEqualTo(lines(csv));
    assertThat(Tables.file(folder.resolve("plain.csv.gz")).remarks())
        .containsExactly("it is not packed, whatever its ending says");
    assertThat(Tables.file(file("right.csv.gz", gzip(csv))).remarks()).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "SQLite format 3\0;a SQLite database",
        "BZh91AY&SY;bzip2",
        "\u00FD7zXZ\0;xz",
        "7z\u00BC\u00AF\u0027\u001C;7z archive",
        "\u00D0\u00CF\u0011\u00E0\u00A1\u00B1\u001A\u00E1;old binary kind",
        "PAR1\u0015\u0004;Parquet",
        "%PDF-1.4;PDF"
      })
  void whatIsNoTextIsNeverReadAsText(String one) throws IOException {
    String[] parts = one.split(";");
    byte[] bytes = (parts[0] + ",b\n1,2\n").getBytes(StandardCharsets.ISO_8859_1);
    Path in = file("t.csv", bytes);
    assertThatThrownBy(() -> read(Tables.file(in)))
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith(in + " is ")
        .hasMessageContaining(parts[1]);
  }

  @Test
  void namesThatLookLikeOthersBeginningsAreText() throws IOException {
    for (String header : List.of("PAR1,PAR2", "BZh1,x", "%PDX,y", "PK,z", "SQLite,w")) {
      Path in = file("t.csv", (header + "\n1,2\n").getBytes(StandardCharsets.UTF_8));
      assertThat(read(Tables.file(in))).containsExactly("1,2");
    }
  }

  @Test
  void anArchiveHoldsOneFile() throws IOException {
    byte[] csv = csv(20);
    Path good =
        file("g.zip", zip("data/", new byte[0], "data/t.csv", csv, "__MACOSX/._t.csv", csv));
    assertThat(read(Tables.file(good))).isEqualTo(lines(csv));
    Path two = file("two.zip", zip("a.csv", csv, "b.csv", csv, "c.csv", csv));
    assertThatThrownBy(() -> read(Tables.file(two)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("holds more than one file: beside the first b.csv, c.csv");
    Path none = file("none.zip", zip("folder/", new byte[0]));
    assertThatThrownBy(() -> read(Tables.file(none)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("without a file that can be read");
    Path book = file("book.csv", zip("[Content_Types].xml", csv, "xl/workbook.xml", csv));
    assertThatThrownBy(() -> read(Tables.file(book)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is a workbook, not delimited text");
    Path out = folder.resolve("../" + folder.getFileName() + "/away.zip");
    Enrichment.of(Tables.file(good)).build().writeTo(Tables.sink(out));
    assertThat(read(Tables.file(folder.resolve("away.zip")))).isEqualTo(lines(csv));
  }

  @Test
  void errorsNameTheLineOfTheTextWithin() throws IOException {
    byte[] csv = "a,b\n1,2\n3\u00FF,4\n".getBytes(StandardCharsets.ISO_8859_1);
    Path in = file("t.csv.gz", gzip(csv));
    assertThatThrownBy(() -> read(Tables.file(in)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("line 3, byte 10: bytes FF are not valid UTF-8");
  }
}
