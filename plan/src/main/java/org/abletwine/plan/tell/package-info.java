/**
 * What a person is told of a run, in whatever form: what needs them, what was noticed, numbers in
 * words. Figures go in, sentences come out. Start with {@link org.abletwine.plan.tell.Needs}.
 */
@NullMarked
package org.abletwine.plan.tell;

import org.jspecify.annotations.NullMarked;
