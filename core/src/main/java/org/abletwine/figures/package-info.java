/**
 * The figures of a run, as plain records. In: counts from the engine. Out: a run record that
 * reports, terminal and JSON share. Start reading at {@link org.abletwine.figures.RunRecord}.
 *
 * <pre>{@code
 * Table growers = Tables.file(Path.of("growers.csv"));
 * RunRecord record =
 *     Enrichment.of(Tables.file(Path.of("tickets.csv")))
 *         .measure("gross_kg")
 *         .lookup(Lookup.in(growers).key("grower_code", "grower_no").bring("name"))
 *         .build()
 *         .forEach(row -> {});
 * LookupFigures lookup = record.lookups().get(0);
 * System.out.println(lookup.matched() + lookup.unmatched() + lookup.ambiguous() + lookup.blankKey());
 * System.out.println(record.toJson());
 * }</pre>
 */
@NullMarked
package org.abletwine.figures;

import org.jspecify.annotations.NullMarked;
