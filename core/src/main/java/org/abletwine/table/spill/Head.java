package org.abletwine.table.spill;

import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;

/**
 * The head of a table whose rows are in files.
 *
 * @param name its name
 * @param schema its columns
 */
public record Head(String name, Schema schema) implements Table {
  @Override
  public Rows rows() {
    throw new IllegalStateException("the rows of " + name + " are in files");
  }
}
