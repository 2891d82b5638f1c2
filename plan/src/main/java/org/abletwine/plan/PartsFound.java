package org.abletwine.plan;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.spill.Stored;

/**
 * What was found by asking parts of references that processes divide among them, a file for each
 * part beside the outputs: for the one that puts all together.
 *
 * @param beside where the files are
 * @param output an output, for messages
 * @param inputs where it is noted how many rows a table has
 */
record PartsFound(PlanParts beside, Path output, InputTables inputs) {

  /**
   * Notes what was found by asking a part of references.
   *
   * @param rows the rows of those that are divided, by number
   * @param found what was found
   */
  void write(int round, int part, Map<Integer, Stored> rows, byte[] found) {
    Path noted = beside.found(round, part);
    Path begun = noted.resolveSibling(noted.getFileName() + "." + System.nanoTime());
    try {
      try (DataOutputStream into =
          new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(begun)))) {
        into.writeInt(rows.size());
        for (Map.Entry<Integer, Stored> one : rows.entrySet()) {
          into.writeInt(one.getKey());
          into.writeLong(one.getValue().rows());
        }
        into.write(found);
      }
      Files.move(begun, noted, StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException e) {
      throw new DataException(
          "cannot write what is found beside " + output + ": " + e.getMessage(), e);
    }
  }

  /** What was found by asking a part of references. */
  byte[] read(int round, int part) {
    try (DataInputStream in = foundIn(round, part)) {
      rowsOf(in, (reference, rows) -> {});
      return in.readAllBytes();
    } catch (IOException e) {
      throw lost(part, e);
    }
  }

  /**
   * Notes how many rows references have that were divided: as many as all their parts together.
   *
   * @param references all references of the lookup
   */
  void noteRows(int round, int parts, List<Table> references) {
    long[] sums = new long[references.size()];
    boolean[] divided = new boolean[sums.length];
    for (int part = 0; part < parts; part++) {
      try (DataInputStream in = foundIn(round, part)) {
        rowsOf(
            in,
            (reference, rows) -> {
              sums[reference] += rows;
              divided[reference] = true;
            });
      } catch (IOException e) {
        throw lost(part, e);
      }
    }
    for (int reference = 0; reference < sums.length; reference++) {
      if (divided[reference]) {
        inputs.note(references.get(reference), sums[reference]);
      }
    }
  }

  private interface RowsOf {
    void take(int reference, long rows);
  }

  private static void rowsOf(DataInputStream in, RowsOf taker) throws IOException {
    for (int count = in.readInt(); count > 0; count--) {
      taker.take(in.readInt(), in.readLong());
    }
  }

  private DataInputStream foundIn(int round, int part) throws IOException {
    return new DataInputStream(
        new BufferedInputStream(Files.newInputStream(beside.found(round, part))));
  }

  private static DataException lost(int part, IOException e) {
    return new DataException(
        "what was found in part " + (part + 1) + " cannot be read: " + e.getMessage(), e);
  }
}
