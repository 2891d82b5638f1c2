/**
 * SQL scalar expressions, evaluated over batches. In: an expression as text and the columns it may
 * name. Out: a column of numbers, texts, dates or truth values for each batch. Start reading at
 * {@link org.abletwine.compute.Expression}.
 */
@NullMarked
package org.abletwine.compute;

import org.jspecify.annotations.NullMarked;
