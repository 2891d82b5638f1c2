/**
 * The whole run. In: a transactions table and the steps. Out: enriched rows to a sink, and the run
 * record. Start reading at {@link org.abletwine.enrich.Enrichment}.
 *
 * <pre>{@code
 * try (TableSink sink = Tables.sink(Path.of("enriched.csv"))) {
 *   RunRecord record =
 *       Enrichment.of(Tables.file(Path.of("tickets.csv")))
 *           .lookup(Lookup.in(growers).key("grower_code", "code").bring("district"))
 *           .build()
 *           .writeTo(sink);
 *   System.out.println(record.lookups().get(0).matched());
 * }
 * }</pre>
 */
@NullMarked
package org.abletwine.enrich;

import org.jspecify.annotations.NullMarked;
