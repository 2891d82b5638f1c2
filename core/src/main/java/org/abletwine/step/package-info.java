/**
 * What every step of an enrichment has in common, and who is told what happens. Start reading at
 * {@link org.abletwine.step.Step}.
 */
@NullMarked
package org.abletwine.step;

import org.jspecify.annotations.NullMarked;
