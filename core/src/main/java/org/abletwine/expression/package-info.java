/**
 * SQL conditions over the cells of a row. In: the text of a condition and the columns. Out: yes, no
 * or unknown for each row. Start reading at {@link org.abletwine.expression.Condition}.
 */
@NullMarked
package org.abletwine.expression;

import org.jspecify.annotations.NullMarked;
