/**
 * Looking before joining. In: tables. Out: where a key stands twice, how far two keys agree and
 * what would make them agree, what a table's columns hold. Start reading at {@link
 * org.abletwine.audit.OverlapAudit}.
 *
 * <pre>{@code
 * Table tickets = Tables.file(Path.of("tickets.csv"));
 * Table growers = Tables.file(Path.of("growers.csv"));
 * System.out.println(TableProfile.of(growers).columns().get(0));
 * int[] ours = {tickets.schema().indexOf("grower_code")};
 * int[] theirs = {growers.schema().indexOf("grower_no")};
 * System.out.println(DuplicateAudit.of(growers, theirs, List.of()).report(5).examples());
 * OverlapAudit.Report overlap = OverlapAudit.compare(tickets, ours, growers, theirs, -1, List.of(), 10);
 * System.out.println(overlap.best()); // the steps that make most keys agree
 * }</pre>
 */
@NullMarked
package org.abletwine.audit;

import org.jspecify.annotations.NullMarked;
