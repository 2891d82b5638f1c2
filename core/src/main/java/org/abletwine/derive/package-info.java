/**
 * Steps that make columns from columns. In: a batch with what was fetched so far. Out: the same
 * rows with columns added, left out or put in order. Start reading at {@link
 * org.abletwine.derive.Coalesce}.
 */
@NullMarked
package org.abletwine.derive;

import org.jspecify.annotations.NullMarked;
