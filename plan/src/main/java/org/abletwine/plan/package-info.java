/**
 * Plan files. In: a YAML file. Out: the enrichment it describes, ready to run, or every mistake in
 * it with its line; and the record of a run as JSON. Start reading at {@link
 * org.abletwine.plan.PlanFile}.
 */
@NullMarked
package org.abletwine.plan;

import org.jspecify.annotations.NullMarked;
