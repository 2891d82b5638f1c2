package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.CALLS_REAL_METHODS;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.derive.Keep;
import org.abletwine.derive.Rollup;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.BatchTable;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(20)
class PipelineTest {

  private static MemoryTable numbers(int count) {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      rows.add(new String[] {Integer.toString(i)});
    }
    return new MemoryTable("numbers", List.of("n"), rows, 7);
  }

  @Test
  void orderIsKept() {
    ListSink sink = new ListSink();
    RunRecord record = Enrichment.of(numbers(10_000)).build().writeTo(sink);
    for (int i = 0; i < 10_000; i++) {
      assertThat(sink.cell(i, "n")).isEqualTo(Integer.toString(i));
    }
    assertThat(record.rowsIn()).isEqualTo(10_000);
  }

  @Test
  void firstRowsStopsEarly() {
    ListSink sink = new ListSink();
    RunRecord record = Enrichment.of(numbers(10_000)).firstRows(10).build().writeTo(sink);
    assertThat(sink.rows()).hasSize(10);
    assertThat(record.rowsIn()).isEqualTo(10);
  }

  @Test
  void aSinkThatFailsEndsTheRunWithItsOwnMessage() {
    BatchSink sink = mock(BatchSink.class, CALLS_REAL_METHODS);
    doThrow(new DataException("no space left")).when(sink).write(any(), any());
    assertThatThrownBy(() -> Enrichment.of(numbers(100_000)).build().writeTo(sink))
        .hasMessage("no space left");
    verify(sink, never()).commit();
  }

  @Test
  void aReaderThatFailsEndsTheRunWithItsOwnMessage() {
    MemoryTable table = new MemoryTable("t", List.of("a", "b"), List.of(), 1);
    BatchTable broken = mock(BatchTable.class);
    org.abletwine.table.batch.TableReader reader =
        mock(org.abletwine.table.batch.TableReader.class);
    org.mockito.Mockito.when(broken.name()).thenReturn("t");
    org.mockito.Mockito.when(broken.schema()).thenReturn(table.schema());
    org.mockito.Mockito.when(broken.pieces(anyInt(), any()))
        .thenReturn(new BatchPieces(reader, 2, null));
    org.mockito.Mockito.when(reader.read(any())).thenThrow(new DataException("line 7 is bad"));
    ListSink sink = new ListSink();
    assertThatThrownBy(() -> Enrichment.of(broken).build().writeTo(sink))
        .hasMessage("line 7 is bad");
    assertThat(sink.committed()).isFalse();
    verify(reader).close();
  }

  /** Computing goes to whoever has time; rows, their order and the totals are the same. */
  @Test
  void computingIsSharedWithoutLosingOrRepeatingARow() {
    for (int slow = 0; slow < 2; slow++) {
      boolean slowSink = slow == 1;
      List<String> written = new ArrayList<>();
      BatchSink sink = mock(BatchSink.class, CALLS_REAL_METHODS);
      doAnswer(
              call -> {
                Batch batch = call.getArgument(0);
                int[] columns = call.getArgument(1);
                for (int row = 0; row < batch.rows(); row++) {
                  written.add(
                      batch.column(columns[0]).get(row) + "=" + batch.column(columns[1]).get(row));
                }
                if (slowSink && written.size() % 70 == 0) {
                  Thread.sleep(1);
                }
                return null;
              })
          .when(sink)
          .write(any(), any());
      MemoryTable numbers = numbers(3_000);
      RunRecord record =
          Enrichment.of(numbers)
              .step(new Compute("twice", "n * 2", Evaluation.STRICT))
              .step(new Keep("mod(n, 10) <> 3", null, numbers, Evaluation.STRICT))
              .step(new Rollup(List.of(), List.of("twice"), true, null, numbers, Evaluation.STRICT))
              .build()
              .writeTo(sink);
      List<String> expected = new ArrayList<>();
      long sum = 0;
      for (int i = 0; i < 3_000; i++) {
        if (i % 10 != 3) {
          expected.add(i + "=" + 2 * i);
          sum += 2 * i;
        }
      }
      assertThat(written).isEqualTo(expected);
      assertThat(record.of(StepFigures.RolledUp.class).get(0).grandTotal())
          .containsExactly(Long.toString(sum));
      assertThat(record.of(StepFigures.Kept.class).get(0).leftOut()).isEqualTo(300);
    }
  }

  @Test
  void aStepThatFailsEndsTheRunWhicheverThreadItRanOn() {
    ListSink sink = new ListSink();
    assertThatThrownBy(
            () ->
                Enrichment.of(numbers(20_000))
                    .step(new Compute("x", "1 / (n - 15000)", Evaluation.STRICT))
                    .build()
                    .writeTo(sink))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 15001, compute x: division of 1 by zero");
    assertThat(sink.committed()).isFalse();
  }

  /** Reasons of more columns than fit a byte are told apart, whoever meets them first. */
  @Test
  void reasonsForNullsAreTheSameForAnyNumberOfWorkers() {
    List<StepFigures> before = List.of();
    for (int workers = 1; workers <= 4; workers++) {
      Enrichment.Builder builder = Enrichment.of(numbers(570)).workers(workers);
      for (int column = 0; column < 190; column++) {
        String nulls = "n + nullif(mod(n, 190), " + column + ")";
        builder.step(new Compute("c" + column, nulls, Evaluation.STRICT));
      }
      String all =
          IntStream.range(0, 190).mapToObj(c -> "c" + c).collect(Collectors.joining(" + "));
      builder.step(new Compute("sum", all, Evaluation.STRICT));
      List<StepFigures> figures = builder.build().writeTo(new ListSink()).steps();
      StepFigures.Computed sum = (StepFigures.Computed) figures.get(190);
      assertThat(sum.nulls()).isEqualTo(570);
      assertThat(sum.reasons()).hasSize(190).allMatch(share -> share.rows() == 3);
      assertThat(workers == 1 ? figures : before).isEqualTo(figures);
      before = figures;
    }
  }
}
