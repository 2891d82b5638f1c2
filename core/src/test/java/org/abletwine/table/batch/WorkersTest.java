package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.abletwine.MemoryTable;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Pieces worked on by several threads and put out in turn. */
@Timeout(60)
class WorkersTest {
  private static final int ROWS = 400;

  private static MemoryTable numbers() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < ROWS; row++) {
      rows.add(new String[] {"" + row});
    }
    return new MemoryTable("numbers", List.of("n"), rows, 3);
  }

  /** Collects what it has worked on, and puts it out in order. */
  private static class Collecting implements Workers.Worker {
    private final List<String> out;
    private final List<String> own = new ArrayList<>();
    private final AtomicInteger within;
    private final Random random = new Random(5);

    Collecting(List<String> out, AtomicInteger within) {
      this.out = out;
      this.within = within;
    }

    void row(String number) {}

    @Override
    public void work(Batch batch) {
      for (int row = 0; row < batch.rows(); row++) {
        String number = String.valueOf(batch.column(0).get(row));
        row(number);
        own.add(number);
      }
      if (random.nextInt(8) == 0) {
        pause();
      }
    }

    private static void pause() {
      try {
        Thread.sleep(1);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
    }

    @Override
    public boolean inOrder() {
      assertThat(within.incrementAndGet()).as("one at a time").isEqualTo(1);
      out.addAll(own);
      own.clear();
      within.decrementAndGet();
      return true;
    }
  }

  private static List<String> upTo(int end) {
    List<String> all = new ArrayList<>();
    for (int row = 0; row < end; row++) {
      all.add("" + row);
    }
    return all;
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 8, 40})
  void whatIsPutOutIsInOrder(int count) {
    List<String> out = new ArrayList<>();
    AtomicInteger within = new AtomicInteger();
    try (Pieces pieces = numbers().pieces(1, null)) {
      Workers.run(pieces, count, count % 2 == 0, () -> new Collecting(out, within));
    }
    assertThat(out).isEqualTo(upTo(ROWS));
  }

  /** Of several failures that of the first row is told, and nothing behind it is put out. */
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 8})
  void theFailureOfTheFirstRowIsTold(int count) {
    for (int round = 0; round < 20; round++) {
      List<String> out = new ArrayList<>();
      AtomicInteger within = new AtomicInteger();
      try (Pieces pieces = numbers().pieces(1, null)) {
        assertThatThrownBy(
                () ->
                    Workers.run(
                        pieces,
                        count,
                        false,
                        () ->
                            new Collecting(out, within) {
                              @Override
                              void row(String number) {
                                if (Integer.parseInt(number) >= 100) {
                                  throw new DataException("row " + number);
                                }
                              }
                            }))
            .hasMessage("row 100");
      }
      assertThat(out).isEqualTo(upTo(99)); // the piece from 99 on is not put out
    }
  }

  @Test
  void aTableThatCannotBeReadFurtherIsToldInItsTurn() {
    List<String> out = new ArrayList<>();
    AtomicInteger within = new AtomicInteger();
    try (Pieces pieces = new Broken(numbers().pieces(1, null), 5)) {
      assertThatThrownBy(() -> Workers.run(pieces, 3, false, () -> new Collecting(out, within)))
          .hasMessage("the disk is gone");
    }
    assertThat(out).isEqualTo(upTo(15));
  }

  @Test
  void aWorkerMayEndItBeforeTheEnd() {
    List<String> out = new ArrayList<>();
    AtomicInteger within = new AtomicInteger();
    try (Pieces pieces = numbers().pieces(1, null)) {
      Workers.run(
          pieces,
          4,
          false,
          () ->
              new Collecting(out, within) {
                @Override
                public boolean inOrder() {
                  super.inOrder();
                  return out.size() < 30;
                }
              });
    }
    assertThat(out).isEqualTo(upTo(30));
  }

  /** An error, such as of memory, is passed on as it is; so is a failure while putting out. */
  @Test
  void errorsAndFailuresInOrderArePassedOn() {
    for (boolean error : new boolean[] {true, false}) {
      try (Pieces pieces = numbers().pieces(1, null)) {
        assertThatThrownBy(
                () ->
                    Workers.run(
                        pieces,
                        2,
                        false,
                        () ->
                            new Collecting(new ArrayList<>(), new AtomicInteger()) {
                              @Override
                              public boolean inOrder() {
                                if (error) {
                                  throw new OutOfMemoryError("full");
                                }
                                throw new DataException("full");
                              }
                            }))
            .isInstanceOf(error ? OutOfMemoryError.class : DataException.class)
            .hasMessage("full");
      }
    }
  }

  @Test
  void anInterruptedRunEnds() {
    Thread.currentThread().interrupt();
    try (Pieces pieces = numbers().pieces(1, null)) {
      List<String> out = new ArrayList<>();
      AtomicInteger within = new AtomicInteger();
      try {
        Workers.run(pieces, 3, false, () -> new Collecting(out, within));
      } catch (DataException e) {
        assertThat(e).hasMessage("the run was interrupted");
      }
      assertThat(out).isEqualTo(upTo(out.size()));
    }
    assertThat(Thread.interrupted()).as("nobody forgets it").isTrue();
  }

  /** Pieces that end with a failure. */
  private record Broken(Pieces pieces, int[] left) implements Pieces {
    Broken(Pieces pieces, int good) {
      this(pieces, new int[] {good});
    }

    @Override
    public Piece piece() {
      return pieces.piece();
    }

    @Override
    public boolean next(Piece into) {
      if (left[0]-- == 0) {
        throw new DataException("the disk is gone");
      }
      return pieces.next(into);
    }

    @Override
    public long rows() {
      return pieces.rows();
    }

    @Override
    public long bytesRead() {
      return pieces.bytesRead();
    }

    @Override
    public void close() {
      pieces.close();
    }
  }
}
