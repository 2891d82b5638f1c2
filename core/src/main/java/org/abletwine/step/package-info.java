/**
 * What every step of a run has in common. In: a definition and the columns so far. Out: something
 * that transforms batch after batch and counts what it did. Start reading at {@link
 * org.abletwine.step.Step}.
 */
@NullMarked
package org.abletwine.step;

import org.jspecify.annotations.NullMarked;
