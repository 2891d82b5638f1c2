/**
 * Tables as the engine reads them. In: a table cut into pieces of whole rows. Out: the same cells,
 * columnar, some thousand rows at a time, to several workers. Start reading at {@link
 * org.abletwine.table.batch.Batch}, and for who works on what at {@link
 * org.abletwine.table.batch.Workers}.
 */
@NullMarked
package org.abletwine.table.batch;

import org.jspecify.annotations.NullMarked;
