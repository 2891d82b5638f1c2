/**
 * Matching by something other than equality: bands, dates in force, part texts, patterns, similar
 * texts. Start reading at {@link org.abletwine.match.MatchRule}.
 */
@NullMarked
package org.abletwine.match;

import org.jspecify.annotations.NullMarked;
