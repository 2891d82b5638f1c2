/**
 * One lookup: fetching attributes from one reference. In: a definition and transactions. Out: an
 * outcome per row and the attribute columns. Start reading at {@link org.abletwine.lookup.Lookup}.
 *
 * <pre>{@code
 * LoadedLookup growers =
 *     Lookup.in(Tables.file(Path.of("growers.csv")))
 *         .key("grower_code", "code")
 *         .bring("name", "district")
 *         .load();
 * LookupResult found = growers.find("004711");
 * System.out.println(found.outcome() + " " + found.get("district"));
 * }</pre>
 */
@NullMarked
package org.abletwine.lookup;

import org.jspecify.annotations.NullMarked;
