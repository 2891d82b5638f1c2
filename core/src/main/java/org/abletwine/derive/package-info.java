/**
 * Steps that make columns from columns. In: a batch with what was fetched so far. Out: the same
 * rows with columns added, left out or put in order. Start reading at {@link
 * org.abletwine.derive.Coalesce}.
 *
 * <pre>{@code
 * Table tickets = Tables.file(Path.of("tickets.csv"));
 * Evaluation strict = Evaluation.STRICT;
 * RunRecord record =
 *     Enrichment.of(tickets)
 *         .step(new Compute("net_kg", "gross_kg - tare_kg", strict))
 *         .step(new Keep("net_kg > 0", null, tickets, strict))
 *         .step(new Rollup(List.of("commodity"), List.of("net_kg"), true, null, tickets, strict))
 *         .build()
 *         .forEach(row -> {});
 * System.out.println(record.of(StepFigures.RolledUp.class).get(0).groups());
 * }</pre>
 */
@NullMarked
package org.abletwine.derive;

import org.jspecify.annotations.NullMarked;
