/**
 * Bytes of tables, compressed or not. In: a file, a pipe or standard input. Out: the bytes that are
 * in it, and outputs compressed as their names say. Start reading at {@link
 * org.abletwine.formats.packed.ByteSource}.
 */
@NullMarked
package org.abletwine.formats.packed;

import org.jspecify.annotations.NullMarked;
