/**
 * The whole run. In: a transactions table and the steps. Out: enriched rows to a sink, and the run
 * record. Start reading at {@link org.abletwine.enrich.Enrichment}.
 *
 * <pre>{@code
 * Table growers = Tables.file(Path.of("growers.csv"));
 * Enrichment enrichment =
 *     Enrichment.of(Tables.file(Path.of("tickets.csv")))
 *         .lookup(Lookup.in(growers).key("grower_code", "grower_no").bring("district_code"))
 *         .build();
 * try (TableSink sink = Tables.sink(Path.of("enriched.csv"))) {
 *   System.out.println(enrichment.writeTo(sink).lookups().get(0).matched());
 * }
 * System.out.println(enrichment.rows().get(0).get("district_code"));
 * }</pre>
 */
@NullMarked
package org.abletwine.enrich;

import org.jspecify.annotations.NullMarked;
