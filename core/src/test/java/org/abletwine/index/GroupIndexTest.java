package org.abletwine.index;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.RowBytes;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Groups against a map of lists. */
class GroupIndexTest {
  private static @Nullable String value(Random random) {
    return switch (random.nextInt(9)) {
      case 0 -> null;
      case 1 -> "";
      case 2 -> "é" + random.nextInt(30);
      case 3 -> "x".repeat(random.nextInt(40));
      case 4 -> "long ".repeat(30) + random.nextInt(20);
      case 5 -> "\uD83C\uDF3E" + random.nextInt(5);
      case 6 -> "\uFF21" + random.nextInt(5);
      default -> Integer.toString(random.nextInt(4_000));
    };
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3})
  void groupsAreThoseOfAMap(int parts) {
    Random random = new Random(parts);
    GroupIndex index = new GroupIndex(parts, 1);
    Map<List<@Nullable String>, Integer> expected = new HashMap<>();
    Map<List<@Nullable String>, Long> counts = new HashMap<>();
    List<List<@Nullable String>> order = new ArrayList<>();
    for (int round = 0; round < 12; round++) {
      Batch batch = new Batch(parts);
      batch.clear(1, '\0');
      List<List<@Nullable String>> rows = new ArrayList<>();
      for (int row = 0; row < 900; row++) {
        @Nullable String[] cells = new @Nullable String[parts];
        Arrays.setAll(cells, part -> value(random));
        for (String cell : cells) {
          batch.addCell(cell);
        }
        batch.endRow(Batch.ALTERED);
        rows.add(Arrays.asList(cells));
      }
      int[] groups = new int[rows.size()];
      index.find(columns(batch, parts, round % 2 == 0), rows.size(), groups);
      for (int row = 0; row < rows.size(); row++) {
        List<@Nullable String> key = rows.get(row);
        if (!expected.containsKey(key)) {
          expected.put(key, order.size());
          order.add(key);
        }
        assertThat(groups[row]).isEqualTo(expected.get(key));
        index.records()[index.counters(groups[row])]++;
        counts.merge(key, 1L, Long::sum);
      }
    }
    assertThat(index.groups()).isEqualTo(order.size());
    for (int group = 0; group < index.groups(); group++) {
      List<@Nullable String> key = Arrays.asList(index.values(group));
      assertThat(key).isEqualTo(order.get(group));
      assertThat(index.records()[index.counters(group)]).isEqualTo(counts.get(key));
    }
    List<List<@Nullable String>> sorted = new ArrayList<>(order);
    sorted.sort(GroupIndexTest::byValues);
    List<List<@Nullable String>> found = new ArrayList<>();
    for (int group : index.sorted()) {
      found.add(Arrays.asList(index.values(group)));
    }
    assertThat(found).isEqualTo(sorted);
  }

  /** Counts rows by group; returns their number of each. */
  private static Map<List<@Nullable String>, Long> count(
      GroupIndex index, int parts, int rows, Random random) {
    Batch batch = new Batch(parts);
    batch.clear(1, '\0');
    Map<List<@Nullable String>, Long> counts = new HashMap<>();
    for (int row = 0; row < rows; row++) {
      @Nullable String[] cells = new @Nullable String[parts];
      Arrays.setAll(cells, part -> value(random));
      for (String cell : cells) {
        batch.addCell(cell);
      }
      batch.endRow(Batch.ALTERED);
      counts.merge(Arrays.asList(cells), 1L, Long::sum);
    }
    int[] groups = new int[rows];
    index.find(columns(batch, parts, false), rows, groups);
    for (int group : groups) {
      index.records()[index.counters(group)]++;
    }
    return counts;
  }

  private static Map<List<@Nullable String>, Long> counts(GroupIndex index) {
    Map<List<@Nullable String>, Long> counts = new HashMap<>();
    for (int group = 0; group < index.groups(); group++) {
      long count = index.records()[index.counters(group)];
      assertThat(counts.put(Arrays.asList(index.values(group)), count)).isNull();
    }
    return counts;
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3})
  void groupsOfOthersAreAddedToThoseThereAre(int parts) {
    Random random = new Random(parts);
    GroupIndex index = new GroupIndex(parts, 1);
    Map<List<@Nullable String>, Long> expected = new HashMap<>();
    for (int others = 0; others < 4; others++) {
      GroupIndex other = new GroupIndex(parts, 1);
      count(other, parts, 1_500, random)
          .forEach((key, rows) -> expected.merge(key, rows, Long::sum));
      int[] here = index.merge(other);
      assertThat(here).hasSize(other.groups());
      for (int group = 0; group < here.length; group++) {
        assertThat(index.values(here[group])).isEqualTo(other.values(group));
        index.records()[index.counters(here[group])] += other.records()[other.counters(group)];
      }
    }
    count(index, parts, 900, random).forEach((key, rows) -> expected.merge(key, rows, Long::sum));
    assertThat(counts(index)).isEqualTo(expected);
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 40, 1_500})
  void groupsAreCarriedToAnotherProcess(int rows) {
    Random random = new Random(rows);
    GroupIndex index = new GroupIndex(2, 1);
    Map<List<@Nullable String>, Long> expected = count(index, 2, rows, random);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    index.carry(Carrier.to(new DataOutputStream(bytes)));
    assertThat(counts(index)).as("what is carried stays").isEqualTo(expected);
    GroupIndex there = new GroupIndex(2, 1);
    there.carry(Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes.toByteArray()))));
    assertThat(counts(there)).isEqualTo(expected);
    assertThat(there.sorted()).isEqualTo(index.sorted());
    count(there, 2, 700, random).forEach((key, more) -> expected.merge(key, more, Long::sum));
    assertThat(counts(there)).as("found and added to").isEqualTo(expected);
  }

  @Test
  void groupsHaveKeysOfTheirOwnAndAreForgotten() {
    Random random = new Random(5);
    GroupIndex index = new GroupIndex(2, 1);
    assertThat(index.bytes()).isZero();
    for (int round = 0; round < 3; round++) {
      Map<List<@Nullable String>, Long> expected = count(index, 2, 1_200, random);
      assertThat(counts(index)).isEqualTo(expected);
      long longKeys = 0;
      RowBytes key = new RowBytes();
      for (int group = 0; group < index.groups(); group++) {
        int length = index.key(group, key);
        assertThat(key.used()).isEqualTo(length);
        assertThat(GroupKeys.values(key.bytes(), 0, 2)).isEqualTo(index.values(group));
        longKeys += length > 16 ? length : 0;
      }
      // of a group three words for its key, its counter, and two slots
      assertThat(index.bytes()).isEqualTo(40L * index.groups() + longKeys);
      index.clear();
      assertThat(index.groups()).isZero();
      assertThat(index.bytes()).isZero();
    }
  }

  /** Columns as a batch has them, or held as bytes the way fetched columns are. */
  private static CellVector[] columns(Batch batch, int parts, boolean narrow) {
    CellVector[] columns = new CellVector[parts];
    for (int part = 0; part < parts; part++) {
      columns[part] = batch.column(part);
      if (narrow) {
        CellVector copy = new CellVector();
        copy.clear();
        for (int row = 0; row < batch.rows(); row++) {
          copy.append(columns[part].get(row));
        }
        columns[part] = copy;
      }
    }
    return columns;
  }

  /** By code point, part by part, nulls last. */
  private static int byValues(List<@Nullable String> one, List<@Nullable String> other) {
    Comparator<int[]> points = Arrays::compare;
    for (int part = 0; part < one.size(); part++) {
      String a = one.get(part);
      String b = other.get(part);
      int order =
          a == null || b == null
              ? Boolean.compare(a == null, b == null)
              : points.compare(a.codePoints().toArray(), b.codePoints().toArray());
      if (order != 0) {
        return order;
      }
    }
    return 0;
  }

  @Test
  void nullIsNotEmptyAndPartsDoNotRunIntoEachOther() {
    Batch batch = new Batch(2);
    batch.clear(1, '\0');
    String[][] rows = {{"ab", "c"}, {"a", "bc"}, {null, "c"}, {"", "c"}, {"c", null}, {"c", ""}};
    for (String[] row : rows) {
      batch.addCell(row[0]);
      batch.addCell(row[1]);
      batch.endRow(Batch.ALTERED);
    }
    int[] groups = new int[rows.length];
    new GroupIndex(2, 1).find(columns(batch, 2, false), rows.length, groups);
    assertThat(groups).containsExactly(0, 1, 2, 3, 4, 5);
  }

  @Test
  void withoutColumnsThereIsOneGroup() {
    GroupIndex index = new GroupIndex(0, 1);
    int[] groups = {7, 7, 7};
    index.find(new CellVector[0], 3, groups);
    assertThat(groups).containsOnly(0);
    assertThat(index.values(0)).isEmpty();
    assertThat(index.sorted()).containsExactly(0);
  }

  @Test
  void groupsOfRowsCanBePutInOrder() {
    KeyGroups groups = new KeyGroups();
    int a = groups.open(5, 2);
    groups.join(a, 9);
    groups.open(0, 7);
    KeyGroups ordered = groups.inOrder(row -> 10 - row);
    assertThat(ordered.count()).isEqualTo(2);
    assertThat(ordered.rows(0)).containsExactly(9, 5, 2);
    assertThat(ordered.rows(1)).containsExactly(7, 0);
    assertThat(ordered.firstRow(0)).isEqualTo(9);
    assertThat(ordered.lastRow(1)).isZero();
    assertThat(Objects.toString(ordered)).contains("2");
  }
}
