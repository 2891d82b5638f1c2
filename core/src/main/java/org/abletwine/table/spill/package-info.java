/**
 * Rows that do not fit in memory. In goes what a run may hold ({@link
 * org.abletwine.table.spill.Spill}), out come files of rows, parted by their keys ({@link
 * org.abletwine.table.spill.PartedRows}), which are read as tables ({@link
 * org.abletwine.table.spill.SpilledTable}).
 */
@NullMarked
package org.abletwine.table.spill;

import org.jspecify.annotations.NullMarked;
