package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.concurrent.atomic.LongAdder;
import org.abletwine.compute.Expression;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.lookup.LoadedReference.Collisions;
import org.abletwine.lookup.LoadedReference.LeftOutDuplicate;
import org.abletwine.lookup.rows.DuplicateRows;
import org.abletwine.lookup.rows.Newest;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.lookup.rows.ValuesCompared;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/** Reads a reference once and builds what a lookup needs of it. */
final class ReferenceLoader {
  private static final CellVector[] NO_CELLS = {};
  private static final long MEGA = 1_000_000;

  /** Bytes that there must be for each row that room is made for ahead. */
  private static final int ROOM_AHEAD = 64;

  /** How many times what was read a reference is taken to be whose size is not known. */
  private static final int UNKNOWN = 16;

  private final Lookup lookup;

  /** How much may be in memory; null for any amount. */
  private final @Nullable Spill spill;

  private boolean tooLarge;

  /** Whether this is a part of a reference: what fails first is then decided among all parts. */
  private final boolean ofPart;

  /** How far loading has come, for an order of what fails. */
  private int stage;

  private final Refused refused = new Refused();
  private final KeyLayout layout;
  private final KeptColumns kept;
  private final List<Integer> keyColumns;
  private final RowStore rows;
  private final FinderBuilder finder;
  private final OrderedCells ordered;
  private final BitSet unreadable = new BitSet();
  private final RowStore leftOutStore = new RowStore(0);
  private final FinderBuilder leftOut;
  private final RowNumbers numbers = new RowNumbers();
  private final @Nullable Expression condition;
  private final @Nullable WholeKeys wholeKeys;
  private final LongAdder done = new LongAdder();
  private long leftOutRows;
  private long blankKeys;

  private ReferenceLoader(
      Lookup lookup, @Nullable Spill spill, LargeReference.@Nullable Values values) {
    this.lookup = lookup;
    this.ofPart = values != null;
    // Without an equal part there is nothing to divide the rows by.
    this.spill = KeyLayout.of(lookup).equal().length == 0 ? null : spill;
    lookup.reference.readAgain(); // another step may need something else of it
    condition = lookup.where == null ? null : lookup.where.start();
    Schema schema = lookup.reference.schema();
    layout = KeyLayout.of(lookup);
    kept = new KeptColumns(lookup, layout);
    ordered = new OrderedCells(lookup, kept);
    keyColumns = layout.theirs(lookup).stream().map(schema::indexOf).toList();
    rows = new RowStore(kept.cells());
    finder =
        new FinderBuilder(lookup, layout, rows, numbers, values == null ? null : values.kept());
    leftOut =
        new FinderBuilder(
            lookup, layout, leftOutStore, numbers, values == null ? null : values.leftOut());
    boolean whole = layout.ruled() && lookup.duplicates.rule() != Duplicates.Rule.KEEP;
    wholeKeys = whole ? new WholeKeys() : null;
  }

  /**
   * Loads a reference into memory, however large.
   *
   * @param workers how many threads read it
   */
  static LoadedReference load(Lookup lookup, Progress progress, int workers) {
    ReferenceLoader loader = new ReferenceLoader(lookup, null, null);
    LoadedReference loaded = (LoadedReference) loader.read(progress, workers);
    loader.refused.throwIfAny();
    return loaded;
  }

  /**
   * Divides a reference, whether it fits in memory or not.
   *
   * @param parts into how many parts
   * @param spill where these go
   */
  static LargeReference divide(
      Lookup lookup, int parts, Spill spill, Progress progress, int workers) {
    return LargeReference.of(lookup, looked(lookup), parts, spill, progress, workers);
  }

  /** The columns of a reference that anything here looks at. */
  static BitSet looked(Lookup lookup) {
    return new ReferenceLoader(lookup, null, null).looked();
  }

  /**
   * A part of a reference, and what is known only of all parts together.
   *
   * @param loaded the part; null when a row stops it
   */
  record Part(@Nullable LoadedReference loaded, Refused refused) {}

  /**
   * A part of a reference, loaded; all of one that is in memory.
   *
   * @param of whose reference it is
   * @param part which part
   */
  static Part part(Lookup of, Held held, int part, int workers) {
    return held instanceof LargeReference large
        ? loadPart(of.over(large.parts().get(part)), large.values(), workers)
        : new Part((LoadedReference) held, new Refused());
  }

  /** Loads a part of a divided reference: what it does not allow is told of all parts together. */
  static Part loadPart(Lookup lookup, LargeReference.Values values, int workers) {
    ReferenceLoader loader = new ReferenceLoader(lookup, null, values);
    try {
      LoadedReference loaded = (LoadedReference) loader.read(Progress.NONE, workers);
      return new Part(loaded, loader.refused);
    } catch (DataException e) {
      loader.refused.stopped(loader.stage, e);
      return new Part(null, loader.refused);
    }
  }

  /**
   * Loads a reference into memory, or divides it into parts on disk where it does not fit. One that
   * is looked up by a rule is loaded however large: its rows are in order only together.
   *
   * @param spill how much may be in memory
   * @param workers how many threads read it
   */
  static Held load(Lookup lookup, Spill spill, Progress progress, int workers) {
    ReferenceLoader loader = new ReferenceLoader(lookup, spill, null);
    Held held = loader.read(progress, workers);
    loader.refused.throwIfAny();
    return held;
  }

  /** The columns that anything here looks at. */
  private BitSet looked() {
    BitSet looked = kept.looked();
    keyColumns.forEach(looked::set);
    if (condition != null) {
      Schema schema = lookup.reference.schema();
      condition.inputs().forEach(column -> looked.set(schema.indexOf(column)));
    }
    return looked;
  }

  private Held read(Progress progress, int workers) {
    Table table = lookup.reference;
    long needed = 0;
    try (Pieces pieces = BatchTable.of(table).pieces(table.schema().size(), null, looked())) {
      Runnable ended = progress.reading(table, pieces::bytesRead, done::sum);
      try {
        Workers.run(pieces, workers, true, Reading::new);
        needed = needed(pieces.bytesRead());
      } catch (OutOfMemoryError e) {
        throw notEnoughMemory(pieces.bytesRead(), e);
      } finally {
        ended.run();
      }
    }
    Spill limit = spill;
    if (limit != null && tooLarge) {
      int parts = limit.partsFor(needed);
      return LargeReference.of(lookup, looked(), parts, limit, progress, workers);
    }
    LoadedReference loaded = finish();
    if (limit != null) {
      limit.hold(loaded.bytes());
    }
    return loaded;
  }

  /** About how many bytes the whole reference takes, going by what was read of it. */
  private long needed(long read) {
    long size = lookup.reference.sizeInBytes();
    double times = size > read && read > 0 ? (double) size / read : size < 0 ? UNKNOWN : 1;
    return (long) (times * (rows.bytes() + finder.bytes()));
  }

  /**
   * One worker's part: parses rows and makes their keys, and adds them when it is their turn. So
   * the store and the indexes have the rows in the order of the file, and one thread at a time.
   */
  private final class Reading implements Workers.Worker {
    private final EncodedKeys keys = new EncodedKeys();
    private final KeyEncoder encoder;
    private final RuleValues values;
    private final @Nullable Expression where;
    private final @Nullable KeyEncoder wholeEncoder;
    private final EncodedKeys whole = new EncodedKeys();
    private CellVector[] cells = NO_CELLS;
    private @Nullable Batch batch;

    Reading() {
      int equal = layout.equal().length;
      encoder =
          new KeyEncoder(
              keyColumns.subList(0, equal).stream().mapToInt(Integer::intValue).toArray(),
              layout.equalSteps(lookup));
      values =
          new RuleValues(lookup, layout, keyColumns.stream().mapToInt(Integer::intValue).toArray());
      where = condition == null ? null : condition.another();
      wholeEncoder = wholeKeys == null ? null : wholeKeys.encoder(lookup, keyColumns, layout);
    }

    @Override
    public void work(Batch read) {
      batch = read;
      encoder.encode(read, keys);
      values.take(read);
      if (wholeEncoder != null) {
        wholeEncoder.encode(read, whole);
      }
      Expression filter = where;
      if (filter != null) {
        filter.over(read);
      }
      cells = kept.of(read, row -> filter == null || filter.isTrue(row));
    }

    @Override
    public boolean inOrder() {
      Batch read = batch;
      batch = null;
      if (read == null) {
        return true; // a piece without rows
      }
      if (rows.rows() == 0) {
        long count = lookup.reference.sizeInBytes() / Math.max(1, read.used() / read.rows());
        finder.expect(spill == null ? count : Math.min(count, spill.left() / ROOM_AHEAD));
      }
      for (int row = 0; row < read.rows(); row++) {
        if (where != null && !where.isTrue(row)) {
          leftOutRows++;
          leftOutStore.add(NO_CELLS, row, keys);
          leftOut.add(keys, values.cells, row, leftOutStore.rows() - 1);
          continue;
        }
        int number = rows.rows();
        rows.add(cells, row, keys);
        numbers.add(read.rowNumber(row));
        boolean readable = ordered.readable(cells, row);
        boolean findable = readable && finder.add(keys, values.cells, row, number);
        blankKeys += findable || !readable ? 0 : 1;
        if (!readable) {
          unreadable.set(number);
        }
        if (wholeKeys != null) {
          wholeKeys.add(whole, row, findable);
        }
      }
      done.add(read.rows());
      tooLarge = spill != null && rows.bytes() + finder.bytes() > spill.left();
      return !tooLarge;
    }
  }

  /** Says how much the reference would take, going by what the part read so far has. */
  private DataException notEnoughMemory(long read, OutOfMemoryError cause) {
    long most = Runtime.getRuntime().maxMemory() / MEGA;
    long size = lookup.reference.sizeInBytes();
    long needed = read > 0 && size > read ? (long) (1.2 * most * size / read) : 2 * most;
    return new DataException(
        "not enough memory: "
            + lookup.reference.name()
            + " needs about "
            + needed
            + " MB, this run has "
            + most
            + " MB; give more with -Xmx"
            + (needed / 1000 + 1)
            + "g (for the command line: ABLE_TWINE_JAVA_OPTIONS), bring fewer columns, or leave out"
            + " rows with where:",
        cause);
  }

  private LoadedReference finish() {
    List<LeftOutDuplicate> dropped = new ArrayList<>();
    if (lookup.leavesOutUnreadable) {
      unreadable.or(finder.unreadable());
      finder.leaveOut(unreadable);
    }
    stage++;
    if (wholeKeys != null) {
      BitSet out = new BitSet();
      int[] stays = stays(wholeKeys.index());
      note(wholeKeys.index(), stays, dropped);
      dropped.forEach(duplicate -> out.set(duplicate.row()));
      finder.leaveOut(out);
    }
    long read = rows.rows();
    stage++;
    if (ofPart) {
      finder.requireOrder();
      stage++;
    }
    Finder built = finder.build();
    stage++;
    // Which rows fit one key by a rule is found out only while looking.
    Newest newest =
        newest(lookup.several.column(), kept.newestCell(), layout.ruled() ? null : built.sets());
    stage++;
    Choices choices =
        new Choices(
            built,
            rows,
            numbers,
            lookup.several.rule(),
            newest,
            kept.plain(),
            kept.aggregates(),
            kept.cells());
    stage++;
    if (!layout.ruled() && lookup.duplicates.rule() != Duplicates.Rule.KEEP) {
      int[] stays = stays(built.index());
      note(built.index(), stays, dropped);
      choices.stay(stays);
    }
    Collisions collisions =
        Collisions.of(
            built,
            rows,
            numbers,
            kept.brought(),
            Arrays.copyOf(layout.hidden(lookup), layout.equal().length));
    return new LoadedReference(
        lookup.reference.name(),
        rows,
        built,
        numbers,
        choices,
        read,
        blankKeys,
        leftOut.buildOfUsable(),
        leftOutRows,
        List.copyOf(dropped),
        unreadable.stream().toArray(),
        collisions.count(),
        collisions.examples(),
        rows.bytes() + built.index().bytes());
  }

  /**
   * What finds the newest row by a column.
   *
   * @param decides the column; null where no rule asks for it
   * @param cell its cell in the rows
   * @param sets those that may be compared with each other; null for all rows
   */
  private @Nullable Newest newest(@Nullable String decides, int cell, @Nullable RowSets sets) {
    if (decides == null) {
      return null;
    }
    ValuesCompared.Place place =
        new ValuesCompared.Place(lookup.reference.name(), decides, lookup.hides(decides));
    ValuesCompared values = new ValuesCompared(place, lookup.reference.type(decides));
    Newest newest = Newest.by(rows, cell, sets, unreadable, numbers, values);
    refused.compared(stage, values);
    values.throwIfAny();
    return newest;
  }

  private int[] stays(HashIndex index) {
    DuplicateRows.Chosen chosen =
        new DuplicateRows(
                lookup.duplicates,
                rows,
                index.groups(),
                newest(lookup.duplicates.column(), kept.duplicatesCell(), index.groups()),
                numbers,
                layout.hidden(lookup)[0])
            .chosen(lookup.reference.name(), kept.tableCells(), kept.cells(), kept.brought());
    refused.keys(chosen.failures());
    return chosen.stays();
  }

  private static void note(HashIndex index, int[] stays, List<LeftOutDuplicate> dropped) {
    for (int group = 0; group < stays.length; group++) {
      int[] rows = index.groups().rows(group);
      for (int row : rows) {
        if (row != stays[group]) {
          dropped.add(new LeftOutDuplicate(row, stays[group], rows[1]));
        }
      }
    }
  }

  /** The keys with the values of their rule, for rules for duplicates of a lookup with a rule. */
  private static final class WholeKeys {
    private static final CellVector[] NO_CELLS = {};

    private final RowStore store = new RowStore(0);
    private final HashIndex index = new HashIndex(store);

    KeyEncoder encoder(Lookup lookup, List<Integer> columns, KeyLayout layout) {
      List<List<NormaliseStep>> steps = new ArrayList<>(layout.equalSteps(lookup));
      for (int rule : layout.rules()) {
        KeyPart part = lookup.key.get(rule);
        for (int v = part.theirsTo() == null ? 1 : 2; v > 0; v--) {
          steps.add(KeyLayout.stepsOf(lookup, part, false));
        }
      }
      return new KeyEncoder(columns.stream().mapToInt(Integer::intValue).toArray(), steps);
    }

    /**
     * Adds a row; every row of the reference's store is added, so the numbers agree. One that no
     * key can find is nobody's duplicate.
     */
    void add(EncodedKeys keys, int row, boolean findable) {
      store.add(NO_CELLS, row, keys);
      if (findable) {
        index.add(keys, row, store.rows() - 1);
      }
    }

    HashIndex index() {
      return index;
    }
  }
}
