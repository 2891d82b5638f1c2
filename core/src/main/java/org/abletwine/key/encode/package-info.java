/**
 * Keys for comparison. In: cells of the key columns. Out: comparison bytes and hashes per row,
 * every normalise step applied. Start reading at {@link org.abletwine.key.encode.KeyEncoder}.
 */
@NullMarked
package org.abletwine.key.encode;

import org.jspecify.annotations.NullMarked;
