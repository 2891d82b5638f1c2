/**
 * How keys are made to agree. In: key parts as written. Out: what is compared. Start reading at
 * {@link org.abletwine.key.Normalise}.
 *
 * <pre>{@code
 * Table growers = Tables.file(Path.of("growers.csv"));
 * Lookup byCode =
 *     Lookup.in(growers)
 *         .key("grower_code", "grower_no")
 *         .normalise(Normalise.trim(), Normalise.ignoreCase(), Normalise.padZeros(6))
 *         .bring("name");
 * List<NormaliseStep> same = Normalise.parse(List.of("trim", "ignore-case"));
 * System.out.println(same.get(0).apply(" 000324R ")); // 000324R
 * }</pre>
 */
@NullMarked
package org.abletwine.key;

import org.jspecify.annotations.NullMarked;
