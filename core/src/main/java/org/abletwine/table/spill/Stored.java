package org.abletwine.table.spill;

import org.abletwine.table.output.StoredBytes;

/**
 * Rows that were written one behind the other.
 *
 * @param bytes of each row its number, and then its cells, as {@link RowBytes} writes them
 * @param rows how many rows there are
 */
public record Stored(StoredBytes bytes, long rows) {}
