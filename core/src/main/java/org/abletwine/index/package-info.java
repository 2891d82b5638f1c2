/**
 * References held in memory as flat arrays. In: batches of a reference and their encoded keys. Out:
 * the row number for a key. Start reading at {@link org.abletwine.index.HashIndex}.
 */
@NullMarked
package org.abletwine.index;

import org.jspecify.annotations.NullMarked;
