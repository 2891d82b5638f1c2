package org.abletwine.plan;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.step.Progress;
import org.abletwine.table.OutputFile;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** A plan that has been read and checked, ready to run. For one run, by one thread. */
public final class PlannedRun {
  private final Enrichment.Builder enrichment;
  private final @Nullable Path enriched;
  private final @Nullable Path record;

  PlannedRun(Enrichment.Builder enrichment, @Nullable Path enriched, @Nullable Path record) {
    this.enrichment = enrichment;
    this.enriched = enriched;
    this.record = record;
  }

  /** What a run wrote: its record, and the form of the enriched file in words. */
  public record Result(RunRecord record, @Nullable Path enriched, String form, long bytes) {}

  /**
   * Runs the plan and writes its outputs.
   *
   * @param progress told about the tables being read
   * @return what was written
   * @throws SettingException when the plan names no output
   * @throws org.abletwine.table.DataException when the data or a file stops the run
   */
  public Result run(Progress progress) {
    if (enriched == null) {
      throw new SettingException(
          "the plan writes nothing; state outputs: { enriched: FILE.csv }, or run with --preview");
    }
    OutputFile recordFile = record == null ? null : new OutputFile(record);
    try (TableSink sink = Tables.sink(enriched)) {
      RunRecord figures = enrichment.build().writeTo(sink, progress);
      if (recordFile != null) {
        byte[] json = (RunJson.text(figures) + "\n").getBytes(StandardCharsets.UTF_8);
        recordFile.write(json, json.length);
        recordFile.commit();
      }
      return new Result(figures, enriched, sink.form(), sink.bytesWritten());
    } finally {
      if (recordFile != null) {
        recordFile.close();
      }
    }
  }

  /**
   * Runs the first rows and writes no file.
   *
   * @param rows how many transactions
   * @param sink where the rows go
   * @return the account of these rows
   */
  public RunRecord preview(long rows, TableSink sink) {
    return enrichment.firstRows(rows).build().writeTo(sink);
  }
}
