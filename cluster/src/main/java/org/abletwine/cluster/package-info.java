/**
 * A plan on a distributed engine (Apache Flink, its DataStream API in batch execution). In goes a
 * plan ({@link org.abletwine.cluster.Main}); the engine hands stretches of the transactions, and
 * then ranges of their rows, to its processes, and starts again what was lost; each takes its rows
 * through the steps as a run by one process does, and one puts all together.
 */
@NullMarked
package org.abletwine.cluster;

import org.jspecify.annotations.NullMarked;
