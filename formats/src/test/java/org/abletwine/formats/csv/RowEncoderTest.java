package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Rows leave as their cells joined, however source columns, text and numbers stand side by side,
 * and however often the buffer has to grow in the middle of them.
 */
class RowEncoderTest {
  private static final int ROWS = 400;
  private static final int BASE = 4;

  private final List<List<String>> leaving = new ArrayList<>();
  private final Random random = new Random(4);

  private static String quoted(String cell, char delimiter) {
    boolean needs = cell.chars().anyMatch(c -> c == delimiter || c == '"' || c == '\n');
    return needs || cell.isEmpty() ? '"' + cell.replace("\"", "\"\"") + '"' : cell;
  }

  private @Nullable String cell() {
    return switch (random.nextInt(8)) {
      case 0 -> null;
      case 1 -> "say \"so\"";
      case 2 -> "one,two;three";
      case 3 -> "w".repeat(random.nextInt(400));
      case 4 -> "-1.5";
      default -> "w" + random.nextInt(1000);
    };
  }

  private static String out(@Nullable String cell, char delimiter) {
    return cell == null ? "" : quoted(cell, delimiter);
  }

  private void addBase(Batch batch) {
    for (int row = 0; row < ROWS; row++) {
      for (int column = 0; column < BASE; column++) {
        String cell = "b" + random.nextInt(100_000);
        byte[] bytes = Utf8.bytes(cell + (column < BASE - 1 ? "," : "\n"));
        int start = batch.used();
        System.arraycopy(bytes, 0, batch.room(bytes.length), start, bytes.length);
        batch.took(bytes.length);
        batch.addSlice(start, start + bytes.length - 1, 0);
        leaving.get(column).add(cell);
      }
      batch.endRow(0);
    }
  }

  private void addText(CellVector added, List<String> as, char delimiter) {
    for (int row = 0; row < ROWS; row++) {
      String cell = cell();
      added.append(cell);
      as.add(out(cell, delimiter));
    }
  }

  private void addNumbers(CellVector added, List<String> as, char delimiter) {
    boolean[] known = new boolean[ROWS];
    long[] digits = new long[ROWS];
    byte[] places = new byte[ROWS];
    for (int row = 0; row < ROWS; row++) {
      known[row] = random.nextInt(10) > 0;
      digits[row] = random.nextLong() >> random.nextInt(64);
      places[row] = (byte) random.nextInt(19);
      String text = BigDecimal.valueOf(digits[row], places[row]).toPlainString();
      as.add(known[row] ? quoted(text, delimiter) : "");
    }
    added.takeNumbers(known, digits, places, ROWS);
  }

  @ParameterizedTest
  @ValueSource(chars = {',', ';', '.', '-'})
  void rowsLeaveAsTheirCells(char delimiter) {
    for (int round = 0; round < 12; round++) {
      RowEncoder encoder = new RowEncoder(delimiter, '"', "\r\n", null);
      StringBuilder expected = new StringBuilder();
      leaving.clear();
      Batch batch = new Batch(BASE);
      batch.clear(1, ',');
      for (int column = 0; column < BASE; column++) {
        leaving.add(new ArrayList<>());
      }
      addBase(batch);
      int added = 20 + random.nextInt(30);
      for (int column = 0; column < added; column++) {
        List<String> as = new ArrayList<>();
        leaving.add(as);
        if (round % 2 == 0 && random.nextInt(3) == 0) {
          addText(batch.addColumn(), as, delimiter);
        } else {
          addNumbers(batch.addColumn(), as, delimiter);
        }
      }
      int first = round % 2 == 0 ? 0 : BASE; // of numbers alone in every second round
      int[] columns = random.ints(20 + random.nextInt(40), first, BASE + added).toArray();
      int[] rows = random.ints(ROWS, 0, ROWS).toArray();
      encoder.add(batch, rows, ROWS, columns);
      for (int row : rows) {
        for (int i = 0; i < columns.length; i++) {
          expected.append(i == 0 ? "" : delimiter).append(leaving.get(columns[i]).get(row));
        }
        expected.append("\r\n");
      }
      StringBuilder text = new StringBuilder();
      encoder.take(
          (bytes, length) -> text.append(new String(bytes, 0, length, StandardCharsets.UTF_8)));
      assertThat(text.toString().lines().toList()).isEqualTo(expected.toString().lines().toList());
    }
  }
}
