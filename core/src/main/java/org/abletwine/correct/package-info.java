/**
 * Bulk replacement of listed wrong values. In: a correction table and batches of transactions. Out:
 * the same batches with the right values, and how often each line was used. Start reading at {@link
 * org.abletwine.correct.Correction}.
 *
 * <pre>{@code
 * Table tickets = Tables.file(Path.of("tickets.csv"));
 * Table meant =
 *     Tables.of(
 *         "corrections",
 *         List.of("written", "meant"),
 *         List.of(List.of("Old Tolly", "Old Tolley"), List.of("Fieldfair", "Fieldfare")));
 * RunRecord record =
 *     Enrichment.of(tickets).step(Correction.of("variety", meant)).build().forEach(row -> {});
 * System.out.println(record.corrections().get(0));
 * }</pre>
 */
@NullMarked
package org.abletwine.correct;

import org.jspecify.annotations.NullMarked;
