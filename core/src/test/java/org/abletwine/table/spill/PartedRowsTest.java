package org.abletwine.table.spill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.abletwine.MemoryTable;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.output.SpillFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows divided into parts on disk, read back as tables, and put together in order again. */
class PartedRowsTest {
  @TempDir Path folder;

  private long files() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.count();
    }
  }

  @Test
  void eachPartHasItsRowsInOrderAndWithTheirNumbers() throws IOException {
    Random random = new Random(1);
    MemoryTable origin =
        MemoryTable.of("growers", "no,name,kg,day", "1,a,2,3").typed("kg", ColumnType.Kind.NUMBER);
    try (Spill spill = new Spill(1, folder)) {
      PartedRows parted = new PartedRows(spill, 3);
      assertThat(parted.parts()).isEqualTo(3);
      assertThat(parted.bytes()).isZero();
      List<List<String>> wanted = List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
      PartedRows.Gathered one = parted.new Gathered();
      PartedRows.Gathered other = parted.new Gathered();
      for (int row = 1; row <= 9_000; row++) {
        PartedRows.Gathered into = row / 100 % 2 == 0 ? one : other;
        int part = random.nextInt(2) * 2;
        String name = random.nextInt(4) == 0 ? null : "n\u00e9" + "m".repeat(random.nextInt(20));
        RowBytes cells = into.row(part, row);
        cells.text(name);
        cells.text("" + row % 7);
        wanted.get(part).add(row + " null " + name + " null " + row % 7);
        if (row % 100 == 99) {
          into.putOut();
        }
      }
      one.putOut();
      other.putOut();
      long bytes = 0;
      for (int part = 0; part < 3; part++) {
        Stored stored = parted.stored(part);
        bytes += stored.bytes().size();
        assertThat(stored.rows()).isEqualTo(wanted.get(part).size());
        SpilledTable table = new SpilledTable(stored, origin, new int[] {1, 3});
        assertThat(table.sizeInBytes()).isEqualTo(stored.bytes().size());
        assertThat(rows(table, null)).isEqualTo(wanted.get(part));
        BitSet some = new BitSet();
        some.set(1, 500);
        assertThat(rows(table, some))
            .isEqualTo(
                wanted.get(part).stream()
                    .filter(row -> Integer.parseInt(row.substring(0, row.indexOf(' '))) < 500)
                    .toList());
        assertThat(table.name()).isEqualTo("growers");
        assertThat(table.type("kg")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
        assertThat(table.likely("kg")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
        assertThat(table.isPrivate("kg")).isFalse();
        assertThat(table).hasToString("SpilledTable[" + stored.rows() + " rows of growers]");
      }
      assertThat(parted.bytes()).isEqualTo(bytes).isPositive();
      assertThat(files()).isEqualTo(3);
      parted.done(1);
      assertThat(files()).isEqualTo(2);
    }
    assertThat(files()).as("when the run ends").isZero();
  }

  private static List<String> rows(SpilledTable table, BitSet some) {
    List<String> rows = new ArrayList<>();
    try (Pieces pieces = table.pieces(1, some)) {
      Pieces.Piece piece = pieces.piece();
      while (pieces.next(piece)) {
        for (Batch batch = piece.read(); batch != null; batch = piece.read()) {
          for (int row = 0; row < batch.rows(); row++) {
            StringBuilder line = new StringBuilder().append(batch.rowNumber(row));
            for (int column = 0; column < 4; column++) {
              line.append(' ').append(batch.column(column).get(row));
            }
            rows.add(line.toString());
          }
        }
      }
      assertThat(pieces.bytesRead()).isEqualTo(table.sizeInBytes());
    }
    return rows;
  }

  @Test
  void keysAreSpreadOverAllParts() {
    for (int parts : new int[] {1, 4, 37, 512}) {
      int[] keys = new int[parts];
      for (int hash = -1000 * parts; hash < 1000 * parts; hash += 2) {
        keys[PartedRows.partOf(hash * 512, parts)]++;
      }
      for (int count : keys) {
        assertThat(count).isBetween(750, 1300);
      }
    }
  }

  @Test
  void filesInOrderAreMergedToOne() {
    Random random = new Random(3);
    List<RowBytes> bytes = Stream.generate(RowBytes::new).limit(6).toList();
    List<String> wanted = new ArrayList<>();
    for (int row = 0; row < 3000; row++) {
      int file = random.nextInt(5); // the last one stays empty
      bytes.get(file).number(row / 10);
      bytes.get(file).number(row % 10);
      bytes.get(file).text("row " + row);
      wanted.add(row / 10 + ": row " + row);
    }
    List<MemoryBytes> files = new ArrayList<>();
    for (RowBytes written : bytes) {
      files.add(new MemoryBytes());
      files.get(files.size() - 1).append(written.bytes(), written.used());
    }
    List<String> merged = new ArrayList<>();
    OrderedRuns.merge(files, (first, rest) -> merged.add(first + ": " + rest.text()));
    assertThat(merged).isEqualTo(wanted);
  }

  @Test
  void whatReferencesMayTakeIsSharedOut() {
    try (Spill spill = new Spill(80_000_000, folder)) {
      assertThat(spill.limit()).isEqualTo(80_000_000);
      spill.hold(30_000_000);
      spill.hold(60_000_000);
      assertThat(spill.left()).isEqualTo(-10_000_000);
      assertThat(spill.partsFor(1)).isEqualTo(4);
      assertThat(spill.partsFor(199_999_999)).isEqualTo(10);
      assertThat(spill.partsFor(200_000_000)).isEqualTo(11);
      assertThat(spill.partsFor(1L << 50)).isEqualTo(512);
      Spill.Share share = spill.share(2);
      assertThat(share.bytes()).isEqualTo(10_000_000);
      assertThat(share.spill()).isSameAs(spill);
      spill.share(1);
      assertThat(share.bytes()).as("of two steps").isEqualTo(5_000_000);
      assertThat(spill).hasToString("Spill[80000000 bytes, " + folder + "]");
      spill.requireRoom(-1, "growers");
      assertThatThrownBy(() -> spill.requireRoom(1L << 60, "growers"))
          .isInstanceOf(DataException.class)
          .hasMessageMatching(
              "growers does not fit in the 80 MB that references may take in memory, and on disk it"
                  + " needs about 1152921504606 MB, while the folder .* has room for \\d+ MB; .*");
    }
    try (Spill least = new Spill(1000, folder)) {
      assertThat(least.partsFor(65_536L * 9)).as("a part is 64 kB at least").isEqualTo(10);
    }
    try (Spill usual = new Spill(0, folder)) {
      assertThat(usual.limit()).isPositive().isLessThan(Runtime.getRuntime().maxMemory());
      assertThat(usual.share(1).bytes()).isPositive();
    }
  }

  @Test
  void aFileOfSpilledBytesIsReadFromAnyPlace() throws IOException {
    Random random = new Random(5);
    byte[] all = new byte[50_000];
    random.nextBytes(all);
    try (SpillFile file = SpillFile.in(folder)) {
      file.append(new byte[] {7, 7, 7}, 2);
      assertThat(file.size()).isEqualTo(2);
      file.clear();
      assertThat(file.size()).isZero();
      file.append(all, 20_000);
      file.output().write(all[20_000]);
      file.output().write(all, 20_001, 29_999);
      assertThat(file.size()).isEqualTo(50_000);
      assertThat(file.path()).hasSize(50_000);
      for (int asked = 0; asked < 100; asked++) {
        int at = random.nextInt(50_001);
        byte[] into = new byte[random.nextInt(60_000)];
        int from = random.nextInt(into.length + 1);
        int read = file.read(at, into, from);
        assertThat(read).isEqualTo(Math.min(into.length - from, 50_000 - at));
        assertThat(java.util.Arrays.equals(into, from, from + read, all, at, at + read)).isTrue();
      }
      assertThat(file.stream().readAllBytes()).isEqualTo(all);
      var stream = file.stream();
      assertThat(stream.read()).isEqualTo(all[0] & 0xFF);
      assertThat(stream.read(new byte[3], 0, 0)).isZero();
      assertThat(stream.skip(49_998)).isEqualTo(49_998);
      assertThat(stream.read()).isEqualTo(all[49_999] & 0xFF);
      assertThat(stream.read()).isEqualTo(-1);
    }
    assertThat(folder).isEmptyDirectory();
    assertThatThrownBy(() -> SpillFile.in(folder.resolve("none")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("cannot keep what does not fit in memory in the folder")
        .hasMessageContaining("; make room there");
    SpillFile closed = SpillFile.in(folder);
    closed.close();
    assertThatThrownBy(() -> closed.append(all, 1)).isInstanceOf(DataException.class);
  }
}
