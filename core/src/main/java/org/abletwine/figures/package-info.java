/**
 * The figures of a run, as plain records. In: counts from the engine. Out: a run record that
 * reports, terminal and JSON share. Start reading at {@link org.abletwine.figures.RunRecord}.
 */
@NullMarked
package org.abletwine.figures;

import org.jspecify.annotations.NullMarked;
