/**
 * What every step of an enrichment has in common, and who is told what happens. Start reading at
 * {@link org.abletwine.step.Step}.
 *
 * <pre>{@code
 * Table tickets = Tables.file(Path.of("tickets.csv"));
 * Table growers = Tables.file(Path.of("growers.csv"));
 * List<Exceptions.Found> attention = new ArrayList<>();
 * Enrichment.of(tickets)
 *     .lookup(Lookup.in(growers).key("grower_code", "grower_no").bring("name"))
 *     .exceptions(attention::add)
 *     .build()
 *     .forEach(row -> {});
 * System.out.println(attention.get(0).kind() + " in row " + attention.get(0).row());
 * }</pre>
 */
@NullMarked
package org.abletwine.step;

import org.jspecify.annotations.NullMarked;
