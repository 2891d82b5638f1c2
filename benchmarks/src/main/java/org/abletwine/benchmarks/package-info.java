/**
 * Measurements: kernels with JMH, and whole runs against the plain program. Start reading at {@link
 * org.abletwine.benchmarks.Compare}.
 */
@NullMarked
package org.abletwine.benchmarks;

import org.jspecify.annotations.NullMarked;
