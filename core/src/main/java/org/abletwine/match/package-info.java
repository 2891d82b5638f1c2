/**
 * Matching by something other than equality: bands, dates in force, part texts, patterns, similar
 * texts. Start reading at {@link org.abletwine.match.MatchRule}.
 *
 * <pre>{@code
 * Table prices = Tables.file(Path.of("prices.csv"));
 * LoadedLookup inForce =
 *     Lookup.in(prices)
 *         .key("commodity")
 *         .key("grade")
 *         .key(KeyPart.atOrBelow("day", "effective_from").within(60))
 *         .bring("price_per_tonne")
 *         .load();
 * System.out.println(inForce.find("wheat", "M1", "2026-07-21").decimal("price_per_tonne"));
 * MatchRule rule = MatchRule.of(MatchRule.Kind.WILDCARD); // or of one's own making
 * }</pre>
 */
@NullMarked
package org.abletwine.match;

import org.jspecify.annotations.NullMarked;
