package org.abletwine.report.chart;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.report.Block;
import org.jspecify.annotations.Nullable;

/** The pictures of a report, drawn beside whatever else is made of a run. Safe between threads. */
public final class DrawnPictures {
  private final CompletableFuture<Pieces> pieces;

  private record Pieces(
      Block.@Nullable Picture withoutMatch, List<Block.@Nullable Picture> groups) {}

  /**
   * Begins to draw, on another thread.
   *
   * @param run the figures
   */
  public DrawnPictures(RunRecord run) {
    pieces = CompletableFuture.supplyAsync(() -> drawn(run));
  }

  private static Pieces drawn(RunRecord run) {
    List<Block.@Nullable Picture> groups = new ArrayList<>();
    for (StepFigures.RolledUp rollup : run.of(StepFigures.RolledUp.class)) {
      groups.add(Pictures.groups(rollup));
    }
    return new Pieces(Pictures.withoutMatch(run), groups);
  }

  /** As {@link Pictures#withoutMatch}; waits until it is drawn. */
  public Block.@Nullable Picture withoutMatch() {
    return pieces.join().withoutMatch;
  }

  /**
   * As {@link Pictures#groups}; waits until it is drawn.
   *
   * @param rollup which rollup, 0-based
   */
  public Block.@Nullable Picture groups(int rollup) {
    return pieces.join().groups.get(rollup);
  }
}
