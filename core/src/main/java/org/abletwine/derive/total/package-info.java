/** Steps that a plan's controls add: totals on the way, and conditions over the whole output. */
@NullMarked
package org.abletwine.derive.total;

import org.jspecify.annotations.NullMarked;
