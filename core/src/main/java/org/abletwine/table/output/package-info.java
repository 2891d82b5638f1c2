/**
 * Files that are written beside their target and moved into place together. Start reading at {@link
 * org.abletwine.table.output.OutputGroup}.
 */
@NullMarked
package org.abletwine.table.output;

import org.jspecify.annotations.NullMarked;
