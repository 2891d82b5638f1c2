/**
 * Bulk replacement of listed wrong values. In: a correction table and batches of transactions. Out:
 * the same batches with the right values, and how often each line was used. Start reading at {@link
 * org.abletwine.correct.Correction}.
 */
@NullMarked
package org.abletwine.correct;

import org.jspecify.annotations.NullMarked;
