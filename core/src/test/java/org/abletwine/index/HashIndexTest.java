package org.abletwine.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.abletwine.key.Normalise;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class HashIndexTest {

  /** Whatever their hashes, keys are told apart: by one for all, and by a few of them. */
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 16})
  void keysOfOneHashAreNotTakenForEachOther(int hashes) {
    Batch batch = new Batch(1);
    batch.clear(1, ',');
    int count = 300;
    for (int row = 0; row < count; row++) {
      batch.addCell("k".repeat(row % 23) + row);
      batch.endRow();
    }
    EncodedKeys keys = new EncodedKeys();
    new KeyEncoder(new int[] {0}, List.of(List.of())).encode(batch, keys);
    for (int row = 0; row < count; row++) {
      keys.hashes[row] = row % hashes * 64; // some of them side by side in the table, too
    }
    RowStore store = new RowStore(0);
    HashIndex index = new HashIndex(store);
    for (int row = 0; row < count; row += 2) {
      store.add(new CellVector[0], row, keys);
      assertThat(index.add(keys, row, row / 2)).isEqualTo(HashIndex.ABSENT);
    }
    int[] found = new int[count];
    index.probe(keys, found);
    for (int row = 0; row < count; row++) {
      assertThat(index.find(keys, row)).isEqualTo(found[row]);
      if (row % 2 == 1) {
        assertThat(found[row]).isEqualTo(HashIndex.ABSENT);
      } else {
        assertThat(index.rowAt(found[row])).isEqualTo(row / 2);
      }
    }
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 50, 5_000, 60_000})
  void findsEveryKeyAndNoOther(int rows) {
    Random random = new Random(rows);
    Map<String, List<Integer>> expected = new HashMap<>();
    RowStore store = new RowStore(1);
    HashIndex index = new HashIndex(store);
    KeyEncoder encoder = new KeyEncoder(new int[] {0}, List.of(List.of(Normalise.trim())));
    EncodedKeys keys = new EncodedKeys();
    for (int row = 0; row < rows; row++) {
      String key =
          "k".repeat(random.nextInt(20)) + random.nextInt(rows) + (row % 7 == 0 ? "ж" : "");
      Batch batch = OneRow.of(key);
      encoder.encode(batch, keys);
      store.add(new CellVector[] {batch.column(0)}, 0, keys);
      int first = index.add(keys, 0, row);
      List<Integer> known = expected.computeIfAbsent(key, k -> new ArrayList<>());
      assertThat(first).isEqualTo(known.isEmpty() ? HashIndex.ABSENT : known.get(0));
      known.add(row);
    }
    assertThat(index.keys()).isEqualTo(expected.size());
    int[] found = new int[1];
    expected.forEach(
        (key, held) -> {
          encoder.encode(OneRow.of(key), keys);
          index.probe(keys, found);
          if (held.size() == 1) {
            assertThat(index.rowAt(found[0])).isEqualTo(held.get(0));
          } else {
            int[] group = index.groups().rows(~found[0]);
            assertThat(group).containsExactly(held.stream().mapToInt(i -> i).toArray());
            assertThat(index.groups().size(~found[0])).isEqualTo(held.size());
            assertThat(index.groups().lastRow(~found[0])).isEqualTo(held.get(held.size() - 1));
          }
          assertThat(store.get(held.get(0), 0)).isEqualTo(key);
        });
    for (int i = 0; i < 1000; i++) {
      encoder.encode(OneRow.of("none" + i), keys);
      index.probe(keys, found);
      assertThat(found[0]).isEqualTo(HashIndex.ABSENT);
    }
  }
}
