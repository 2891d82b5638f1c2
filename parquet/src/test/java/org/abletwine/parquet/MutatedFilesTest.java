package org.abletwine.parquet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.ColumnType;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Bytes changed at random. Pages carry a sum, so they are an error; the foot carries none. */
class MutatedFilesTest {
  /** Mutated files; more on request. */
  private static final int MUTATED = Integer.getInteger("mutated.files", 1_000);

  @TempDir private Path folder;

  private static OwnRows rows() {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      rows.add(
          Arrays.asList(
              "0" + i,
              i % 3 == 0 ? null : "text <" + i % 7 + ">",
              i + ".5",
              "2026-08-0" + (1 + i % 9),
              String.valueOf(i % 2 == 0)));
    }
    OwnRows own = new OwnRows(List.of("code", "text", "num", "day", "truth"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    own.types().put("truth", ColumnType.of(ColumnType.Kind.BOOLEAN));
    return own;
  }

  private byte[] whole() throws IOException {
    Path file = folder.resolve("whole.parquet");
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(rows()).build().writeTo(sink);
    }
    return Files.readAllBytes(file);
  }

  private static int footAt(byte[] whole) {
    int length = ByteBuffer.wrap(whole).order(ByteOrder.LITTLE_ENDIAN).getInt(whole.length - 8);
    return whole.length - 8 - length;
  }

  private Throwable read(byte[] bytes, boolean same) throws IOException {
    Path file = Files.write(folder.resolve("m.parquet"), bytes);
    return Assertions.assertTimeoutPreemptively(
        Duration.ofSeconds(20),
        () ->
            catchThrowable(
                () -> {
                  List<List<@Nullable String>> found = OwnRows.of(Tables.file(file));
                  if (same) {
                    assertThat(found).isEqualTo(rows().cells());
                  }
                }));
  }

  @Test
  void changedPagesAreErrorsOrTheTable() throws IOException {
    byte[] whole = whole();
    Random random = new Random(21);
    int errors = 0;
    for (int i = 0; i < MUTATED; i++) {
      byte[] bytes = whole.clone();
      for (int changes = 1 + random.nextInt(3); changes > 0; changes--) {
        bytes[random.nextInt(footAt(whole))] ^= (byte) (1 + random.nextInt(255));
      }
      Throwable failure = read(bytes, true);
      if (failure instanceof AbleTwineException) {
        errors++;
      } else {
        assertThat(failure).as("file " + i).isNull();
      }
    }
    assertThat(errors).isGreaterThan(MUTATED * 9 / 10);
  }

  @Test
  void aChangedFootIsAnErrorOrSomeTable() throws IOException {
    byte[] whole = whole();
    int foot = footAt(whole);
    Random random = new Random(22);
    for (int i = 0; i < MUTATED; i++) {
      byte[] bytes = whole.clone();
      for (int changes = 1 + random.nextInt(3); changes > 0; changes--) {
        bytes[foot + random.nextInt(whole.length - foot)] = (byte) random.nextInt(256);
      }
      Throwable failure = read(bytes, false);
      if (failure != null) {
        assertThat(failure).as("file " + i).isInstanceOf(AbleTwineException.class);
      }
    }
  }
}
