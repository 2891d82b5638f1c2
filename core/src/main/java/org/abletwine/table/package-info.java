/**
 * Tables as streams of batches. In: rows from a reader behind {@link org.abletwine.table.Table}.
 * Out: the same cells, columnar, some thousand rows at a time. Start reading at {@link
 * org.abletwine.table.batch.Batch}.
 */
@NullMarked
package org.abletwine.table;

import org.jspecify.annotations.NullMarked;
