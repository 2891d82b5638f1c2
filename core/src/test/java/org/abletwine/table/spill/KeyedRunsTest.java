package org.abletwine.table.spill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Entries come out in the order of their keys, however many runs they were written in. */
class KeyedRunsTest {
  @TempDir Path folder;

  /** Keys whose first byte says how long they are. */
  private static int compare(byte[] one, byte[] other) {
    return Arrays.compare(one, 1, one[0], other, 1, other[0]);
  }

  private static byte[] key(String text) {
    byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
    byte[] key = new byte[utf8.length + 1];
    key[0] = (byte) key.length;
    System.arraycopy(utf8, 0, key, 1, utf8.length);
    return key;
  }

  private static void add(KeyedRuns runs, boolean memory, List<String> entries) {
    KeyedRuns.Adding run = runs.begin(memory);
    for (String entry : entries) {
      byte[] key = key(entry.substring(0, entry.indexOf('=')));
      byte[] behind = ("<" + entry.substring(entry.indexOf('=') + 1) + ">").getBytes();
      run.add(Arrays.copyOf(key, key.length + 3), key.length, behind, 1, behind.length - 2);
    }
    run.end();
  }

  private static List<String> read(KeyedRuns runs, Random random) {
    List<String> read = new ArrayList<>();
    KeyedRuns.Merged merged = runs.merged();
    while (merged.next()) {
      String key = new String(merged.key(), 1, merged.keyLength() - 1, StandardCharsets.UTF_8);
      ByteCursor behind = merged.behind();
      // Who is not interested in all of it leaves the rest.
      String first = "" + (char) behind.bytes()[behind.past(1)];
      int start = behind.past(random.nextInt(2));
      assertThat(start).isNotNegative();
      read.add(key + "=" + first);
    }
    assertThatThrownBy(merged::key).isInstanceOf(IllegalStateException.class);
    return read;
  }

  private static List<String> shown(List<String> entries) {
    return entries.stream().map(entry -> entry.substring(0, entry.indexOf('=') + 2)).toList();
  }

  private static List<String> entries(Random random, int count) {
    List<String> entries = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      entries.add(
          "k".repeat(random.nextInt(3))
              + random.nextInt(50)
              + "="
              + (char) ('a' + random.nextInt(26))
              + "-".repeat(1 + random.nextInt(3000)));
    }
    Collections.sort(entries, (a, b) -> compare(key(name(a)), key(name(b))));
    return entries;
  }

  private static String name(String entry) {
    return entry.substring(0, entry.indexOf('='));
  }

  @Test
  void runsAreMergedInMemoryAndOnDisk() {
    for (int count : new int[] {0, 1, 2, 15, 16, 17, 40, 300}) {
      for (int share = 0; share < 3; share++) {
        Random random = new Random(count * 3 + share);
        try (Spill spill = new Spill(1, folder)) {
          KeyedRuns runs = new KeyedRuns(share == 0 ? null : spill, KeyedRunsTest::compare);
          assertThat(runs.isEmpty()).isTrue();
          List<String> all = new ArrayList<>();
          for (int run = 0; run < count; run++) {
            List<String> entries = entries(random, random.nextInt(count > 40 ? 4 : 60));
            add(runs, share == 2 && random.nextBoolean(), entries);
            all.addAll(entries);
          }
          assertThat(runs.isEmpty()).isEqualTo(count == 0);
          expect(runs, all, random);
          if (share < 2) {
            assertThat(share == 0 ? runs.onDisk() : runs.inMemory()).isZero();
          }
        }
      }
    }
  }

  private static void expect(KeyedRuns runs, List<String> all, Random random) {
    List<String> read = read(runs, random);
    assertThat(read).containsExactlyInAnyOrderElementsOf(shown(all));
    assertThat(read).isSortedAccordingTo((a, b) -> compare(key(name(a)), key(name(b))));
  }

  @Test
  void whatWasWrittenIsCounted() {
    try (Spill spill = new Spill(1, folder)) {
      KeyedRuns runs = new KeyedRuns(spill, KeyedRunsTest::compare);
      add(runs, true, List.of("a=xyz"));
      // The key's length, its three bytes with the one that says how many, and the same behind it.
      assertThat(runs.inMemory()).isEqualTo(3 + 4);
      assertThat(runs.onDisk()).isZero();
      add(runs, false, List.of("a=xyz", "b=x"));
      assertThat(runs.inMemory()).isEqualTo(7);
      assertThat(runs.onDisk()).isEqualTo(7 + 5);
    }
  }

  /** More than is put out at once, and one file for each time that runs were merged. */
  @Test
  void longEntriesAndManyRuns() {
    Random random = new Random(7);
    try (Spill spill = new Spill(1, folder)) {
      KeyedRuns runs = new KeyedRuns(spill, KeyedRunsTest::compare);
      List<String> all = new ArrayList<>();
      for (int run = 0; run < 50; run++) {
        List<String> entries = new ArrayList<>();
        for (int entry = 0; entry < 4; entry++) {
          entries.add("k" + entry + run + "=" + (char) ('a' + run % 26) + "-".repeat(100_000));
        }
        add(runs, false, entries);
        all.addAll(entries);
      }
      expect(runs, all, random);
      try (Stream<Path> files = Files.list(folder)) {
        assertThat(files).hasSize(2);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
      assertThat(runs.onDisk()).as("some of it twice").isBetween(35_000_000L, 45_000_000L);
    }
  }

  @Test
  void runsOfOthersAreTakenOver() {
    Random random = new Random(5);
    try (Spill spill = new Spill(1, folder)) {
      KeyedRuns runs = new KeyedRuns(spill, KeyedRunsTest::compare);
      List<String> all = new ArrayList<>();
      long memory = 0;
      for (int other = 0; other < 6; other++) {
        KeyedRuns one = new KeyedRuns(spill, KeyedRunsTest::compare);
        for (int run = 0; run < 7; run++) {
          List<String> entries = entries(random, 20);
          add(one, run % 3 == 0, entries);
          all.addAll(entries);
        }
        memory += one.inMemory();
        runs.merge(one);
      }
      assertThat(runs.inMemory()).isEqualTo(memory);
      expect(runs, all, random);
    }
  }

  @Test
  void runsAreCarriedToAnotherProcess() throws Exception {
    Random random = new Random(6);
    for (boolean disk : new boolean[] {false, true}) {
      try (Spill spill = new Spill(1, folder)) {
        @Nullable Spill used = disk ? spill : null;
        KeyedRuns runs = new KeyedRuns(used, KeyedRunsTest::compare);
        List<String> all = new ArrayList<>();
        for (int run = 0; run < 5; run++) {
          List<String> entries = entries(random, 300);
          add(runs, run == 0, entries);
          all.addAll(entries);
        }
        ByteArrayOutputStream carried = new ByteArrayOutputStream();
        runs.carry(Carrier.to(new DataOutputStream(carried)));
        KeyedRuns there = new KeyedRuns(used, KeyedRunsTest::compare);
        there.carry(
            Carrier.from(new DataInputStream(new ByteArrayInputStream(carried.toByteArray()))));
        expect(there, all, random);
        expect(runs, all, random);
        assertThat(there.inMemory() + there.onDisk()).isEqualTo(runs.inMemory() + runs.onDisk());
      }
    }
  }
}
