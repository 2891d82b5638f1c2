/**
 * One lookup: fetching attributes from one reference. In: a definition and batches of transactions.
 * Out: an outcome per row and the attribute columns. Start reading at {@link
 * org.abletwine.lookup.Lookup}.
 */
@NullMarked
package org.abletwine.lookup;

import org.jspecify.annotations.NullMarked;
