package org.abletwine.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.Pieced;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.Stored;

/**
 * Blocks that have come to a process, in any order: rows, keys and answers are kept on disk, and
 * read in the order in which they were sent. For one thread.
 */
public final class Blocks implements AutoCloseable {
  private final Spill spill;
  private final SpillFile file;
  private final Map<Address, List<Piece>> pieces = new HashMap<>();
  private final Map<Address, List<Block>> small = new HashMap<>();

  /** What blocks have in common that follow each other, but for whom they are from. */
  private record Address(Block.Kind kind, int round, int of, int to) {}

  /** A block on disk. */
  private record Piece(int from, int turn, long rows, long at, int length) {}

  /**
   * @param spill where they are kept
   */
  Blocks(Spill spill) {
    this.spill = spill;
    this.file = spill.file();
  }

  /**
   * Takes a block.
   *
   * @param block any
   */
  public void take(Block block) {
    Address address =
        new Address(
            block.kind(), block.round(), block.of(), block.kind().forAll() ? 0 : block.to());
    switch (block.kind()) {
      case REFERENCE, KEYS, ANSWERS -> {
        pieces
            .computeIfAbsent(address, any -> new ArrayList<>())
            .add(
                new Piece(
                    block.from(), block.turn(), block.rows(), file.size(), block.bytes().length));
        file.append(block.bytes(), block.bytes().length);
      }
      default -> small.computeIfAbsent(address, any -> new ArrayList<>()).add(block);
    }
  }

  /** The rows that have come for a part, or the answers for a range: from one, or from all. */
  private Stored stored(Address address, int from) {
    List<Piece> all =
        pieces.getOrDefault(address, List.of()).stream()
            .filter(piece -> from < 0 || piece.from == from)
            .sorted(Comparator.comparingInt(Piece::from).thenComparingInt(Piece::turn))
            .toList();
    Pieced bytes = new Pieced(file);
    all.forEach(piece -> bytes.add(piece.at, piece.length));
    return new Stored(bytes, all.stream().mapToLong(Piece::rows).sum());
  }

  /** Rows of a reference, in the order of the table. */
  Stored reference(int round, int of, int part) {
    return stored(new Address(Block.Kind.REFERENCE, round, of, part), -1);
  }

  /** The ranges that keys have come from for a part. */
  Set<Integer> ranges(int round, int part) {
    Set<Integer> ranges = new TreeSet<>();
    pieces
        .getOrDefault(new Address(Block.Kind.KEYS, round, 0, part), List.of())
        .forEach(piece -> ranges.add(piece.from));
    return ranges;
  }

  /** The keys of a range for a part, in the order of the rows. */
  Stored keys(int round, int part, int range) {
    return stored(new Address(Block.Kind.KEYS, round, 0, part), range);
  }

  /** The answers for a range, of each part in the order of the rows. */
  List<Pieced> answers(int round, int range) {
    Address address = new Address(Block.Kind.ANSWERS, round, 0, range);
    return pieces.getOrDefault(address, List.of()).stream()
        .map(Piece::from)
        .distinct()
        .map(part -> (Pieced) stored(address, part).bytes())
        .toList();
  }

  /** Other blocks, in the order of whom they are from. */
  List<Block> all(Block.Kind kind, int round, int of, int to) {
    return small
        .getOrDefault(new Address(kind, round, of, kind.forAll() ? 0 : to), List.of())
        .stream()
        .sorted(Comparator.comparingInt(Block::from))
        .toList();
  }

  /** Where more may be kept. */
  Spill spill() {
    return spill;
  }

  /** Lets all of them go. */
  @Override
  public void close() {
    spill.close();
  }

  @Override
  public String toString() {
    return "Blocks[" + file.size() + " bytes]";
  }
}
