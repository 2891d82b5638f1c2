/**
 * How keys are made to agree. In: key parts as written. Out: what is compared. Start reading at
 * {@link org.abletwine.key.Normalise}.
 *
 * <pre>{@code
 * Lookup byCode =
 *     Lookup.in(growers)
 *         .key("grower_code", "code")
 *         .normalise(Normalise.trim(), Normalise.ignoreCase(), Normalise.padZeros(6));
 * }</pre>
 */
@NullMarked
package org.abletwine.key;

import org.jspecify.annotations.NullMarked;
