/**
 * Steps in a run. In: a definition and the columns so far. Out: something that transforms batch
 * after batch, by several workers, and counts what it did. Start reading at {@link
 * org.abletwine.step.run.RunStep}.
 */
@NullMarked
package org.abletwine.step.run;

import org.jspecify.annotations.NullMarked;
