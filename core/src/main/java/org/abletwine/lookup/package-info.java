/**
 * One lookup: fetching attributes from one reference. In: a definition and transactions. Out: an
 * outcome per row and the attribute columns. Start reading at {@link org.abletwine.lookup.Lookup}.
 *
 * <pre>{@code
 * LoadedLookup growers =
 *     Lookup.in(Tables.file(Path.of("growers.csv")))
 *         .key("grower_code", "grower_no")
 *         .bring("name", "district_code")
 *         .whenUnmatched(Fill.fill("name", "Unlisted"))
 *         .load();
 * LoadedLookup.Result found = growers.find("000324R");
 * System.out.println(found.outcome().label() + " " + found.get("district_code"));
 * System.out.println(growers.find("no such").get("name")); // Unlisted
 * }</pre>
 */
@NullMarked
package org.abletwine.lookup;

import org.jspecify.annotations.NullMarked;
