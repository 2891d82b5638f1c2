package org.abletwine.cluster;

import java.io.Serializable;
import java.util.List;
import org.abletwine.plan.PlanExchange;
import org.abletwine.plan.PlanInParts;

/**
 * What all processes of a run have in common.
 *
 * @param sharing the plan, and how it is run
 * @param rounds the lookups whose references are divided among the processes, in a list that is
 *     serializable
 */
record Dividing(PlanInParts.Sharing sharing, List<PlanExchange.Round> rounds)
    implements Serializable {}
