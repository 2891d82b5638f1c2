/**
 * What changed between two runs: two records go in, a list of changes comes out, the largest first.
 * Start with {@link org.abletwine.plan.drift.Drift}.
 *
 * <pre>{@code
 * Drift drift = Drift.between(Path.of("august.json"), Path.of("september.json"), Limits.NONE);
 * for (Change change : drift.changes()) {
 *   System.out.println(change.area() + " " + change.what() + ": " + change.change());
 * }
 * if (!drift.holds()) {
 *   System.out.println("beyond what is allowed");
 * }
 * }</pre>
 */
@NullMarked
package org.abletwine.plan.drift;

import org.jspecify.annotations.NullMarked;
