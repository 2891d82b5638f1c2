package org.abletwine.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.abletwine.key.Normalise;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Rows, keys, groups and sets as they are held, read back in every way there is. */
class StoresTest {
  private final KeyEncoder encoder =
      new KeyEncoder(new int[] {0}, List.of(List.of(Normalise.trim())));
  private final EncodedKeys keys = new EncodedKeys();

  private static CellVector column(@Nullable String... cells) {
    CellVector column = new CellVector();
    column.clear();
    for (String cell : cells) {
      column.append(cell);
    }
    return column;
  }

  private void encode(String key) {
    encoder.encode(OneRow.of(key), keys);
  }

  @Test
  void fetchingAppendsFillsAndCountsNulls() {
    RowStore store = new RowStore(3);
    String[] last = {"plain", "", "with,comma", "ö", null};
    for (int row = 0; row < last.length; row++) {
      encode(row % 2 == 0 ? "k" + row : " k" + row);
      store.add(
          new CellVector[] {column("a" + row), column(row == 1 ? null : "b"), column(last[row])},
          0,
          keys);
    }
    for (int row = 0; row < last.length; row++) {
      assertThat(store.keyChanged(store.place(row))).isEqualTo(row % 2 == 1);
      assertThat(store.numberAt(store.place(row))).isEqualTo(row);
      CellVector first = column();
      CellVector third = column();
      long[] nulls = new long[3];
      store.fetch(
          store.place(row),
          new CellVector[] {first, null, third},
          nulls,
          new @Nullable String[] {null, "x", row == 4 ? "filled" : null});
      assertThat(first.get(0)).isEqualTo("a" + row);
      assertThat(third.get(0)).isEqualTo(row == 4 ? "filled" : last[row]);
      assertThat(nulls).containsExactly(0, 0, row == 4 ? 1 : 0);
      assertThat(third.needsNoQuotes(0)).as("%s", last[row]).isEqualTo(row == 0 || row == 3);
      CellVector second = column();
      store.fetch(
          store.place(row),
          new CellVector[] {null, second},
          nulls,
          new @Nullable String[] {null, null});
      assertThat(second.get(0)).isEqualTo(row == 1 ? null : "b");
      assertThat(nulls[1]).isEqualTo(row == 1 ? 1 : 0);
    }
    int[] places = {store.place(0), -1, store.place(2)};
    store.touch(places, 3);
    assertThat(store.nulls(1, 0, 3)).isEqualTo(1);
    assertThat(store.nulls(1, 0, 1)).isZero();
    assertThat(store.nulls(1, 1, 2)).isEqualTo(1);
    assertThat(store.nulls(1, 2, 3)).isZero();
    assertThat(store.agree(0, 2, 1, 2)).isTrue();
    assertThat(store.agree(0, 2, 0, 1)).isFalse();
    assertThat(store.agree(0, 2, 2, 3)).isFalse();
    assertThat(store.agree(0, 1, 1, 2)).isFalse();
    assertThat(store).hasToString("RowStore[5 rows of 3 cells]");
  }

  /** Each character that may need quotes somewhere, and its neighbours. */
  @Test
  void whatMayNeedQuotesIsMarked() {
    for (char c = 1; c < 0x180; c++) {
      RowStore store = new RowStore(1);
      encode("k");
      store.add(new CellVector[] {column("a" + c)}, 0, keys);
      CellVector back = column();
      store.fetch(
          store.place(0), new CellVector[] {back}, new long[1], new @Nullable String[] {null});
      boolean special = c < ' ' || "\"',;|".indexOf(c) >= 0;
      assertThat(back.needsNoQuotes(0)).as("U+%04X", (int) c).isEqualTo(!special);
      assertThat(back.get(0)).isEqualTo("a" + c);
    }
  }

  /** Many rows, some larger than a page, with keys of each length, and after a journey. */
  @ParameterizedTest
  @ValueSource(ints = {0, 2})
  void manyRowsAreHeldInManyPages(int cells) throws IOException, ClassNotFoundException {
    Random random = new Random(cells);
    RowStore store = new RowStore(cells);
    HashIndex index = new HashIndex(store);
    List<String> all = new ArrayList<>();
    for (int row = 0; row < 40_000; row++) {
      String key = row + "k".repeat(random.nextInt(24));
      key = row % 9_999 == 5 ? key + "x".repeat(1_300_000) : key;
      encode(key);
      CellVector[] columns = cells == 0 ? new CellVector[0] : columns(row, key);
      store.add(columns, 0, keys);
      assertThat(index.add(keys, 0, row)).isEqualTo(HashIndex.ABSENT);
      all.add(key);
    }
    assertThat(store.bytes()).isBetween(40_000L * 12, 40_000_000L);
    assertThat(index.bytes()).isBetween(8L * 40_000 * 10 / 6, 8L * 40_000 * 4);
    check(store, index, all, cells);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ObjectOutputStream objects = new ObjectOutputStream(out)) {
      objects.writeObject(new Object[] {store, index});
    }
    try (ObjectInputStream objects =
        new ObjectInputStream(new ByteArrayInputStream(out.toByteArray()))) {
      Object[] back = (Object[]) objects.readObject();
      check((RowStore) back[0], (HashIndex) back[1], all, cells);
      encode("one more");
      ((RowStore) back[0]).add(cells == 0 ? new CellVector[0] : columns(0, "m"), 0, keys);
      assertThat(((RowStore) back[0]).rows()).isEqualTo(40_001);
    }
  }

  private static CellVector[] columns(int row, String key) {
    return new CellVector[] {column("c" + row), column(key)};
  }

  private void check(RowStore store, HashIndex index, List<String> all, int cells) {
    int[] found = new int[1];
    for (int row = 0; row < all.size(); row++) {
      encode(all.get(row));
      index.touch(keys, 0, 1);
      index.probe(keys, found);
      assertThat(found[0]).isEqualTo(store.place(row)).isEqualTo(index.find(keys, 0));
      assertThat(index.rowAt(found[0])).isEqualTo(row);
      if (cells > 0) {
        assertThat(store.get(row, 1)).isEqualTo(all.get(row));
        assertThat(store.get(row, 0)).isEqualTo("c" + row);
      }
    }
    encode("none");
    index.probe(keys, found);
    assertThat(found[0]).isEqualTo(HashIndex.ABSENT).isEqualTo(index.find(keys, 0));
  }

  @Test
  void roomMadeAheadChangesNothingButTheRoom() {
    HashIndex small = new HashIndex(new RowStore(0));
    long before = small.bytes();
    small.expect(38);
    assertThat(small.bytes()).isEqualTo(before);
    small.expect(39);
    assertThat(small.bytes()).as("64 slots hold 38 keys").isEqualTo(before + 8 * 64);
    RowStore store = new RowStore(0);
    HashIndex index = new HashIndex(store);
    index.expect(1_000);
    long room = index.bytes();
    for (int row = 0; row < 1_000; row++) {
      encode("k" + row);
      store.add(new CellVector[0], 0, keys);
      index.add(keys, 0, row);
    }
    assertThat(index.bytes()).isEqualTo(room);
    index.expect(1_000_000);
    assertThat(index.bytes()).as("too late").isEqualTo(room);
    assertThat(index).hasToString("HashIndex[1000 keys, 0 on several rows]");
    encode("k7");
    store.add(new CellVector[0], 0, keys);
    assertThat(index.add(keys, 0, 1_000)).isEqualTo(7);
    assertThat(index.rowAt(store.place(7))).as("the first row of its group").isEqualTo(7);
    assertThat(index.bytes()).isGreaterThan(8 * 1_024);
  }

  @Test
  void blankKeysAreNeverFound() {
    RowStore store = new RowStore(0);
    HashIndex index = new HashIndex(store);
    encode("k");
    store.add(new CellVector[0], 0, keys);
    index.add(keys, 0, 0);
    encode(" ");
    keys.hashes[0] = hashOf("k"); // meets a slot that is taken
    int[] found = {7};
    index.probe(keys, found);
    assertThat(found[0]).isEqualTo(HashIndex.ABSENT);
  }

  private int hashOf(String key) {
    EncodedKeys other = new EncodedKeys();
    encoder.encode(OneRow.of(key), other);
    return other.hashes[0];
  }

  @Test
  void setsAreNumberedOnce() {
    InternedSets sets = new InternedSets();
    assertThat(sets.of(new int[] {1, 2})).isZero();
    assertThat(sets.of(new int[] {1, 3})).isEqualTo(1);
    assertThat(sets.of(new int[] {1, 2})).isZero();
    assertThat(sets.of(new int[] {1, 2, 3})).isEqualTo(2);
    assertThat(sets.count()).isEqualTo(3);
    assertThat(sets.size(2)).isEqualTo(3);
    assertThat(sets.rows(1)).containsExactly(1, 3);
    assertThat(sets).hasToString("InternedSets[3]");
  }

  @Test
  void groupsGrowBeyondTheirFirstRoom() {
    KeyGroups groups = new KeyGroups();
    long first = groups.bytes();
    assertThat(first).isEqualTo(4L * 16 * 5);
    for (int group = 0; group < 40; group++) {
      assertThat(groups.open(10 * group, 10 * group + 1)).isEqualTo(group);
    }
    for (int group = 0; group < 40; group++) {
      groups.join(group, 10 * group + 2);
      assertThat(groups.rows(group)).containsExactly(10 * group, 10 * group + 1, 10 * group + 2);
      assertThat(groups.size(group)).isEqualTo(3);
      assertThat(groups.lastRow(group)).isEqualTo(10 * group + 2);
    }
    assertThat(groups.bytes()).isEqualTo(4L * (64 * 3 + 2 * 128));
    KeyGroups same = groups.inOrder(row -> row);
    assertThat(same.rows(39)).containsExactly(390, 391, 392);
    KeyGroups ties = groups.inOrder(row -> 7);
    assertThat(ties.rows(0)).as("as they were").containsExactly(0, 1, 2);
  }

  /** Two halves, merged, are the whole: keys of every length, nulls, none. */
  @ParameterizedTest
  @ValueSource(ints = {0, 1, 2, 3})
  void mergedGroupsAreThoseOfOne(int parts) {
    Random random = new Random(parts);
    GroupIndex whole = new GroupIndex(parts, 1);
    GroupIndex one = new GroupIndex(parts, 1);
    GroupIndex other = new GroupIndex(parts, 1);
    int rows = 2_500;
    for (int half = 0; half < 2; half++) {
      CellVector[] columns = new CellVector[parts];
      for (int part = 0; part < parts; part++) {
        @Nullable String[] cells = new @Nullable String[rows];
        Arrays.setAll(cells, row -> value(random));
        columns[part] = column(cells);
      }
      int[] into = new int[rows];
      whole.find(columns, rows, into);
      (half == 0 ? one : other).find(columns, rows, into);
    }
    GroupIndex fresh = new GroupIndex(parts, 1);
    for (int[] map : new int[][] {one.merge(other), fresh.merge(one)}) {
      assertThat(Arrays.stream(map).distinct().count()).isEqualTo(map.length);
    }
    int[] map = one.merge(other);
    for (int group = 0; group < other.groups(); group++) {
      assertThat(one.values(map[group])).isEqualTo(other.values(group));
    }
    assertThat(one.groups()).isEqualTo(whole.groups());
    for (int group = 0; group < whole.groups(); group++) {
      assertThat(one.values(group)).as("met in the same order").isEqualTo(whole.values(group));
      assertThat(fresh.values(Math.min(group, fresh.groups() - 1))).hasSize(parts);
    }
    assertThat(whole).hasToString("GroupIndex[" + whole.groups() + " groups]");
  }

  private static @Nullable String value(Random random) {
    return switch (random.nextInt(7)) {
      case 0 -> null;
      case 1 -> "x".repeat(random.nextInt(20));
      case 2 -> "é".repeat(random.nextInt(70)) + random.nextInt(3);
      case 3 -> "long ".repeat(30) + random.nextInt(90);
      default -> Integer.toString(random.nextInt(2_000));
    };
  }
}
