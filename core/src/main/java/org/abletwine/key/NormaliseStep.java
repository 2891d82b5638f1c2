package org.abletwine.key;

import java.io.Serializable;
import org.abletwine.table.CellVector;

/**
 * One step that makes keys agree which two systems write differently. It changes what is compared,
 * never what is written out. Implementations are immutable and safe to share between threads.
 */
public interface NormaliseStep extends Serializable {

  /** Returns the step as a plan states it, such as {@code trim}. */
  String name();

  /**
   * Applies the step to every cell that is not null. The positions may be moved freely; the
   * characters only after {@link CellVector#takeOwnership()}.
   *
   * @param cells the cells, changed in place
   * @param rows how many
   */
  void apply(CellVector cells, int rows);
}
