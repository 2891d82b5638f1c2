package org.abletwine.report;

import java.util.List;
import org.abletwine.plan.tell.Words;

/**
 * A section of the page.
 *
 * @param id its name within the page
 * @param title its heading
 * @param blocks what stands in it
 */
public record Section(String id, String title, List<Block> blocks) {
  /** Copies the list, and shows control characters of the title. */
  public Section {
    title = Words.shown(title);
    blocks = List.copyOf(blocks);
  }
}
