/**
 * Finds reference rows by rules. In: the values of columns of the reference, each row in the
 * partition of the key's equal parts. Out: for each row of ours the row it fits, the set of rows,
 * or why it fits none. Start reading at {@link org.abletwine.match.index.RuleChain}, and for a
 * single rule at {@link org.abletwine.match.index.RuleIndex}.
 */
@NullMarked
package org.abletwine.match.index;

import org.jspecify.annotations.NullMarked;
