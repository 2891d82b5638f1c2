/**
 * A plan drafted from tables: transactions and references go in, the text of a plan comes out, with
 * the evidence for each lookup as comments. Start with {@link org.abletwine.plan.draft.Draft}.
 *
 * <pre>{@code
 * Draft draft = Draft.of(Path.of("tickets.csv"), List.of(Path.of("growers.csv")), Path.of("."));
 * Files.writeString(Path.of("tickets.plan.yaml"), draft.text());
 * }</pre>
 */
@NullMarked
package org.abletwine.plan.draft;

import org.jspecify.annotations.NullMarked;
