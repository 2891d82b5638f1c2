/** Rows of a reference: their numbers, which of several stays, which is the newest. */
@NullMarked
package org.abletwine.lookup.rows;

import org.jspecify.annotations.NullMarked;
