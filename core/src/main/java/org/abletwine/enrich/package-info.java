/**
 * The whole run. In: a transactions table and the steps. Out: enriched batches to a sink, and the
 * run record. Start reading at {@link org.abletwine.enrich.Enrichment}.
 */
@NullMarked
package org.abletwine.enrich;

import org.jspecify.annotations.NullMarked;
