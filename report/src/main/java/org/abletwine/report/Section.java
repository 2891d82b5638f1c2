package org.abletwine.report;

import java.util.List;

/**
 * A section of the page.
 *
 * @param id its name within the page
 * @param title its heading
 * @param blocks what stands in it
 */
public record Section(String id, String title, List<Block> blocks) {
  /** Copies the list. */
  public Section {
    blocks = List.copyOf(blocks);
  }
}
