package org.abletwine.table.spill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Numbers and cells come back as they were written, whatever is read at once. */
class RowBytesTest {
  private static final long[] EDGES = {
    0, 1, 127, 128, 129, 16_383, 16_384, 1L << 31, 1L << 62, Long.MAX_VALUE, -1, Long.MIN_VALUE
  };

  private static MemoryBytes stored(RowBytes written) {
    MemoryBytes stored = new MemoryBytes();
    stored.append(written.bytes(), written.used());
    return stored;
  }

  @Test
  void aNumberTakesSevenBitsAByte() {
    for (long number : EDGES) {
      RowBytes written = new RowBytes();
      written.number(number);
      int bits = Math.max(1, 64 - Long.numberOfLeadingZeros(number));
      assertThat(written.used()).as("bytes of %d", number).isEqualTo((bits + 6) / 7);
      assertThat(new ByteCursor(stored(written)).number()).isEqualTo(number);
    }
  }

  @Test
  void whatIsWrittenComesBackFromAnyPlace() {
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      RowBytes written = new RowBytes();
      List<Object> wanted = new ArrayList<>();
      List<Integer> places = new ArrayList<>();
      for (int entry = 0; entry < 300; entry++) {
        places.add(written.used());
        switch (random.nextInt(4)) {
          case 0 -> {
            long number = EDGES[random.nextInt(EDGES.length)] + random.nextInt(3);
            written.number(number);
            wanted.add(number);
          }
          case 1 -> {
            written.text(null);
            wanted.add("null");
          }
          case 2 -> {
            String text = "t" + "\u20ac".repeat(random.nextInt(90));
            written.text(text);
            wanted.add(text);
          }
          default -> {
            byte[] bytes = ("<" + "a".repeat(random.nextInt(700)) + ">").getBytes();
            written.cell(bytes, 1, bytes.length - 1);
            wanted.add(new String(bytes, 1, bytes.length - 2));
          }
        }
      }
      MemoryBytes stored = stored(written);
      ByteCursor cursor = new ByteCursor(stored, 1 + random.nextInt(64));
      for (int entry = 0; entry < 300; entry++) {
        assertThat(cursor.place()).isEqualTo(places.get(entry).longValue());
        assertThat(read(cursor, wanted.get(entry))).isEqualTo(wanted.get(entry));
      }
      assertThat(cursor.place()).isEqualTo(stored.size());
      for (int asked = 0; asked < 300; asked++) {
        int entry = random.nextInt(300);
        cursor.seek(places.get(entry));
        assertThat(cursor.place()).isEqualTo(places.get(entry).longValue());
        assertThat(read(cursor, wanted.get(entry))).isEqualTo(wanted.get(entry));
      }
    }
  }

  private static Object read(ByteCursor cursor, Object wanted) {
    if (wanted instanceof Long) {
      return cursor.number();
    }
    long place = cursor.place();
    String text = String.valueOf(cursor.textOrNull());
    int length = cursor.length();
    cursor.seek(place);
    int start = cursor.cell();
    assertThat(cursor.length()).isEqualTo(length);
    assertThat(start < 0).isEqualTo(wanted.equals("null"));
    if (start >= 0) {
      assertThat(new String(cursor.bytes(), start, length, StandardCharsets.UTF_8)).isEqualTo(text);
      cursor.seek(place);
      assertThat(cursor.text()).isEqualTo(text);
    }
    return text;
  }

  @Test
  void bytesArePutBehindAndGonePast() {
    RowBytes written = new RowBytes();
    byte[] some = {9, 1, 2, 3, 9};
    for (int i = 0; i < 400; i++) {
      written.add(some, 1, 4);
    }
    assertThat(written.used()).isEqualTo(1200);
    ByteCursor cursor = new ByteCursor(stored(written), 2);
    for (int i = 0; i < 400; i++) {
      int start = cursor.past(3);
      assertThat(Arrays.copyOfRange(cursor.bytes(), start, start + 3)).containsExactly(1, 2, 3);
    }
    written.clear();
    assertThat(written.used()).isZero();
    written.number(5);
    assertThat(new ByteCursor(stored(written)).number()).isEqualTo(5);
  }

  @Test
  void aFileThatEndsWithinARowIsAnError() {
    RowBytes written = new RowBytes();
    written.text("cut short");
    MemoryBytes cut = new MemoryBytes();
    cut.append(written.bytes(), written.used() - 1);
    assertThatThrownBy(() -> new ByteCursor(cut).text())
        .isInstanceOf(IllegalStateException.class)
        .hasMessage("the file ends within a row");
    assertThatThrownBy(() -> new ByteCursor(new MemoryBytes()).number())
        .isInstanceOf(IllegalStateException.class);
  }

  @Test
  void bytesInMemoryAreReadFromAnyPlace() {
    Random random = new Random(7);
    byte[] all = new byte[300_000];
    random.nextBytes(all);
    MemoryBytes stored = new MemoryBytes();
    for (int at = 0; at < all.length; ) {
      int count = Math.min(all.length - at, random.nextInt(100_000));
      stored.append(Arrays.copyOfRange(all, at, at + count + random.nextInt(3)), count);
      at += count;
      assertThat(stored.size()).isEqualTo(at);
    }
    for (int asked = 0; asked < 300; asked++) {
      int at = random.nextInt(all.length + 1);
      byte[] into = new byte[1 + random.nextInt(150_000)];
      int from = random.nextInt(into.length);
      int read = stored.read(at, into, from);
      assertThat(read).isEqualTo(Math.min(into.length - from, all.length - at));
      assertThat(Arrays.equals(into, from, from + read, all, at, at + read)).isTrue();
    }
    assertThat(stored.read(65_536, new byte[4], 4)).isZero();
    assertThat(stored.read(all.length, new byte[4], 0)).isZero();
  }
}
